export type LateRule =
  | { readonly kind: 'none' }
  | {
      readonly kind: 'perDay'
      readonly graceMinutes: number
      readonly percentPerDay: number
      readonly floorPercent: number
    }
  | { readonly kind: 'cap'; readonly graceMinutes: number; readonly capPercent: number }

export interface Lateness {
  readonly minutes: number // whole minutes after the person's own due time, 0 when on time
  readonly startedDays: number // days begun after due time plus grace; 0 within the grace
}

const MINUTE = 60_000
const DAY = 1440 * MINUTE

/**
 * How late work was, measured for the contribution that met the expectation (or was last needed for it).
 * @param at when it was shown; null while nothing is there: not late, unknown
 */
export function latenessOf(at: Date | null, dueAt: Date, rule: LateRule): Lateness | null {
  if (at === null) return null
  const after = at.getTime() - dueAt.getTime()
  if (after <= 0) return { minutes: 0, startedDays: 0 }
  const grace = rule.kind === 'none' ? 0 : rule.graceMinutes * MINUTE
  return {
    minutes: Math.ceil(after / MINUTE),
    startedDays: after <= grace ? 0 : Math.ceil((after - grace) / DAY),
  }
}

/**
 * Points left after the rule, hundredths, unrounded. A day begun takes `percentPerDay` % of the maximum away, but the
 * rule alone never brings anyone below `floorPercent` % of the maximum, and never lifts anyone to it.
 * A cap limits late work to `capPercent` % of the maximum.
 *
 * @param points earned, 0..max hundredths
 * @throws {RangeError} if points lie outside 0..max
 * @example 2000 of 2500, two days, 10 % a day, floor 50 % => 1500
 */
export function pointsAfterLateness(
  points: number,
  max: number,
  lateness: Lateness | null,
  rule: LateRule,
): number {
  if (!(points >= 0 && points <= max))
    throw new RangeError(`pointsAfterLateness: points must be in 0..${max}`)
  if (rule.kind === 'none' || lateness === null || lateness.startedDays === 0) return points
  if (rule.kind === 'cap') return Math.min(points, (max * rule.capPercent) / 100)
  const left = points - (max * rule.percentPerDay * lateness.startedDays) / 100
  return Math.max(left, Math.min(points, (max * rule.floorPercent) / 100), 0)
}
