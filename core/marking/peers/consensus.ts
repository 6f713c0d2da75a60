import { krippendorffAlpha } from './agreement'
import { fitSeverity, type AnchorScore, type SeverityFit } from './severity'
import { scoreTable } from './additiveModel'
import { ENOUGH_FREE, variances, type Variances } from './severityVariance'

export interface PeerReview {
  readonly id: string
  readonly reviewerId: string
  readonly authorId: string
  readonly points: ReadonlyMap<string, number> // by criterion, hundredths; a criterion left open has none
}
export interface ConsensusCriterion {
  readonly id: string
  readonly max: number
  readonly weight: number
  readonly level: number
} // level: distance of neighbouring levels, hundredths

export interface CriterionConsensus {
  readonly mean: number | null
  readonly median: number | null
  readonly trimmed: number | null // mean without the highest and lowest of five or more, else the mean
  readonly corrected: number | null // of readers alone, severities taken out, clamped to the scale
  readonly withYours: number | null // corrected and the instructor's own points together; null without own points
}
export interface AuthorConsensus {
  readonly criteria: ReadonlyMap<string, CriterionConsensus>
  readonly mean: number | null // hundredths of the rubric's points; null while a criterion has no score
  readonly corrected: number | null
  readonly withYours: number | null // readers alone where the instructor gave no points of their own; null where they gave none at all
}
export interface Distance {
  readonly reviewId: string
  readonly total: number
  readonly others: number
  readonly by: number // total − others
  readonly readers: number // how many others
}

export interface Consensus {
  readonly authors: ReadonlyMap<string, AuthorConsensus>
  readonly severity: ReadonlyMap<string, number> // by reviewer, over all criteria, hundredths
  readonly alpha: number | null // of whole scores
  readonly alphaOf: ReadonlyMap<string, number | null> // by criterion
  readonly works: number // with two scores or more: what alpha is of
  readonly residualSd: number | null // of a whole score, hundredths
  // how far all readers run above (+) or below (−) the instructor, hundredths; null without works both
  // scored
  readonly shared: number | null
  readonly anchored: number // works both readers and the instructor scored
  readonly apart: readonly Distance[] // reviews too far from the consensus of the others
  readonly distances: ReadonlyMap<string, Distance> // by review
}

/**
 * What reviewers agree on, criterion by criterion: mean, median, trimmed mean, and the mean with every reviewer's severity
 * taken out. A review stands apart when its whole score lies further from the corrected scores of the others than one
 * level, and further than chance takes all but half a percent of reviews. Reviews set aside are not passed in.
 *
 * @param anchors instructor marks by author and criterion, hundredths; they act on severities only
 */
export function consensusOf(
  reviews: readonly PeerReview[],
  criteria: readonly ConsensusCriterion[],
  anchors: ReadonlyMap<string, ReadonlyMap<string, number>> = new Map(),
): Consensus {
  const fits = new Map(
    criteria.map(c => [
      c.id,
      fitSeverity(
        reviews.flatMap(r =>
          r.points.has(c.id)
            ? [{ reviewerId: r.reviewerId, authorId: r.authorId, points: r.points.get(c.id)! }]
            : [],
        ),
        [...anchors].flatMap(([authorId, marks]): AnchorScore[] =>
          marks.has(c.id) ? [{ authorId, points: marks.get(c.id)! }] : [],
        ),
      ),
    ]),
  )
  const byAuthor = new Map<string, PeerReview[]>()
  for (const review of reviews)
    byAuthor.set(review.authorId, [...(byAuthor.get(review.authorId) ?? []), review])
  const sumOf = (part: (fit: SeverityFit) => number) =>
    criteria.reduce((sum, c) => sum + c.weight * part(fits.get(c.id)!), 0)
  const severity = new Map(
    [...new Set(criteria.length === 0 ? [] : reviews.map(r => r.reviewerId))].map(id => [
      id,
      sumOf(f => f.severity.get(id) ?? 0),
    ]),
  )
  const whole = (review: PeerReview): number | null =>
    criteria.length > 0 && criteria.every(c => review.points.has(c.id))
      ? criteria.reduce((sum, c) => sum + c.weight * review.points.get(c.id)!, 0)
      : null
  const wholes = [...byAuthor.values()].map(list => list.flatMap(r => whole(r) ?? []))
  // of whole scores, for the criteria of one review may err together
  const scatter = variances(
    scoreTable(
      reviews.flatMap(({ reviewerId, authorId, ...r }) => {
        const points = whole({ reviewerId, authorId, ...r })
        return points === null ? [] : [{ reviewerId, authorId, points }]
      }),
    ),
  )
  const distances = new Map(
    [...byAuthor.values()]
      .flatMap(list => list.flatMap(review => distance(review, list, whole, severity)))
      .map(d => [d.reviewId, d]),
  )
  const limit = (d: Distance) => Math.max(levelOf(criteria), furthestByChance(scatter, d.readers))
  return {
    authors: new Map([...byAuthor].map(([id, list]) => [id, ofAuthor(id, list, criteria, fits)])),
    severity,
    alpha: krippendorffAlpha(wholes),
    alphaOf: new Map(
      criteria.map(c => [
        c.id,
        krippendorffAlpha([...byAuthor.values()].map(list => list.flatMap(r => r.points.get(c.id) ?? []))),
      ]),
    ),
    works: wholes.filter(w => w.length > 1).length,
    residualSd: scatter.error === null ? null : Math.sqrt(scatter.error),
    shared: [...fits.values()].some(f => f.shared !== null) ? sumOf(f => f.shared ?? 0) : null,
    anchored: new Set([...fits.values()].flatMap(f => [...f.withAnchor.keys()])).size,
    apart: [...distances.values()].filter(d => Math.abs(d.by) > limit(d)),
    distances,
  }
}

