/** A note as its passage has it. Places in characters of the whole text. */
export interface AnchoredNote {
  readonly id: string
  readonly start: number
  readonly end: number
  readonly own: boolean
}

/** Notes on the very same words, one letter for all of them. */
export interface Passage {
  readonly start: number
  readonly end: number
  readonly ids: readonly string[]
  readonly own: boolean
  readonly letter: string
}

/** a … z, aa, ab …: how passages of a page are named. @param n from 0 */
export function passageLetterOf(n: number): string {
  const last = String.fromCharCode(97 + (n % 26))
  return n < 26 ? last : passageLetterOf(Math.floor(n / 26) - 1) + last
}

/** Notes gathered by passage, in the order of the text; of two that begin together the longer first. */
export function gatherPassages(notes: readonly AnchoredNote[]): Passage[] {
  const by = new Map<string, AnchoredNote[]>()
  for (const note of notes) {
    const key = `${note.start}-${note.end}`
    by.set(key, [...(by.get(key) ?? []), note])
  }
  return [...by.values()]
    .sort(([a], [b]) => a!.start - b!.start || b!.end - a!.end)
    .map((list, n) => ({
      start: list[0]!.start,
      end: list[0]!.end,
      ids: list.map(x => x.id),
      own: list.some(x => x.own),
      letter: passageLetterOf(n),
    }))
}

/** A stretch of text over which the same notes lie. */
export interface Stretch {
  readonly start: number
  readonly end: number
  readonly notes: number
  readonly own: boolean
}

/** Passages that may overlap, as stretches side by side with how many notes lie over each: how thick its line is. */
export function layStretches(
  passages: ReadonlyArray<Pick<Passage, 'start' | 'end' | 'ids' | 'own'>>,
): Stretch[] {
  const edges = [...new Set(passages.flatMap(p => [p.start, p.end]))].sort((a, b) => a - b)
  const opens = [...passages].sort((a, b) => a.start - b.start)
  const stretches: Stretch[] = []
  let open: typeof opens = []
  let next = 0
  for (const [i, start] of edges.slice(0, -1).entries()) {
    open = open.filter(p => p.end > start)
    while (next < opens.length && opens[next]!.start <= start) open.push(opens[next++]!)
    const notes = open.reduce((sum, p) => sum + p.ids.length, 0)
    if (notes > 0) stretches.push({ start, end: edges[i + 1]!, notes, own: open.some(p => p.own) })
  }
  return stretches
}

/** Thickness of a line under words, in steps 1 to 4: one note, two, up to four, more. */
export const weightOf = (notes: number): 1 | 2 | 3 | 4 => {
  if (notes <= 1) return 1
  if (notes === 2) return 2
  if (notes <= 4) return 3
  return 4
}

/** What is known of a note when one asks where the talk is. */
export interface Talked extends AnchoredNote {
  readonly kind: 'note' | 'question' | 'link'
  readonly replies: number
  readonly open: boolean
  readonly people: readonly string[]
}
export interface HotPassage {
  readonly start: number
  readonly end: number
  readonly ids: readonly string[]
  readonly notes: number
  readonly replies: number
  readonly open: number
  readonly people: number
  readonly heat: number
}

/** Two passages belong together if the shorter lies for so much of it in what is gathered. */
const TOGETHER = 0.5
const OPEN_QUESTION = 2 // an open question stands for as much talk as two notes

/**
 * Passages by how much talk they drew, hottest first: notes that lie over each other for half of the shorter one are
 * taken together. Heat = notes + replies + 2 × open questions, times the share of different people among those who
 * wrote (so that two who go back and forth do not outdo six who each say one thing): heat × (1 + people) / 2.
 */
export function heatOf(notes: readonly Talked[]): HotPassage[] {
  const gathered: Array<{ start: number; end: number; notes: Talked[] }> = []
  for (const note of [...notes].sort(
    (a, b) => a.start - b.start || b.end - a.end || (a.id < b.id ? -1 : 1),
  )) {
    const last = gathered.at(-1)
    const shared = last ? Math.min(last.end, note.end) - Math.max(last.start, note.start) : 0
    if (last && shared >= TOGETHER * Math.min(last.end - last.start, note.end - note.start)) {
      last.end = Math.max(last.end, note.end)
      last.notes.push(note)
    } else gathered.push({ start: note.start, end: note.end, notes: [note] })
  }
  return gathered
    .map(({ start, end, notes: list }) => {
      const replies = list.reduce((sum, n) => sum + n.replies, 0)
      const open = list.filter(n => n.open).length
      const people = new Set(list.flatMap(n => n.people)).size
      return {
        start,
        end,
        ids: list.map(n => n.id),
        notes: list.length,
        replies,
        open,
        people,
        heat: ((list.length + replies + OPEN_QUESTION * open) * (1 + people)) / 2,
      }
    })
    .sort((a, b) => b.heat - a.heat || a.start - b.start)
}
