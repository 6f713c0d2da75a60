import { combineMarks, type CombineRule, type ContributionMark } from './combineMarks'
import { pointsAfterLateness, type Lateness, type LateRule } from './lateness'
import { scoreRubric, type CriterionMark } from './scoreRubric'
import { roundHalfUp, type MarkScale } from './markScale'

export interface MarkParts {
  /** Criteria judged so far, those a member is excused from left out; null: not marked by a rubric. */
  readonly criteria: ReadonlyArray<CriterionMark & { readonly scope?: 'own' | 'group' }> | null
  // of a group's mark: what the member's share multiplies the group's criteria by, or all where none is the
  // group's
  readonly factor?: number | null
  // 0..1 of what one's own reviewing is worth, which is so many percent of the points
  readonly reviewing?: { readonly share: number; readonly percent: number } | null
  readonly combine: { readonly rule: CombineRule; readonly marks: readonly ContributionMark[] } | null
  readonly late: { readonly lateness: Lateness | null; readonly rule: LateRule; readonly waived: boolean }
  readonly override: number | null // hundredths, set by a marker
}

export interface CalculatedMark {
  readonly points: number | null // hundredths; null while there is nothing to calculate from; so far, while something is left
  readonly before: number | null // the same without late rule and override
  readonly left: number // what is still to be judged before the mark is whole; 0 with an override
}

/**
 * A mark from its stored parts: rubric (with a member's share of a group's points, and one's own reviewing)
 * or marks of single contributions, then the late rule, then what a marker has set
 * instead. Rounded once, half up, to the step of the scale. An activity worth nothing makes 0 of 0.
 * @throws {RangeError} as its parts do, or if the override lies outside 0..max
 */
export function calculateMark(parts: MarkParts, scale: MarkScale): CalculatedMark {
  const { override, late } = parts
  if (override !== null && !(override >= 0 && override <= scale.max))
    throw new RangeError(`reckonMark: the override must be in 0..${scale.max}`)
  const { earned, left } = earnedOf(parts, scale.max)
  const before = earned === null ? null : roundHalfUp(earned, scale)
  if (override !== null) return { points: override, before, left: 0 }
  if (earned === null) return { points: null, before: null, left }
  return {
    points: roundHalfUp(
      pointsAfterLateness(earned, scale.max, late.lateness, late.waived ? { kind: 'none' } : late.rule),
      scale,
    ),
    before,
    left,
  }
}

function earnedOf(
  { criteria, combine, factor, reviewing }: MarkParts,
  max: number,
): { earned: number | null; left: number } {
  if (criteria !== null) {
    if (criteria.length === 0) return { earned: null, left: 0 }
    const score = scoreRubric(factor == null ? criteria : shared(criteria, factor))
    const whole = (share: number) =>
      reviewing
        ? max * (share * (1 - reviewing.percent / 100) + (reviewing.share * reviewing.percent) / 100)
        : share * max
    return score.kind === 'final'
      ? { earned: whole(score.share), left: 0 }
      : { earned: whole(score.shareSoFar), left: score.notJudged.length }
  }
  if (combine === null) return { earned: null, left: 1 }
  const { points } = combineMarks(combine.marks, combine.rule, max)
  return { earned: points, left: points === null ? 1 : 0 }
}

/** A member's share in the group's points: these times the factor, never above what a criterion is worth. */
function shared(criteria: NonNullable<MarkParts['criteria']>, factor: number) {
  const groups = criteria.some(c => c.scope === 'group')
  return criteria.map(c =>
    c.points !== null && (!groups || c.scope === 'group')
      ? { ...c, points: Math.min(c.max, c.points * factor) }
      : c,
  )
}
