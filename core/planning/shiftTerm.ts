import { clockAt } from './localTime'
import { dayAfter, localDay, localInstant, weekOf, type Term } from './week'

/** Where a moment in a break goes that the other term does not have: into the week that follows, or to the end of the one before. */
export type BreakShift = 'into' | 'before'
export const BREAK_SHIFTS = ['into', 'before'] as const satisfies readonly BreakShift[]

/**
 * The same moment of another term: the same weekday and local time of the same teaching week. A moment in a break goes
 * to the week that follows the same teaching week; with `before`, where no break follows there, to the last minute of the
 * Sunday before, so that it stays before everything in the teaching weeks to come. Before and after the term, weeks are
 * counted on from its ends.
 *
 * @example a Sunday 23:59 of teaching week 8, after a break in the old term and before one in the new,
 * stays Sunday 23:59 of teaching week 8
 */
export function shiftInstant(at: Date, from: Term, to: Term, breaks: BreakShift = 'into'): Date {
  const day = localDay(at, from.timeZone)
  const clock = clockAt(at, from.timeZone)
  const week = weekOf(at, from)
  const weekday = daysBetween(dayAfter(from.firstDay, 7 * (week - 1)), day)
  const last = lastBefore(week, from, to)
  if (breaks === 'before' && last !== null && shiftWeek(week, from, to) > last)
    return localInstant(dayAfter(to.firstDay, 7 * (last - 1) + 6), '23:59', to.timeZone)
  return localInstant(
    dayAfter(to.firstDay, 7 * (shiftWeek(week, from, to) - 1) + weekday),
    clock,
    to.timeZone,
  )
}

/** Number of the week of `to` that stands for a week of `from`, breaks counted in both. */
export function shiftWeek(week: number, from: Term, to: Term): number {
  const isBreak = (term: Term, w: number) => term.breaks?.some(b => b.week === w) ?? false
  let teaching = 0 // teaching weeks up to and with the last one at or before `week`
  let after = 0 // weeks of a break since then
  for (let w = 1; w <= week; w++) {
    if (isBreak(from, w)) after++
    else {
      teaching++
      after = 0
    }
  }
  if (teaching === 0) return week // before the first teaching week
  let found = 0
  let w = 0
  while (found < teaching) if (!isBreak(to, ++w)) found++
  return w + after
}

/** Of a week in a break of `from`: the last week of `to` before the next teaching week there; null for a teaching week. */
function lastBefore(week: number, from: Term, to: Term): number | null {
  const isBreak = (term: Term, w: number) => term.breaks?.some(b => b.week === w) ?? false
  if (!isBreak(from, week)) return null
  let next = week
  while (isBreak(from, next)) next++
  return shiftWeek(next, from, to) - 1
}

const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T12:00:00Z`) - Date.parse(`${from}T12:00:00Z`)) / 86_400_000)
