import { dropLowest } from './dropLowest'

/** One thing that is graded, the same for everyone. Points are hundredths. */
export interface GradeItem {
  readonly id: string
  readonly categoryId: string | null
  readonly max: number // 0: worth nothing, never counted
  readonly practice: boolean
}

/** What one student has in one item. */
export interface GradeEntry {
  readonly points: number | null // hundredths; null: not marked yet
  readonly excused: boolean
  readonly closed: boolean // its time is over for this student
  readonly any: boolean // something was handed in, or nothing was asked for
  readonly joinedLater?: boolean // its time was over for this student before they joined
}

export interface WeightedCategory {
  readonly id: string
  readonly weight: number
  readonly drop: number
}
export interface GradePolicy {
  readonly missingIsZero: boolean
} // what is missing at its close counts as zero

/** Why an item counts, or does not. */
export type Counted =
  | 'counted'
  | 'missing'
  | 'dropped'
  | 'droppedMissing'
  | 'excused'
  | 'practice'
  | 'notYet'
  | 'joinedLater'
  | 'worthNothing'
  | 'noCategory'
export interface GradePart {
  readonly itemId: string
  readonly points: number | null
  readonly max: number
  readonly counted: Counted
}
export interface CategoryGrade {
  readonly id: string
  readonly weight: number
  readonly points: number // Σ of what counts, hundredths
  readonly max: number // Σ of maxima; 0 while nothing counts
  readonly share: number | null // points / max, unrounded; null while nothing counts
  readonly parts: readonly GradePart[]
}
export interface Grade {
  readonly categories: readonly CategoryGrade[]
  readonly outside: readonly GradePart[] // items in no category
  readonly share: number | null // 0..1 unrounded; null while nothing counts anywhere
  readonly weightCounted: number // Σ weights of categories that have anything
}

/**
 * One student's standing in the gradebook.
 *
 * Category mean = Σ points / Σ maxima over what counts, after leaving out the `drop` items whose removal makes it largest;
 * one item always stays. Final = Σ weight·mean / Σ weight over the categories that have anything. Where these all weigh
 * nothing, they count by their points instead. Practice, excused items, items worth nothing and items in no category never
 * count; an unmarked item counts as zero once it is closed with nothing in it, if the seminar says so, and else not yet. What
 * closed before somebody joined counts for them only where points were given.
 *
 * @param entries by item id; an item without one counts as nothing yet
 * @throws {RangeError} if points lie outside 0..max, a weight is negative, or `drop` is not a whole number ≥ 0
 */
export function gradeOf(
  items: readonly GradeItem[],
  entries: ReadonlyMap<string, GradeEntry>,
  categories: readonly WeightedCategory[],
  policy: GradePolicy,
): Grade {
  const known = new Set(categories.map(c => c.id))
  const parts = new Map<string | null, GradePart[]>()
  for (const item of items) {
    const key = item.categoryId !== null && known.has(item.categoryId) ? item.categoryId : null
    parts.set(key, [...(parts.get(key) ?? []), partOf(item, entries.get(item.id), key === null, policy)])
  }
  const graded = categories.map(category => calculateCategory(category, parts.get(category.id) ?? []))
  const filled = graded.filter(c => c.share !== null)
  const weightCounted = filled.reduce((sum, c) => sum + c.weight, 0)
  const pointsInAll = filled.reduce((sum, c) => sum + c.points, 0)
  const maxOfAll = filled.reduce((sum, c) => sum + c.max, 0)
  const findShare = () => {
    if (filled.length === 0) return null
    if (weightCounted > 0) return filled.reduce((sum, c) => sum + c.weight * c.share!, 0) / weightCounted
    return pointsInAll / maxOfAll
  }
  return {
    categories: graded,
    outside: parts.get(null) ?? [],
    weightCounted,
    share: findShare(),
  }
}

function partOf(
  item: GradeItem,
  entry: GradeEntry | undefined,
  outside: boolean,
  policy: GradePolicy,
): GradePart {
  const points = entry?.points ?? null
  if (points !== null && !(points >= 0 && points <= Math.max(0, item.max)))
    throw new RangeError(`gradeOf: points of ${item.id} must be in 0..${item.max}`)
  const part = (counted: Counted, p = points): GradePart => ({
    itemId: item.id,
    points: p,
    max: item.max,
    counted,
  })
  if (item.practice) return part('practice')
  if (!(item.max > 0)) return part('worthNothing')
  if (outside) return part('noCategory')
  if (entry?.excused) return part('excused')
  if (points !== null) return part('counted')
  if (!entry?.closed || entry.any) return part('notYet')
  if (entry.joinedLater) return part('joinedLater')
  return policy.missingIsZero ? part('missing', 0) : part('notYet')
}

const DROPPED: Readonly<Partial<Record<Counted, Counted>>> = { counted: 'dropped', missing: 'droppedMissing' }

function calculateCategory(
  { id, weight, drop }: WeightedCategory,
  parts: readonly GradePart[],
): CategoryGrade {
  if (!(weight >= 0)) throw new RangeError(`gradeOf: the weight of ${id} must be 0 or more`)
  const counting = parts.filter(p => p.counted === 'counted' || p.counted === 'missing')
  const dropped = new Set(
    dropLowest(
      counting.map(p => ({ points: p.points!, max: p.max })),
      drop,
    ).map(i => counting[i]!.itemId),
  )
  const kept = counting.filter(p => !dropped.has(p.itemId))
  const points = kept.reduce((sum, p) => sum + p.points!, 0)
  const max = kept.reduce((sum, p) => sum + p.max, 0)
  return {
    id,
    weight,
    points,
    max,
    share: max > 0 ? points / max : null,
    parts: parts.map(p => (dropped.has(p.itemId) ? { ...p, counted: DROPPED[p.counted] ?? p.counted } : p)),
  }
}

/** A share as it is shown: per cent with one decimal, half up. The tiny term undoes binary fractions. 0.93 → 93 */
export const percentOf = (share: number): number => Math.floor(share * 1000 + 0.5 + 1e-9) / 10

/**
 * The letter of a scale for a share. It is read off the percentage as shown, so that figure and letter never contradict.
 * @param bands highest first, the last from 0
 */
export const gradeLetterOf = (
  share: number,
  bands: ReadonlyArray<{ readonly letter: string; readonly fromPercent: number }>,
): string | null => bands.find(band => percentOf(share) >= band.fromPercent)?.letter ?? null
