import { dateFormat } from '#core/language/dateFormat'
import { addDays, differenceInCalendarDays } from 'date-fns'
import { TZDate } from '@date-fns/tz'

export interface Term {
  readonly firstDay: string // local date of the first Monday, YYYY-MM-DD
  readonly weeks: number // how many weeks the term has, >= 1
  readonly timeZone: string // IANA name
  readonly breaks?: readonly TermBreak[] // weeks among these without teaching, by week
}

/** A week of the term in which nothing is taught. */
export interface TermBreak {
  readonly week: number // counted through the term with its breaks, 1 for the first
  readonly title: string
}

/**
 * The instant at which a local wall clock shows the given day and time.
 * Due times stay at local 23:59 on both sides of a change to or from daylight saving.
 *
 * @param day local date, YYYY-MM-DD
 * @param time local time, HH:MM
 * @throws {RangeError} if day or time is not of that form
 * @example localInstant('2026-10-18', '23:59', 'Europe/Oslo') => 2026-10-18T21:59:00Z
 */
export function localInstant(day: string, time: string, timeZone: string): Date {
  const date = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day)
  const clock = /^(\d{2}):(\d{2})$/.exec(time)
  if (!date || !clock) throw new RangeError(`localInstant needs YYYY-MM-DD and HH:MM, got ${day} ${time}`)
  const local = new TZDate(+date[1]!, +date[2]! - 1, +date[3]!, +clock[1]!, +clock[2]!, 0, 0, timeZone)
  return new Date(local.getTime())
}

/** Local calendar date of an instant, YYYY-MM-DD. */
export const localDay = (at: Date, timeZone: string): string =>
  dateFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(at)

/** Local date `days` after the given one, YYYY-MM-DD; calendar arithmetic, no clock involved. */
export function dayAfter(day: string, days: number): string {
  return addDays(new Date(`${day}T12:00:00Z`), days)
    .toISOString()
    .slice(0, 10)
}

/**
 * Number of the term's week an instant falls in, 1 for the first; below 1 before the term, above `weeks` after it.
 */
export function weekOf(at: Date, term: Term): number {
  const days = differenceInCalendarDays(
    new Date(`${localDay(at, term.timeZone)}T12:00:00Z`),
    new Date(`${term.firstDay}T12:00:00Z`),
  )
  return Math.floor(days / 7) + 1
}

export interface WeekSpan {
  readonly number: number // counted through the term, breaks included
  readonly teaching: number | null // as people count: without breaks; null for a break
  readonly title: string | null // of a break
  readonly firstDay: string // local date of its Monday
  readonly startsAt: Date // local midnight of its Monday
  readonly endsAt: Date // local midnight of the Monday after, exclusive
}

/** All weeks of a term, in order, shape [term.weeks]. */
export function weeksOf(term: Term): WeekSpan[] {
  let teaching = 0
  return Array.from({ length: term.weeks }, (_, i) => {
    const pause = term.breaks?.find(b => b.week === i + 1)
    if (!pause) teaching++
    const firstDay = dayAfter(term.firstDay, 7 * i)
    return {
      number: i + 1,
      teaching: pause ? null : teaching,
      title: pause?.title ?? null,
      firstDay,
      startsAt: localInstant(firstDay, '00:00', term.timeZone),
      endsAt: localInstant(dayAfter(firstDay, 7), '00:00', term.timeZone),
    }
  })
}
