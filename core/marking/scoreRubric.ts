export interface CriterionMark {
  readonly criterionId: string
  readonly weight: number // relative, unitless, > 0
  readonly max: number // hundredths of a point, > 0
  readonly points: number | null // hundredths of a point, 0..max; null while not judged
}

export type RubricScore =
  | { readonly kind: 'final'; readonly share: number }
  | { readonly kind: 'provisional'; readonly shareSoFar: number; readonly notJudged: readonly string[] }

/**
 * Share of a rubric's points that was earned: Σ weight·points / Σ weight·max, unitless, 0..1, unrounded.
 * Source: weighted mean. Own rule: a criterion not judged is unknown and makes the score provisional, never 0.
 *
 * @param marks shape [n], n ≥ 1, one entry per criterion, any order
 * @returns `final`, or `provisional` with the ids not judged, in input order; `shareSoFar` is of the whole rubric
 * @throws {RangeError} if n = 0, a weight or max is not finite and > 0, or points lie outside 0..max
 * @example weights 3 and 1, max 400 and 400, points 200 and 400 => { kind: 'final', share: 0.625 }
 */
export function scoreRubric(marks: readonly CriterionMark[]): RubricScore {
  if (marks.length === 0) throw new RangeError('scoreRubric needs at least one criterion')
  const notJudged: string[] = []
  let earned = 0
  let attainable = 0
  for (const { criterionId, weight, max, points } of marks) {
    if (!isPositive(weight) || !isPositive(max))
      throw new RangeError(`scoreRubric: ${criterionId} needs weight and max > 0`)
    attainable += weight * max
    if (points === null) {
      notJudged.push(criterionId)
      continue
    }
    if (!(points >= 0 && points <= max))
      throw new RangeError(`scoreRubric: points of ${criterionId} must be in 0..${max}`)
    earned += weight * points
  }
  const share = earned / attainable
  return notJudged.length > 0
    ? { kind: 'provisional', shareSoFar: share, notJudged }
    : { kind: 'final', share }
}

const isPositive = (x: number) => Number.isFinite(x) && x > 0
