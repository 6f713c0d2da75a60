export interface Segment {
  readonly segment: string
  readonly index: number // in the whole text, in UTF-16 code units
  readonly isWordLike: boolean
}

const WINDOW = 1024 // UTF-16 code units
/** Rules of segmentation look ahead over letters and marks: a boundary is believed only this far before a window's end. */
const MARGIN = 128

/**
 * Segments of a text (UAX #29), window by window. `Intl.Segmenter` takes time by the length of the whole text for each
 * segment, so that 60,000 characters given at once take seconds; in windows the time grows with the text. Each window
 * begins at a boundary, and one that holds no boundary far enough from its end is doubled.
 */
export function* segmentsOf(segmenter: Intl.Segmenter, text: string): Generator<Segment> {
  let start = 0
  let size = WINDOW
  while (start < text.length) {
    const end = Math.min(text.length, start + size)
    const believed = end === text.length ? end : end - MARGIN
    const from = start
    for (const { segment, index, isWordLike } of segmenter.segment(text.slice(from, end))) {
      if (from + index + segment.length > believed) break
      yield { segment, index: from + index, isWordLike: isWordLike === true }
      start = from + index + segment.length
    }
    size = start === from ? 2 * size : WINDOW
  }
}

const words = new Intl.Segmenter('en', { granularity: 'word' })
const sentences = new Intl.Segmenter('en', { granularity: 'sentence' })

/** Words and what stands between them: `isWordLike` where a segment holds a letter or digit. */
export const wordSegments = (text: string) => segmentsOf(words, text)
export const sentenceSegments = (text: string) => segmentsOf(sentences, text)
