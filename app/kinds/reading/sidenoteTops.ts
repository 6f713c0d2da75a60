import { placeSidenotes } from '#core/kinds/reading/placeSidenotes'
import type { MarginNote } from './useMargin'
import type { LaidLetter } from './useTextOverlay'

const GAP = 9 // pixels between two notes
const FIRST = 6 // pixels above the first
const BELOW = 24 // pixels below the last

/**
 * How far from the top each note of a margin stands, level with its words as far as there is room, and how
 * high the margin is. In pixels.
 */
export function sidenoteTops(
  boxes: readonly HTMLElement[],
  notes: readonly MarginNote[],
  letters: readonly LaidLetter[],
  pageHeight: number,
): { readonly tops: ReadonlyMap<string, number>; readonly height: number } {
  const from = new Map(letters.flatMap(l => l.passage.ids.map(id => [id, l.from] as const)))
  const byArea = (id: string) => (notes.find(n => n.c.id === id)?.c.note.area?.y ?? 0) * pageHeight
  const wanted: Array<{ wanted: number; height: number }> = []
  for (const box of boxes) {
    const id = box.dataset.note!
    const level = from.get(id)
    // what has no words on this page keeps to the order
    const before = wanted.at(-1)?.wanted ?? 0
    wanted.push({ wanted: level ?? Math.max(byArea(id), before), height: box.offsetHeight })
  }
  const placed = placeSidenotes(wanted, GAP, FIRST)
  return {
    tops: new Map(boxes.map((b, i) => [b.dataset.note!, placed[i]!])),
    height: boxes.length > 0 ? placed.at(-1)! + wanted.at(-1)!.height + BELOW : 0,
  }
}
