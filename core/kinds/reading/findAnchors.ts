import type { TextAnchor } from './anchor'
import { alignWithin, likeness } from './editDistance'
import { GRAM, GramIndex } from './gramIndex'

/** Where a passage stands in a text, and how it was known again: at its place, elsewhere word for word, or nearly. */
export interface Found {
  readonly start: number
  readonly end: number
  readonly how: 'here' | 'elsewhere' | 'nearly'
  readonly likeness: number
}

/** What stands around a passage must be as much as this the same on its better side … */
const CONTEXT_ALIKE = 0.62
/** … or this on both together; of two candidates the better must be better by as much as this. */
const BOTH_ALIKE = 0.5
const CLEARLY = 0.08
/** Of a passage that was changed, so much must be the same, and of it with what stands around it. */
const PASSAGE_ALIKE = 0.6
const WHOLE_ALIKE = 0.66
/** … and something of what stood on either side must stand there still: else it is not known where it ends. */
const EITHER_SIDE = 0.42
/** So few letters stand in many places: for them both sides must tell. */
const FEW = 16
const MOST_CANDIDATES = 60 // occurrences of the same words that are looked at, the nearest first
const COMMON = 40 // letters that stand in more places tell nothing
const PLACES = 4 // places where a changed passage is tried
const WORTH = 0.3 // … as long as so much of what points to the best of them points there

interface Candidate {
  readonly start: number
  readonly context: number
}

/**
 * Finds passages in a text that may have changed since they were chosen. Precedence:
 * 1. the same words at the same place, with what stood around them;
 * 2. the same words elsewhere, where what stands around them is what stood around them: of several the one that is
 *    clearly best; if none is, the passage is lost rather than guessed;
 * 3. nearly the same words, in nearly the same surroundings (approximate matching within a bound);
 * 4. lost: null. It is for the caller to keep and to list it.
 *
 * @param text readable text
 */
export const findAnchors = (text: string, anchors: readonly TextAnchor[]): Array<Found | null> => {
  const finder = new AnchorFinder(text)
  return anchors.map(anchor => finder.find(anchor))
}

/** Finds passages of one text one by one, so that whoever has many to find can let others go before. See `findAnchors`. */
export class AnchorFinder {
  private made: GramIndex | null = null
  constructor(private readonly text: string) {}
  private get index(): GramIndex {
    return (this.made ??= new GramIndex(this.text))
  }

  find(anchor: TextAnchor): Found | null {
    const { text } = this
    if (anchor.exact === '') return null
    const here = text.startsWith(anchor.exact, anchor.start) ? contextAt(text, anchor, anchor.start) : -1
    if (here === 1)
      return { start: anchor.start, end: anchor.start + anchor.exact.length, how: 'here', likeness: 1 }
    const candidates = occurrences(this.index, anchor)
      .map((start): Candidate => ({ start, context: contextAt(text, anchor, start) }))
      .filter(c => c.context > 0)
      .sort((a, b) => b.context - a.context)
    const [best, next] = candidates
    if (best && (!next || best.context - next.context >= CLEARLY || best.context === 1)) {
      const tied = next && best.context === next.context
      // the very same surroundings twice: the place it had decides, if it is one of them
      if (!tied)
        return {
          start: best.start,
          end: best.start + anchor.exact.length,
          how: best.start === anchor.start ? 'here' : 'elsewhere',
          likeness: 1,
        }
      const same = candidates.filter(c => c.context === best.context)
      const at = same.find(c => c.start === anchor.start)
      if (at) return { start: at.start, end: at.start + anchor.exact.length, how: 'here', likeness: 1 }
      return null
    }
    if (best) return null
    return nearly(this.index, anchor)
  }
}

/** Where the same words stand, the nearest to their old place first. */
const occurrences = (index: GramIndex, { exact, start }: TextAnchor): number[] =>
  index
    .occurrences(exact)
    .sort((a, b) => Math.abs(a - start) - Math.abs(b - start))
    .slice(0, MOST_CANDIDATES)

/** How much of what stood around a passage stands around a place: 1 for all, 0 where it is too little to tell. */
function contextAt(text: string, { exact, prefix, suffix }: TextAnchor, start: number): number {
  const end = start + exact.length
  const [before, after] = [
    text.slice(Math.max(0, start - prefix.length), start),
    text.slice(end, end + suffix.length),
  ]
  if (before === prefix && after === suffix) return 1
  // at the edge of a text one side says nothing
  const left = prefix === '' ? null : likeness(prefix, before)
  const right = suffix === '' ? null : likeness(suffix, after)
  if (left === null || right === null) {
    const one = left ?? right ?? 0
    return one >= CONTEXT_ALIKE ? one : 0
  }
  const both = (left + right) / 2
  if (exact.length < FEW && Math.min(left, right) < EITHER_SIDE) return 0
  return Math.max(left, right) >= CONTEXT_ALIKE || both >= BOTH_ALIKE ? both : 0
}

/** The passage with what stood around it, as one pattern, where its letters point to. */
function nearly(index: GramIndex, anchor: TextAnchor): Found | null {
  const { text } = index
  const pattern = anchor.prefix + anchor.exact + anchor.suffix
  const part = [anchor.prefix.length, anchor.prefix.length + anchor.exact.length] as const
  const slack = Math.ceil(pattern.length * (1 - WHOLE_ALIKE)) + GRAM
  const votes = new Map<number, number>()
  for (let i = 0; i + GRAM <= pattern.length; i++) {
    if (index.commonness(pattern, i) > COMMON) continue
    for (const offset of index.offsets(pattern, i)) {
      const bucket = Math.floor((offset - i) / slack)
      votes.set(bucket, (votes.get(bucket) ?? 0) + 1)
    }
  }
  const tried = [...votes]
    .sort((a, b) => b[1] - a[1])
    .slice(0, PLACES)
    .filter(([, n], _, [top]) => n >= WORTH * top![1])
  let best: (Found & { readonly whole: number }) | null = null
  let second = 0
  for (const [bucket] of tried) {
    const from = Math.max(0, bucket * slack - slack)
    const window = text.slice(from, Math.min(text.length, from + pattern.length + 3 * slack))
    const a = alignWithin(window, pattern, part)
    const whole = 1 - a.distance / pattern.length
    const own = 1 - a.partDistance / anchor.exact.length
    if (whole < WHOLE_ALIKE || own < PASSAGE_ALIKE || a.partEnd <= a.partStart) continue
    const [before, after] = [
      window.slice(Math.max(0, a.partStart - anchor.prefix.length), a.partStart),
      window.slice(a.partEnd, a.partEnd + anchor.suffix.length),
    ]
    if (
      (anchor.prefix !== '' && likeness(anchor.prefix, before) < EITHER_SIDE) ||
      (anchor.suffix !== '' && likeness(anchor.suffix, after) < EITHER_SIDE)
    )
      continue
    const found = {
      start: from + a.partStart,
      end: from + a.partEnd,
      how: 'nearly' as const,
      likeness: own,
      whole,
    }
    if (best && Math.abs(best.start - found.start) <= 2) continue
    if (!best || whole > best.whole) {
      second = best?.whole ?? 0
      best = found
    } else second = Math.max(second, whole)
  }
  if (!best || best.whole - second < CLEARLY) return null
  const { whole: _, ...found } = best
  return found
}
