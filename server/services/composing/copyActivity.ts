import { weekOf } from '#core/planning/week'
import { shiftInstant } from '#core/planning/shiftTerm'
import { type Actor, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import type { ActivityBody } from '#shared/planning/composer'
import { copyBody } from './copyBody'
import { loadBody } from '#server/services/composing/composer'
import { inWeek, atTimes, withNewIds } from './movedBody'
import { unitOfWeek, insertActivity } from './insertActivity'

/**
 * A copy as a draft: into a week of this seminar, into another one the actor instructs (dates moved by teaching weeks),
 * or as a template.
 */
export async function copyActivity(
  db: Database,
  actor: ActivityActor,
  target: Actor,
  copy: { readonly id: string; readonly week: number | null; readonly asTemplate: boolean },
  now: Date,
): Promise<{ id: string }> {
  await db.transaction(async tx => {
    const body = (await loadBody(tx, actor.activity)) as ActivityBody
    const same = target.seminar.id === actor.seminar.id
    const there = same
      ? body
      : atTimes(await copyBody(tx, body, actor.seminar.id, target), at =>
          shiftInstant(at, actor.seminar, target.seminar),
        )
    const fitted = copy.week === null ? there : inWeek(there, target.seminar, copy.week)
    const unitId =
      same && copy.week === null
        ? fitted.unitId
        : await unitOfWeek(tx, target.seminar.id, weekOf(new Date(fitted.opensAt), target.seminar))
    await insertActivity(
      tx,
      target,
      copy.id,
      {
        ...withNewIds(fitted),
        unitId,
        title: same && !copy.asTemplate ? `${body.title} (copy)` : body.title,
      },
      copy.asTemplate,
      now,
    )
  })
  return { id: copy.id }
}
