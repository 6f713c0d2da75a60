import { shiftDays } from './moveSchedule'
import type { Phase } from './schedule'
import { weekOf, type Term } from './week'

/** A week of a weekly expectation. */
export interface WeeklySpan {
  readonly week: number // of the term, breaks included, in which it ends
  readonly startsAt: Date // after the week before is due
  readonly dueAt: Date // work at this very instant is on time
  readonly endsAt: Date // exclusive: the instant after it is due
}

/**
 * The weeks in which a weekly expectation asks for something. Each is due on the weekday and at the local time at which the
 * phase ends, in every teaching week of the term but those of rest; what is written in a break counts for the week after it.
 */
export function weeklySpans(phase: Phase, term: Term, restWeeks: readonly number[]): WeeklySpan[] {
  const isLeftOut = (week: number) =>
    week < 1 || week > term.weeks || restWeeks.includes(week) || term.breaks?.some(b => b.week === week)
  const dueTimes: Date[] = []
  for (let back = 0; ; back += 7) {
    const dueAt = back === 0 ? phase.endsAt : shiftDays(phase.endsAt, -back, term.timeZone)
    if (dueAt <= phase.startsAt) break
    if (!isLeftOut(weekOf(dueAt, term))) dueTimes.unshift(dueAt)
  }
  const after = (at: Date) => new Date(at.getTime() + 1)
  return dueTimes.map((dueAt, i) => {
    const before = i > 0 ? dueTimes[i - 1]! : earlier(shiftDays(dueAt, -7, term.timeZone), phase.startsAt)
    return { week: weekOf(dueAt, term), startsAt: after(before), dueAt, endsAt: after(dueAt) }
  })
}

const earlier = (a: Date, b: Date): Date => (a < b ? a : new Date(b.getTime() - 1))
