/** Where an activity's name and what is said of it stand on the term plan, in pixels of its chart. */
export interface LabelPlaces {
  readonly name: 'inside' | 'before' | 'behind' | 'over'
  /** What the name may take at most, where its side is too small for all of it; null: all. */
  readonly nameWidth: number | null
  /** Left edge of a name within its bar. */
  readonly nameLeft: number
  readonly note: 'before' | 'behind' | 'none'
  /** Which of the notes offered, the fullest first, has room. */
  readonly noteIndex: number
}
export interface BarOnPlan {
  readonly left: number
  readonly right: number
  /** Where the first phase, drawn in one colour, ends. */
  readonly solidRight: number
  /** Width of the chart. */
  readonly width: number
  /** The line of today, which no name is written across. */
  readonly today: number
}
const GAP = 9
const PAD = 7
const LEAST = 60 // of a name that is cut

/**
 * A name is written inside its bar where the first phase holds it, else before the bar, else behind it with its note,
 * else, cut, where there is most room: never past the chart's edge, never under the line of today.
 */
export function placeLabels(bar: BarOnPlan, name: number, notes: readonly number[]): LabelPlaces {
  const { left, right, width } = bar
  const inside = insideLeft(bar, name)
  const behind = width - right - GAP
  const before = left - GAP
  if (inside !== null) {
    const noteBehind = fitting(notes, behind)
    if (noteBehind >= 0) return place('inside', null, inside, 'behind', noteBehind)
    const noteBefore = fitting(notes, before)
    return place('inside', null, inside, noteBefore >= 0 ? 'before' : 'none', Math.max(0, noteBefore))
  }
  if (name <= before) {
    const noteBehind = fitting(notes, behind)
    if (noteBehind >= 0) return place('before', null, 0, 'behind', noteBehind)
    const noteBefore = fitting(notes, before - name - GAP)
    return place('before', null, 0, noteBefore >= 0 ? 'before' : 'none', Math.max(0, noteBefore))
  }
  if (name <= behind) {
    const note = fitting(notes, behind - name - GAP)
    return place('behind', null, 0, note >= 0 ? 'behind' : 'none', Math.max(0, note))
  }
  const most = Math.max(before, behind)
  if (most < LEAST) return place('over', Math.min(name, right - left - 2 * PAD), left + PAD, 'none', 0)
  return place(before > behind ? 'before' : 'behind', most, 0, 'none', 0)
}

function insideLeft({ left, solidRight, today }: BarOnPlan, name: number): number | null {
  const at = left + PAD
  if (at + name > solidRight - PAD) return null
  const crossed = today > at - PAD && today < at + name + PAD
  if (!crossed) return at
  const past = today + PAD
  return past + name <= solidRight - PAD ? past : null
}
const fitting = (notes: readonly number[], room: number): number => notes.findIndex(n => n <= room)
const place = (
  name: LabelPlaces['name'],
  nameWidth: number | null,
  nameLeft: number,
  note: LabelPlaces['note'],
  noteIndex: number,
): LabelPlaces => ({ name, nameWidth, nameLeft, note, noteIndex })

const WIDE =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Extended_Pictographic}]/u
const NARROW = /[iIjltfr.,:;'’!|() ]/
/** About how wide a line of the interface's letters is, in pixels: rather too wide than too narrow. */
export function lineWidth(text: string, size: number): number {
  let ems = 0
  for (const letter of text) {
    if (WIDE.test(letter)) ems += 1.05
    else if (NARROW.test(letter)) ems += 0.34
    else if (/\p{Lu}/u.test(letter)) ems += 0.74
    else ems += 0.6
  }
  return Math.ceil(ems * size)
}
