import { findAnchors } from '#core/kinds/reading/findAnchors'
import { layStretches, weightOf, type Passage } from '#core/kinds/reading/passages'
import type { PartView } from '#shared/kinds/reading/reading'
import type { PartText } from './partText'
import type { MarginNote } from './useMargin'

/** A span of a text, by its offsets. */
export interface Stretch {
  readonly start: number
  readonly end: number
}
/** A box over the words, in pixels from the corner of the page. */
export interface LaidLine {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
  readonly weight: number
  readonly own: boolean
}
export interface LaidLetter {
  readonly passage: Passage
  readonly left: number
  readonly top: number
  /** Where the passage begins, in pixels from the top of the page. */
  readonly from: number
}
interface Laid {
  readonly lines: readonly LaidLine[]
  readonly letters: readonly LaidLetter[]
  readonly chosen: readonly LaidLine[]
  readonly found: readonly LaidLine[]
  readonly glow: readonly LaidLine[]
}

const NOTHING: Laid = { lines: [], letters: [], chosen: [], found: [], glow: [] }
const LETTER_WIDTH = 24 // pixels that letters on one line keep from one another: each is a target for a finger
const SAME_LINE = 20 // pixels between tops that still are one line

/** Letters that would stand on one another make room. */
function spread(letters: readonly LaidLetter[]): LaidLetter[] {
  const placed: LaidLetter[] = []
  for (const l of [...letters].sort((a, b) => a.top - b.top || a.left - b.left)) {
    const last = placed.findLast(p => Math.abs(p.top - l.top) < SAME_LINE)
    const isTaken = last !== undefined && l.left < last.left + LETTER_WIDTH
    placed.push(isTaken ? { ...l, left: last.left + LETTER_WIDTH } : l)
  }
  return placed
}

/** Where lines and letters lie over the words that are drawn of one part; laid anew at each call of `lay`. */
export function useTextOverlay(
  page: () => {
    readonly part: PartView
    readonly notes: readonly MarginNote[]
    readonly passages: readonly Passage[]
    readonly chosen: readonly Stretch[]
    readonly found: readonly Stretch[]
    readonly lit: string | null
  },
  drawn: () => { readonly words: PartText; readonly box: DOMRect } | null,
) {
  const laid = shallowRef<Laid>(NOTHING)

  /** Where a passage stands in what is drawn: its offsets, unless this browser reads the page otherwise; then by its words. */
  function here(words: PartText, p: Stretch): Stretch | null {
    const { part, notes } = page()
    if (words.text.length === part.end - part.start) return p
    const anchor = notes.find(n => n.c.note.at?.start === p.start && n.c.note.at.end === p.end)?.c.note
      .passage
    if (!anchor) return null
    const shifted = { ...anchor, start: anchor.start - part.start, end: anchor.end - part.start }
    const [at] = findAnchors(words.text, [shifted])
    return at ? { start: at.start + part.start, end: at.end + part.start } : null
  }
  function lay() {
    const sheet = drawn()
    if (!sheet) return
    const { words, box } = sheet
    const { notes, passages, chosen, found, lit } = page()
    const boxes = (s: Stretch, extra: Partial<LaidLine> = {}): LaidLine[] =>
      words.lines(s.start, s.end).map(r => ({
        left: r.left - box.left,
        top: r.top - box.top,
        width: r.width,
        height: r.height,
        weight: 1,
        own: false,
        ...extra,
      }))
    const there = passages.flatMap(p => {
      const at = here(words, p)
      return at ? [{ ...p, ...at }] : []
    })
    const letters = there.flatMap((passage): LaidLetter[] => {
      const all = boxes(passage)
      const last = all.at(-1)
      return last ? [{ passage, left: last.left + last.width, top: last.top, from: all[0]!.top }] : []
    })
    const litAt = notes.find(n => n.c.id === lit)?.c.note.at
    laid.value = {
      lines: layStretches(there).flatMap(s => boxes(s, { weight: weightOf(s.notes), own: s.own })),
      letters: spread(letters),
      chosen: chosen.flatMap(s => boxes(s)),
      found: found.flatMap(s => boxes(s)),
      glow: litAt ? boxes(here(words, litAt) ?? litAt) : [],
    }
  }
  const clear = () => {
    laid.value = NOTHING
  }
  return { laid: shallowReadonly(laid), lay, clear }
}
