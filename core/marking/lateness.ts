import { shiftDays } from '../planning/moveSchedule'

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

/**
 * How late work was, measured for the contribution that met the expectation (or was last needed for it). Days are those of
 * the seminar's calendar: each begins at the local time at which the grace ends, so that a night with 25 hours costs nobody
 * a day.
 *
 * @param at when it was shown; null while nothing is there: not late, unknown
 */
export function latenessOf(at: Date | null, dueAt: Date, rule: LateRule, timeZone: string): Lateness | null {
  if (at === null) return null
  const after = at.getTime() - dueAt.getTime()
  if (after <= 0) return { minutes: 0, startedDays: 0 }
  const graceEnds = new Date(dueAt.getTime() + (rule.kind === 'none' ? 0 : rule.graceMinutes * MINUTE))
  return { minutes: Math.ceil(after / MINUTE), startedDays: startedDays(graceEnds, at, timeZone) }
}

/** Local calendar days that have begun between two moments. */
function startedDays(from: Date, at: Date, timeZone: string): number {
  if (at <= from) return 0
  // a day has 23 to 25 hours: the count by the calendar is this one or the next
  let days = Math.max(0, Math.floor((at.getTime() - from.getTime()) / (25 * 60 * MINUTE)))
  while (shiftDays(from, days, timeZone) < at) days++
  return days
}

/** Percent of the maximum that a rule takes from late work at the most; 0 for work that is not late by it. */
export function mostTaken(lateness: Lateness, rule: LateRule): number {
  if (rule.kind === 'none' || lateness.startedDays === 0) return 0
  if (rule.kind === 'cap') return 100 - rule.capPercent
  return Math.min(100 - rule.floorPercent, rule.percentPerDay * lateness.startedDays)
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
