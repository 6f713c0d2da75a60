import { leftBehind, type LeftBehind } from '#core/planning/leftBehind'
import { weekOf } from '#core/planning/week'
import { shiftInstant } from '#core/planning/shiftTerm'
import type { Actor, ActivityActor, Seminar } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import type { ActivityBody } from '#shared/planning/composer'
import { copyBody } from './copyBody'
import { loadBody } from '#server/services/composing/composer'
import { atTimes, inWeek, isDueAfter, placed, withNewIds } from './movedBody'
import { unitOfWeek, insertActivity } from './insertActivity'

/**
 * A copy as a draft: into a week of this seminar, into another one the actor instructs (dates moved by teaching weeks),
 * or as a template. What would be due before now is moved to the present week, unless it is a template.
 */
export async function copyActivity(
  db: Database,
  actor: ActivityActor,
  target: Actor,
  copy: { readonly id: string; readonly week: number | null; readonly asTemplate: boolean },
  now: Date,
): Promise<{ id: string; left: LeftBehind[] }> {
  return db.transaction(async tx => {
    const body = (await loadBody(tx, actor.activity)) as ActivityBody
    const same = target.seminar.id === actor.seminar.id
    const there = same ? body : await inSeminar(tx, body, actor.seminar, target)
    const week = copy.week ?? (copy.asTemplate || isDueAfter(there, now) ? null : weekOf(now, target.seminar))
    const fitted = week === null ? there : inWeek(there, target.seminar, week, now)
    const unitId =
      same && week === null
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
    return { id: copy.id, left: same ? [] : leftBehind(body, there) }
  })
}

/** A body for another seminar, in the same teaching weeks of its term. */
async function inSeminar(tx: Db, body: ActivityBody, from: Seminar, target: Actor): Promise<ActivityBody> {
  const there = await copyBody(tx, body, from.id, target)
  return placed(there, breaks => atTimes(there, at => shiftInstant(at, from, target.seminar, breaks)))
}
