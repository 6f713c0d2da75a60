import { eq, max } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, units } from '#server/database/schema'
import type { ActivityBody } from '#shared/planning/composer'
import { withOneCount } from '#core/kinds/review/reviewCount'
import { writeParts } from './writeParts'
import { columnsOf } from './activityColumns'
import { requireSound } from './requireSound'

export const unitOfWeek = async (tx: Db, seminarId: string, week: number): Promise<string | null> => {
  const rows = await tx.select().from(units).where(eq(units.seminarId, seminarId)).orderBy(units.position)
  return rows.findLast(u => u.fromWeek <= week && u.toWeek >= week)?.id ?? null
}

export async function insertActivity(
  tx: Db,
  actor: Actor,
  id: string,
  proposed: ActivityBody,
  isTemplate: boolean,
  now: Date,
): Promise<void> {
  const body = { ...proposed, ...withOneCount(proposed, proposed) }
  requireSound(body)
  const [{ last } = { last: null }] = await tx
    .select({ last: max(activities.position) })
    .from(activities)
    .where(eq(activities.seminarId, actor.seminar.id))
  const [row] = await tx
    .insert(activities)
    .values({
      id,
      seminarId: actor.seminar.id,
      ...columnsOf(body, null),
      isTemplate,
      position: (last ?? -1) + 1,
    })
    .onConflictDoNothing()
    .returning()
  if (!row) return // the same wish sent again after a lost answer
  await writeParts(tx, row, body)
  await noteActs(tx, actor, now, {
    act: 'activityPlanned',
    subjectId: id,
    detail: { title: body.title },
  })
}
