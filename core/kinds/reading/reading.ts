/** What is read: pages of a paper, sections of an article or a book, stretches of a recording's transcript. */
export const TEXT_FORMS = ['paper', 'article', 'recording'] as const
export type TextForm = (typeof TEXT_FORMS)[number]

/** One page, section or stretch of a text, counted from 1. Places are in characters of the whole readable text. */
export interface TextPart {
  readonly number: number
  readonly label: string // as it is printed: "5", "iv", "2:00"
  readonly heading: string | null // of the section that begins here
  readonly start: number
  readonly end: number
  readonly words: number
  readonly aspect: number | null // of a page: its height to its width
  readonly drawnOnly: boolean // a page without words: a scan
  readonly time: readonly [from: number, to: number] | null // of a recording, seconds
}

/** What stands between two parts in the whole text, so that a passage can go from one into the next. */
export const BETWEEN_PARTS = ' '

/** Parts laid end to end. @param texts readable text of each part */
export function joinParts<T extends Omit<TextPart, 'number' | 'start' | 'end' | 'words'>>(
  parts: ReadonlyArray<T & { readonly text: string }>,
): { text: string; parts: TextPart[] } {
  let at = 0
  const laid = parts.map(({ text, label, heading, aspect, drawnOnly, time }, i): TextPart => {
    const start = at
    at += text.length + BETWEEN_PARTS.length
    return {
      number: i + 1,
      label,
      heading,
      start,
      end: start + text.length,
      words: text === '' ? 0 : text.split(' ').length,
      aspect,
      drawnOnly,
      time,
    }
  })
  return { text: parts.map(p => p.text).join(BETWEEN_PARTS), parts: laid }
}

/** The part a place is in: the last that begins at or before it. @param parts in their order, at least one */
export function partAt(parts: readonly TextPart[], at: number): TextPart {
  let [low, high] = [0, parts.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (parts[middle]!.start <= at) low = middle
    else high = middle - 1
  }
  return parts[low]!
}

/** A rectangle on a page, in shares of its width and height from the top left. */
export interface PageArea {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export const NOTE_KINDS = ['note', 'question', 'link'] as const
export type MarginKind = (typeof NOTE_KINDS)[number]

/** How a text is set to be read. */
export interface ReadingSettings {
  readonly textId: string | null
  readonly from: number // parts that are set; what stands around them can be read, too
  readonly to: number | null // null: to the end
  readonly writeFirst: 'page' | 'none' // others' notes on a page once one has one there
}
export const USUAL_READING: ReadingSettings = { textId: null, from: 1, to: null, writeFirst: 'none' }
export const readingOf = (settings: { readonly reading?: ReadingSettings }): ReadingSettings => ({
  ...USUAL_READING,
  ...settings.reading,
})
/** Whether a part is among those that are set. */
export const isSet = ({ from, to }: Pick<ReadingSettings, 'from' | 'to'>, number: number): boolean =>
  number >= from && (to === null || number <= to)
