import { countSentences } from '../contributing/measureText'
import { wordSegments } from '../language/segments'
import { plainText, type RichNode } from '../contributing/richText'
import { countSyllables } from './readingEase'

export interface TextCount {
  readonly sentences: number
  readonly syllables: number
}

/** Sentences and syllables of somebody's own words: quotations are left out, as they are of the words. */
export function countText(doc: RichNode): TextCount {
  const own = plainText(doc, { leaveOutQuotations: true })
  let syllables = 0
  for (const { segment, isWordLike } of wordSegments(own))
    if (isWordLike) syllables += countSyllables(segment)
  return { sentences: countSentences(own), syllables }
}
