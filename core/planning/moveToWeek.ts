import { shiftInstant, type BreakShift } from './shiftTerm'
import { dayAfter, weekOf, type Term } from './week'

/**
 * How moments of an activity move when it is to begin in another week of its term: the same weekdays and local times, as
 * many teaching weeks after the week it opens in; breaks on the way are left out, as `shiftInstant` does.
 *
 * @param opensAt when it opens now
 * @param week number of the week it is to begin in, breaks included; a break leads to the first week after it
 */
export function moveToWeek(
  opensAt: Date,
  week: number,
  term: Term,
  breaks: BreakShift = 'into',
): (at: Date) => Date {
  let to = week
  while (term.breaks?.some(b => b.week === to)) to++
  const [from, onto] = [countedFrom(weekOf(opensAt, term), term), countedFrom(to, term)]
  return at => shiftInstant(at, from, onto, breaks)
}

/** The same weeks, counted from one of them. */
const countedFrom = (week: number, term: Term): Term => ({
  ...term,
  firstDay: dayAfter(term.firstDay, 7 * (week - 1)),
  weeks: Math.max(1, term.weeks - week + 1),
  breaks: term.breaks?.map(b => ({ ...b, week: b.week - week + 1 })).filter(b => b.week >= 1) ?? [],
})
