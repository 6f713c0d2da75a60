import { krippendorffAlpha } from './agreement'
import { fitSeverity, type AnchorScore, type SeverityFit } from './severity'

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
  readonly corrected: number | null // severities taken out, clamped to the scale
}
export interface AuthorConsensus {
  readonly criteria: ReadonlyMap<string, CriterionConsensus>
  readonly mean: number | null // hundredths of the rubric's points; null while a criterion has no score
  readonly corrected: number | null
}
export interface Distance {
  readonly reviewId: string
  readonly total: number
  readonly others: number
  readonly by: number
} // by: total − others

export interface Consensus {
  readonly authors: ReadonlyMap<string, AuthorConsensus>
  readonly severity: ReadonlyMap<string, number> // by reviewer, over all criteria, hundredths
  readonly alpha: number | null // of whole scores
  readonly alphaOf: ReadonlyMap<string, number | null> // by criterion
  readonly works: number // with two scores or more: what alpha is of
  readonly residualSd: number | null // of a whole score, hundredths
  readonly apart: readonly Distance[] // reviews too far from the consensus of the others
  readonly distances: ReadonlyMap<string, Distance> // by review
}

/**
 * What reviewers agree on, criterion by criterion: mean, median, trimmed mean, and the mean with every reviewer's severity
 * taken out. A review stands apart when its whole score lies further from the corrected scores of the others than one
 * level, or twice the residual spread, whichever is more. Reviews set aside are not passed in.
 *
 * @param anchors instructor marks by author and criterion, hundredths
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
  const severity = new Map(
    [...new Set(reviews.map(r => r.reviewerId))].map(id => [
      id,
      criteria.reduce((sum, c) => sum + c.weight * (fits.get(c.id)!.severity.get(id) ?? 0), 0),
    ]),
  )
  const whole = (review: PeerReview): number | null =>
    criteria.every(c => review.points.has(c.id))
      ? criteria.reduce((sum, c) => sum + c.weight * review.points.get(c.id)!, 0)
      : null
  const wholes = [...byAuthor.values()].map(list => list.flatMap(r => whole(r) ?? []))
  const residualSd = spread(fits, criteria)
  const distances = new Map(
    [...byAuthor.values()]
      .flatMap(list => list.flatMap(review => distance(review, list, whole, severity)))
      .map(d => [d.reviewId, d]),
  )
  const limit = Math.max(levelOf(criteria), 2 * (residualSd ?? 0))
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
    residualSd,
    apart: [...distances.values()].filter(d => Math.abs(d.by) > limit),
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
        return [c.id, { mean: null, median: null, trimmed: null, corrected: null }] as const
      const quality = fits.get(c.id)!.quality.get(authorId)!
      return [
        c.id,
        {
          mean: meanOf(values),
          median: median(values),
          trimmed: meanOf(values.length >= 5 ? values.slice(1, -1) : values),
          corrected: Math.min(c.max, Math.max(0, quality)),
        },
      ] as const
    }),
  )
  const total = (of: (c: CriterionConsensus) => number | null): number | null =>
    criteria.reduce<number | null>((sum, c) => {
      const v = of(found.get(c.id)!)
      return sum === null || v === null ? null : sum + c.weight * v
    }, 0)
  return { criteria: found, mean: total(c => c.mean), corrected: total(c => c.corrected) }
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
  return [{ reviewId: review.id, total, others, by: total - others }]
}

/** Spread of a whole score, its criteria's errors taken as independent. */
function spread(
  fits: ReadonlyMap<string, SeverityFit>,
  criteria: readonly ConsensusCriterion[],
): number | null {
  const parts = criteria.map(c => ({ sd: fits.get(c.id)!.residualSd, weight: c.weight }))
  return parts.some(p => p.sd === null)
    ? null
    : Math.sqrt(parts.reduce((sum, p) => sum + (p.weight * p.sd!) ** 2, 0))
}

/** One level of one criterion, on average. */
const levelOf = (criteria: readonly ConsensusCriterion[]): number =>
  criteria.length === 0 ? 0 : meanOf(criteria.map(c => c.weight * c.level))
const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
function median(sorted: readonly number[]): number {
  const middle = sorted.length / 2
  return Number.isInteger(middle) ? (sorted[middle - 1]! + sorted[middle]!) / 2 : sorted[Math.floor(middle)]!
}
