import {
  gradeOf,
  type Grade,
  type WeightedCategory,
  type GradeEntry,
  type GradeItem,
  type GradePolicy,
} from './gradebook'

export type Needed =
  | { readonly kind: 'already' } // reached even if everything still open came to nothing
  | { readonly kind: 'outOfReach'; readonly most: number } // the share reached with full marks in everything open
  | {
      readonly kind: 'needed'
      readonly share: number
      readonly items: ReadonlyArray<{ readonly itemId: string; readonly points: number }>
    }
  | { readonly kind: 'nothingOpen'; readonly share: number | null }

/** Items of a student that are still open: they will count, and are not marked yet. */
export const openItems = (grade: Grade): string[] =>
  grade.categories.flatMap(c => c.parts.filter(p => p.counted === 'notYet').map(p => p.itemId))

/**
 * What is still needed in everything open, the same share of each, for the final share to reach `target`.
 *
 * With the kept items fixed a category is linear in that share; the best choice of what to leave out makes it the largest
 * of such lines, so the whole is convex and never falls, and Newton's steps from above meet the target exactly after
 * finitely many of them.
 *
 * @param target share, 0..1
 * @param step hundredths: points are said rounded up to it, so that reaching them is enough
 */
export function neededFor(
  target: number,
  items: readonly GradeItem[],
  entries: ReadonlyMap<string, GradeEntry>,
  categories: readonly WeightedCategory[],
  policy: GradePolicy,
  step: number,
): Needed {
  const now = gradeOf(items, entries, categories, policy)
  const open = openItems(now)
  if (open.length === 0) return { kind: 'nothingOpen', share: now.share }
  const at = (share: number) => gradeOf(items, withShare(items, entries, open, share), categories, policy)
  if (at(0).share! >= target - TINY) return { kind: 'already' }
  const best = at(1)
  if (best.share! < target - TINY) return { kind: 'outOfReach', most: best.share! }
  let share = 1
  for (let round = 0; round < 200; round++) {
    const grade = at(share)
    const over = grade.share! - target
    if (over <= TINY) break
    share -= over / slopeOf(grade, new Set(open))
  }
  const byId = new Map(items.map(i => [i.id, i]))
  return {
    kind: 'needed',
    share,
    items: open.map(itemId => ({
      itemId,
      points: Math.min(
        byId.get(itemId)!.max,
        Math.ceil((share * byId.get(itemId)!.max) / step - 1e-6) * step,
      ),
    })),
  }
}

const TINY = 1e-12

function withShare(
  items: readonly GradeItem[],
  entries: ReadonlyMap<string, GradeEntry>,
  open: readonly string[],
  share: number,
) {
  const next = new Map(entries)
  for (const item of items)
    if (open.includes(item.id))
      next.set(item.id, {
        excused: false,
        closed: false,
        any: true,
        ...entries.get(item.id),
        points: share * item.max,
      })
  return next
}

/** How fast the final share grows with the open items' share, with what is left out as it is. */
function slopeOf(grade: Grade, open: ReadonlySet<string>): number {
  const filled = grade.categories.filter(c => c.share !== null)
  const openMax = (c: Grade['categories'][number]) =>
    c.parts.filter(p => open.has(p.itemId) && p.counted === 'counted').reduce((sum, p) => sum + p.max, 0)
  return grade.weightCounted > 0
    ? filled.reduce((sum, c) => sum + (c.weight * openMax(c)) / c.max, 0) / grade.weightCounted
    : filled.reduce((sum, c) => sum + openMax(c), 0) / filled.reduce((sum, c) => sum + c.max, 0)
}

/** A student's standing with some points put in for trial; what is not tried stays. */
export function whatIf(
  tried: ReadonlyMap<string, number | null>,
  items: readonly GradeItem[],
  entries: ReadonlyMap<string, GradeEntry>,
  categories: readonly WeightedCategory[],
  policy: GradePolicy,
): Grade {
  const next = new Map(entries)
  for (const [id, points] of tried)
    next.set(id, { excused: false, closed: false, any: true, ...entries.get(id), points })
  return gradeOf(items, next, categories, policy)
}
