/**
 * A passage of a text as it is kept: its words with what stood around them (W3C Web Annotation, TextQuoteSelector) and
 * where it stood (TextPositionSelector, a hint alone). In characters of the readable text.
 */
export interface TextAnchor {
  readonly exact: string
  readonly prefix: string
  readonly suffix: string
  readonly start: number
  readonly end: number
}

/** Characters kept before and after. */
export const CONTEXT = 48

/**
 * @param text readable text
 * @throws {RangeError} if the passage is empty or not within the text
 */
export function makeAnchor(text: string, start: number, end: number): TextAnchor {
  if (!(Number.isInteger(start) && Number.isInteger(end) && start >= 0 && start < end && end <= text.length))
    throw new RangeError('makeAnchor needs a passage within the text')
  return {
    exact: text.slice(start, end),
    prefix: text.slice(Math.max(0, start - CONTEXT), start),
    suffix: text.slice(end, end + CONTEXT),
    start,
    end,
  }
}
