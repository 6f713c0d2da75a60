import { and, eq } from 'drizzle-orm'
import { nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import { weekOf } from '#core/planning/week'
import type { Database } from '#server/database/client'
import { activities } from '#server/database/schema'
import type { ActivityBody } from '#shared/planning/composer'
import { loadBody } from '#server/services/composing/composer'
import { usualBody } from './usualBody'
import { inWeek, withNewIds } from './movedBody'
import { unitOfWeek, insertActivity } from './insertActivity'

/**
 * A new draft in a week of the term, with the phases and expectations its kind usually has, or as a template has it. The
 * browser makes the id.
 */
export async function makeActivity(
  db: Database,
  actor: Actor,
  make: {
    readonly id: string
    readonly kind: ActivityRow['kind']
    readonly week: number
    readonly unitId: string | null
    readonly templateId: string | null
  },
  now: Date,
): Promise<{ id: string }> {
  const { seminar } = actor
  await db.transaction(async tx => {
    const [template] = make.templateId
      ? await tx
          .select()
          .from(activities)
          .where(
            and(
              eq(activities.id, make.templateId),
              eq(activities.seminarId, seminar.id),
              eq(activities.isTemplate, true),
            ),
          )
      : []
    if (make.templateId && !template) throw nothingHere()
    const fresh = usualBody(seminar, make.kind, make.week, now)
    const body = template
      ? inWeek((await loadBody(tx, template)) as ActivityBody, seminar, make.week, now)
      : fresh
    const unit = make.unitId ?? (await unitOfWeek(tx, seminar.id, weekOf(new Date(body.opensAt), seminar)))
    await insertActivity(tx, actor, make.id, { ...withNewIds(body), unitId: unit }, false, now)
  })
  return { id: make.id }
}
