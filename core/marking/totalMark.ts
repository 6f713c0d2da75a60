import { pointsAfterLateness, type Lateness, type LateRule } from './lateness'
import { scoreRubric, type CriterionMark } from './scoreRubric'

export interface TotalMark {
  readonly points: number // hundredths, rounded half up to the step of the scale; so far, while criteria are left
  readonly before: number // hundredths, the same without the late rule: stays visible when the rule is waived
  readonly notJudged: readonly string[] // ids of criteria left, empty when the mark is whole
}

export interface MarkScale {
  readonly max: number // hundredths of a point: what the activity is worth
  readonly step: number // hundredths: 100 marks whole points, 50 half ones
}

/**
 * The mark of one student: the rubric's share of the activity's points, less what lateness takes, rounded once.
 * @throws {RangeError} as scoreRubric and pointsAfterLateness do, or if the scale is not > 0
 */
export function totalMark(
  marks: readonly CriterionMark[],
  scale: MarkScale,
  late: { readonly lateness: Lateness | null, readonly rule: LateRule, readonly waived: boolean },
): TotalMark {
  if (!(scale.max > 0 && scale.step > 0)) throw new RangeError('totalMark needs a scale above 0')
  const score = scoreRubric(marks)
  const earned = (score.kind === 'final' ? score.share : score.shareSoFar) * scale.max
  const rule: LateRule = late.waived ? { kind: 'none' } : late.rule
  return {
    points: roundHalfUp(pointsAfterLateness(earned, scale.max, late.lateness, rule), scale),
    before: roundHalfUp(earned, scale),
    notJudged: score.kind === 'final' ? [] : score.notJudged,
  }
}

/** Half up to a multiple of the step, never above the maximum. The tiny term undoes binary fractions: 0.29 × 100 must round like 29. */
export function roundHalfUp(points: number, { step, max }: MarkScale): number {
  return Math.min(max, Math.floor(points / step + 0.5 + 1e-9) * step)
}
