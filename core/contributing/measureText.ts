import { sentenceSegments, wordSegments } from '../language/segments'
import { plainText, type RichNode } from './richText'

/**
 * Number of words by Unicode word segmentation (UAX #29): segments that hold a letter or digit.
 * @example countWords("The ballast book of 1686 isn't mine.") => 7
 */
export function countWords(text: string): number {
  let count = 0
  for (const segment of wordSegments(text)) if (segment.isWordLike) count++
  return count
}

/** Number of sentences by Unicode sentence segmentation (UAX #29); a line without a word is none. */
export function countSentences(text: string): number {
  let count = 0
  for (const line of text.split('\n'))
    for (const { segment } of sentenceSegments(line)) if (hasWord(segment)) count++
  return count
}

function hasWord(text: string): boolean {
  for (const segment of wordSegments(text)) if (segment.isWordLike) return true
  return false
}

export interface TextMeasure {
  readonly text: string // visible text, quotations included
  readonly words: number // of one's own: block quotations left out
  readonly sentences: number // of one's own
}

/** What is stored beside a document: its text, and its words and sentences with quotations left out. */
export function measureText(doc: RichNode): TextMeasure {
  const own = plainText(doc, { leaveOutQuotations: true })
  return { text: plainText(doc), words: countWords(own), sentences: countSentences(own) }
}
