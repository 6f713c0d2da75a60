import type { ConsensusCriterion, Consensus, PeerReview } from './consensus'
import type { Reviewing } from './reviewingMark'

/** A peer review as figures: what consensus and reviewing are calculated from, on the server and on the desk alike. */
export interface ReviewTable {
  readonly rubric: {
    readonly criteria: ReadonlyArray<{
      readonly id: string
      readonly max: number
      readonly weight: number
      readonly levels: ReadonlyArray<{ readonly points: number }>
    }>
  } | null
  readonly works: ReadonlyArray<{
    readonly id: string
    readonly authorIds: readonly string[]
    readonly authorId: string
    readonly isSample: boolean
  }>
  readonly allocations: ReadonlyArray<{
    readonly id: string
    readonly reviewerId: string
    readonly subjectId: string
    readonly entryId: string | null // the work; null: a teammate is reviewed
    readonly source: string
    readonly state: string
    readonly late: boolean
    readonly setAside: string | null
    readonly notDone: boolean
    readonly helpful: number | null
    readonly points: Readonly<Record<string, number>>
  }>
  readonly samples: Readonly<Record<string, Readonly<Record<string, number>>>>
  readonly marks: ReadonlyArray<{
    readonly enrolmentId: string
    readonly own: Readonly<Record<string, number>>
  }>
}

/**
 * Reviews that count, by the work or the teammate they are of: handed in, not set aside, not of oneself. Practice on samples
 * counts with the instructor's scores as anchors; so does a work the instructor has given points of their own.
 */
export function peerReviewsOf({ rubric, works, allocations, samples, marks }: ReviewTable): {
  reviews: PeerReview[]
  criteria: ConsensusCriterion[]
  anchors: Map<string, Map<string, number>>
} {
  const criteria = (rubric?.criteria ?? []).map(c => ({
    id: c.id,
    max: c.max,
    weight: c.weight,
    level: levelGap(
      c.levels.map(l => l.points),
      c.max,
    ),
  }))
  const reviews = allocations.filter(doesCount).map(a => ({
    id: a.id,
    reviewerId: a.reviewerId,
    authorId: reviewedIn(a),
    points: new Map(Object.entries(a.points)),
  }))
  const anchors = new Map(
    Object.entries(samples).map(([id, points]) => [id, new Map(Object.entries(points))]),
  )
  for (const work of works) {
    const own = Object.entries(work.isSample ? {} : ownPointsOf(marks, work))
    if (own.length > 0) anchors.set(work.id, new Map(own))
  }
  return { reviews, criteria, anchors }
}

type Allocation = ReviewTable['allocations'][number]
/** What a review is of: the work, or the teammate. */
export const reviewedIn = (a: Pick<Allocation, 'entryId' | 'subjectId'>): string => a.entryId ?? a.subjectId
/** Whether a review enters the consensus: in, not set aside, not of oneself. */
export const doesCount = (
  a: Pick<Allocation, 'state' | 'setAside' | 'source' | 'reviewerId' | 'entryId' | 'subjectId'>,
): boolean =>
  a.state === 'in' &&
  a.setAside === null &&
  a.source !== 'self' &&
  (a.entryId !== null || a.reviewerId !== a.subjectId)

/** The points the instructor gave a work, by criterion: authors of one work share them, whoever of them they stand with. */
export function ownPointsOf(
  marks: ReviewTable['marks'],
  work: Pick<ReviewTable['works'][number], 'authorIds' | 'authorId'>,
): Readonly<Record<string, number>> {
  const given = marks.filter(m => work.authorIds.includes(m.enrolmentId) && Object.keys(m.own).length > 0)
  return (given.find(m => m.enrolmentId === work.authorId) ?? given[0])?.own ?? {}
}

/** The mean distance of neighbouring levels; a criterion of one level, or none, counts as one level whole. */
export function levelGap(points: readonly number[], max: number): number {
  const sorted = [...new Set(points)].sort((a, b) => a - b)
  return sorted.length < 2 ? max : (sorted.at(-1)! - sorted[0]!) / (sorted.length - 1)
}

/**
 * What one student's own reviewing comes to. Reviews set aside were done, unless the instructor says
 * otherwise, but say nothing of closeness.
 */
export function reviewingOf(table: ReviewTable, consensus: Consensus, enrolmentId: string): Reviewing {
  const own = table.allocations.filter(
    a => a.reviewerId === enrolmentId && a.source !== 'self' && a.source !== 'practice',
  )
  const done = own.filter(a => a.state === 'in' && !a.notDone)
  const { criteria } = peerReviewsOf(table)
  const level = criteria.reduce((sum, c) => sum + c.weight * c.level, 0) || 1
  return {
    owed: own.length,
    done: done.length,
    onTime: done.filter(a => !a.late).length,
    helpful: done.flatMap(a => a.helpful ?? []),
    distances: done.flatMap(a => {
      const d = consensus.distances.get(a.id)
      return d ? [Math.abs(d.by) / level] : []
    }),
  }
}

/** The highest level at or below so many points; the lowest where all lie above. */
export function levelAt<L extends { readonly points: number }>(levels: readonly L[], points: number): L {
  const sorted = [...levels].sort((a, b) => a.points - b.points)
  return sorted.findLast(l => l.points <= points) ?? sorted[0]!
}
