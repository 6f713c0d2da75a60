import { v7 } from 'uuid'
import { weekOf } from '#core/planning/week'
import { shiftDays } from '#core/planning/moveSchedule'
import { type Seminar } from '#server/access/seminar'
import type { ActivityBody } from '#shared/planning/composer'

/** A body moved so that it opens in a week of the term, on the same weekdays at the same times. */
export function inWeek(body: ActivityBody, seminar: Seminar, week: number): ActivityBody {
  const days = 7 * (week - weekOf(new Date(body.opensAt), seminar))
  return atTimes(body, at => shiftDays(at, days, seminar.timeZone))
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
