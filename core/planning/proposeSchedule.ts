import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import { shiftDays } from './moveSchedule'
import type { Phase, PhaseName, Schedule } from './schedule'
import { dayAfter, localDay, localInstant, weekOf, type Term } from './week'

/** When work is usually due. */
export interface UsualDue {
  readonly weekday: number // 1 Monday … 7 Sunday
  readonly time: string // local time HH:MM
}

/** What is proposed for: the phases a student works in, and how many teaching weeks each usually takes. */
export interface WorkToPlan {
  readonly phases: readonly PhaseName[]
  readonly weeks: readonly number[] // of each phase, ≥ 1
}

/** Time of day at which what begins in a week to come opens. */
const OPENS = '08:00'
/** Days a first phase has at the least, from its opening to its due time. */
const ROOM = 2
const DAY = 86_400_000

/**
 * A schedule for new work that begins in a week of the term, with its marking.
 *
 * It opens on the Monday of the week, or now where that has passed; in a break, on the Monday after it. Every phase is due
 * on the usual weekday at the usual time of a teaching week, and the first leaves two days or more. Where the term has
 * too few weeks left, long phases are shortened first, so that marking has a week; where fewer weeks are left than
 * phases, they are due on days spread evenly to the end of the term. Nothing is due before `now`, in a break, or after the
 * term, unless the term leaves no day for it: then weeks are counted on beyond its end.
 *
 * @param week number of the term's week, breaks included; may lie outside the term
 */
export function proposeSchedule(
  work: WorkToPlan,
  term: Term,
  week: number,
  usual: UsualDue,
  now: Date,
): Schedule {
  const opensAt = opening(term, week, now)
  const ends = dueTimes(work, term, usual, opensAt)
  const phases: Phase[] = work.phases.map((name, i) => ({
    name,
    startsAt: i === 0 ? opensAt : ends[i - 1]!,
    endsAt: ends[i]!,
  }))
  const last = ends.at(-1)!
  return {
    opensAt,
    phases: [...phases, { name: 'mark', startsAt: last, endsAt: nextUsualDue(last, term, usual) }],
  }
}

const isBreak = (week: number, term: Term): boolean =>
  week <= term.weeks && (term.breaks?.some(b => b.week === week) ?? false)
const dayOf = (week: number, weekday: number, term: Term): string =>
  dayAfter(term.firstDay, 7 * (week - 1) + weekday - 1)

/** The first moment at or after `now` in the week or, where it is a break, in the first one after it. */
function opening(term: Term, week: number, now: Date): Date {
  let open = Math.max(week, weekOf(now, term))
  while (isBreak(open, term)) open++
  const monday = localInstant(dayOf(open, 1, term), OPENS, term.timeZone)
  return monday >= now ? monday : new Date(Math.ceil(now.getTime() / 60_000) * 60_000)
}

/** The usual due times from a moment on, one in each teaching week of the term, and in as many weeks beyond it. */
function usualTimes(from: Date, term: Term, usual: UsualDue, weeks: { readonly beyond: number }): Date[] {
  const first = Math.max(1, weekOf(from, term))
  const last = Math.max(term.weeks, weekOf(from, term)) + weeks.beyond
  const times: Date[] = []
  for (let week = first; week <= last; week++) {
    if (isBreak(week, term) || (weeks.beyond === 0 && week > term.weeks)) continue
    const at = localInstant(dayOf(week, usual.weekday, term), usual.time, term.timeZone)
    if (at > from) times.push(at)
  }
  return times
}

function dueTimes(work: WorkToPlan, term: Term, usual: UsualDue, opensAt: Date): Date[] {
  const asked = work.weeks.reduce((a, b) => a + b, 0)
  const leaves = new Date(opensAt.getTime() + ROOM * DAY)
  const inTerm = usualTimes(leaves, term, usual, { beyond: 0 })
  if (inTerm.length >= work.phases.length) return spread(work.weeks, inTerm)
  const days = daysLeft(opensAt, term, usual)
  if (days.length >= work.phases.length) return evenly(work.phases.length, days)
  return spread(work.weeks, usualTimes(leaves, term, usual, { beyond: asked + 1 }).slice(0, asked + 1))
}

/** One of the times for each phase, so many weeks apart; long phases give way first, the last week is left to marking. */
function spread(weeks: readonly number[], times: readonly Date[]): Date[] {
  const most = times.length > weeks.length ? times.length - 1 : times.length
  const lengths = [...weeks]
  for (let sum = lengths.reduce((a, b) => a + b, 0); sum > most; sum--) {
    const longest = lengths.lastIndexOf(Math.max(...lengths))
    lengths[longest]!--
  }
  let used = 0
  return lengths.map(length => times[(used += length) - 1]!)
}

/** The usual time on each day that is left of the term, without breaks. */
function daysLeft(opensAt: Date, term: Term, usual: UsualDue): Date[] {
  const end = dayAfter(term.firstDay, 7 * term.weeks)
  const times: Date[] = []
  for (let day = localDay(opensAt, term.timeZone); day < end; day = dayAfter(day, 1)) {
    const at = localInstant(day, usual.time, term.timeZone)
    if (at > opensAt && !isBreak(weekOf(at, term), term)) times.push(at)
  }
  return times
}

const evenly = (count: number, days: readonly Date[]): Date[] =>
  Array.from({ length: count }, (_, i) => days[Math.floor(((i + 1) * days.length) / count) - 1]!)

/** The next usual due time after a moment that is in no break; after the term, weeks are counted on. */
export const nextUsualDue = (after: Date, term: Term, usual: UsualDue): Date =>
  usualTimes(after, term, usual, { beyond: 2 })[0]!

/** So many local days after a moment, at the same time of day; after the break where that is in one. */
export function daysLater(at: Date, days: number, term: Term): Date {
  let later = shiftDays(at, days, term.timeZone)
  while (isBreak(weekOf(later, term), term)) later = shiftDays(later, 1, term.timeZone)
  return later
}

/** The phases of a kind and how long they usually take. */
export const workToPlan = (kind: ActivityKind): WorkToPlan => ({
  phases: KINDS[kind].workingPhases,
  weeks: KINDS[kind].usualWeeks,
})
