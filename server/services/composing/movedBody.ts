import { v7 } from 'uuid'
import { moveToWeek } from '#core/planning/moveToWeek'
import { BREAK_SHIFTS, type BreakShift } from '#core/planning/shiftTerm'
import { isWorkingPhase } from '#core/planning/schedule'
import { dayAfter, localInstant, weekOf } from '#core/planning/week'
import { type Seminar } from '#server/access/seminar'
import { Problem, refusedField } from '#server/http/problem'
import type { ActivityBody } from '#shared/planning/composer'
import { requireSound } from './requireSound'

/**
 * A body moved so that it opens in a week of the term, on the same weekdays at the same times, breaks left out; a week
 * later for as long as something would be due before now. What would have begun before now begins now.
 */
export function inWeek(body: ActivityBody, seminar: Seminar, week: number, now: Date): ActivityBody {
  const opensAt = new Date(body.opensAt)
  let problem: unknown
  for (let to = Math.max(week, weekOf(now, seminar)); ; to++) {
    try {
      const moved = placed(body, breaks => {
        const move = moveToWeek(opensAt, to, seminar, breaks)
        return { ...atTimes(body, move), rests: movedRests(body.rests, seminar, move) }
      })
      if (isDueAfter(moved, now)) return begunBy(moved, now)
    } catch (error) {
      problem ??= error
      // a week later the breaks lie otherwise; after the term there are none
      if (!(error instanceof Problem) || to > Math.max(week, seminar.weeks)) throw problem
    }
  }
}

/**
 * The first sound of two ways to move a body: what lies in a break that is not there goes to the week after or, if the
 * phases would run into each other then, to the end of the week before.
 *
 * @throws {Problem} that names the activity, where neither way leaves its phases in their order
 */
export function placed(body: ActivityBody, moved: (breaks: BreakShift) => ActivityBody): ActivityBody {
  let problem: unknown
  for (const breaks of BREAK_SHIFTS) {
    const there = moved(breaks)
    try {
      requireSound(there)
      return there
    } catch (error) {
      problem ??= error
    }
  }
  if (!(problem instanceof Problem)) throw problem
  throw refusedField(
    'breaks',
    'noPlace',
    `“${body.title}” has no place in the new term. ${problem.message} Give the new term the same breaks, or move the activity first.`,
  )
}

/** Whether everything students work towards is still to come. */
export const isDueAfter = (body: ActivityBody, now: Date): boolean =>
  body.phases.every(p => !isWorkingPhase(p.name) || new Date(p.endsAt) > now)

function begunBy(body: ActivityBody, now: Date): ActivityBody {
  const later = (at: string) => (new Date(at) < now ? now.toISOString() : at)
  return {
    ...body,
    opensAt: later(body.opensAt),
    phases: body.phases.map(p => ({ ...p, startsAt: later(p.startsAt) })),
  }
}

function movedRests(rests: readonly number[], seminar: Seminar, move: (at: Date) => Date): number[] {
  const noon = (week: number) =>
    localInstant(dayAfter(seminar.firstDay, 7 * (week - 1) + 2), '12:00', seminar.timeZone)
  return rests
    .map(week => weekOf(move(noon(week)), seminar))
    .filter(week => week >= 1 && week <= seminar.weeks)
}

export function atTimes(body: ActivityBody, move: (at: Date) => Date): ActivityBody {
  const iso = (at: string) => move(new Date(at)).toISOString()
  return {
    ...body,
    opensAt: iso(body.opensAt),
    hiddenUntil: body.hiddenUntil && iso(body.hiddenUntil),
    phases: body.phases.map(p => ({ ...p, startsAt: iso(p.startsAt), endsAt: iso(p.endsAt) })),
    prompts: body.prompts.map(p => ({ ...p, releaseAt: iso(p.releaseAt) })),
  }
}

export const withNewIds = (body: ActivityBody): ActivityBody => ({
  ...body,
  rules: body.rules.map(r => ({ ...r, id: v7() })),
  prompts: body.prompts.map(p => ({ ...p, id: v7() })),
})