function ofAuthor(
  authorId: string,
  list: readonly PeerReview[],
  criteria: readonly ConsensusCriterion[],
  fits: ReadonlyMap<string, SeverityFit>,
): AuthorConsensus {
  const found = new Map<string, CriterionConsensus>(
    criteria.map(c => {
      const values = list.flatMap(r => r.points.get(c.id) ?? []).sort((a, b) => a - b)
      if (values.length === 0)
        return [c.id, { mean: null, median: null, trimmed: null, corrected: null, withYours: null }] as const
      const { quality, withAnchor } = fits.get(c.id)!
      const onScale = (v: number) => Math.min(c.max, Math.max(0, v))
      const both = withAnchor.get(authorId)
      return [
        c.id,
        {
          mean: meanOf(values),
          median: median(values),
          trimmed: meanOf(values.length >= 5 ? values.slice(1, -1) : values),
          corrected: onScale(quality.get(authorId)!),
          withYours: both === undefined ? null : onScale(both),
        },
      ] as const
    }),
  )
  const total = (of: (c: CriterionConsensus) => number | null): number | null =>
    criteria.reduce<number | null>(
      (sum, c) => {
        const v = of(found.get(c.id)!)
        return sum === null || v === null ? null : sum + c.weight * v
      },
      criteria.length === 0 ? null : 0,
    )
  return {
    criteria: found,
    mean: total(c => c.mean),
    corrected: total(c => c.corrected),
    withYours: [...found.values()].some(c => c.withYours !== null)
      ? total(c => c.withYours ?? c.corrected)
      : null,
  }
}

/** How far a whole score lies from what the others make of the work, their severities taken out. */
function distance(
  review: PeerReview,
  list: readonly PeerReview[],
  whole: (r: PeerReview) => number | null,
  severity: ReadonlyMap<string, number>,
): Distance[] {
  const total = whole(review)
  const rest = list.flatMap(r => {
    const t = r.id === review.id ? null : whole(r)
    return t === null ? [] : [t - severity.get(r.reviewerId)!]
  })
  if (total === null || rest.length === 0) return []
  const others = meanOf(rest)
  return [{ reviewId: review.id, total, others, by: total - others, readers: rest.length }]
}

const LEAST_FREE = 4 // degrees of freedom below which a spread is not estimated at all
const USUAL = 2.807 // standard deviations of a normal distribution that all but half a percent stay within, to either side

/**
 * How far from the mean of so many others chance takes a whole score, in all but half a percent of reviews: by Student's t,
 * for the spread itself is estimated. Where too little is left over to estimate it from, how scores of the same work
 * differ stands in; where that is little, too, twice the residual spread.
 * Source: Abramowitz and Stegun (1964), *Handbook of Mathematical Functions*, 26.7.5.
 */
function furthestByChance(spread: Variances, others: number): number {
  const byT = (variance: number, free: number) => {
    const z = USUAL
    const t = z + (z ** 3 + z) / (4 * free) + (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * free ** 2)
    return t * Math.sqrt(variance * (1 + 1 / others))
  }
  if (spread.error !== null && spread.free >= ENOUGH_FREE) return byT(spread.error, spread.free)
  if (spread.within !== null && spread.freeWithin >= LEAST_FREE) return byT(spread.within, spread.freeWithin)
  return 2 * Math.sqrt(spread.error ?? 0)
}

/** One level of one criterion, on average. */
const levelOf = (criteria: readonly ConsensusCriterion[]): number =>
  criteria.length === 0 ? 0 : meanOf(criteria.map(c => c.weight * c.level))
const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
function median(sorted: readonly number[]): number {
  const middle = sorted.length / 2
  return Number.isInteger(middle) ? (sorted[middle - 1]! + sorted[middle]!) / 2 : sorted[Math.floor(middle)]!
}
