import { and, eq, notInArray } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { expectations, jointSeminars, phases, prompts } from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import type { ActivityBody } from '#shared/planning/composer'
import { toPhases } from './requireSound'

/** Phases, expectations and prompts as the body has them; expectations keep their ids, so that what was checked stays checked. */
export async function writeParts(
  tx: Db,
  activity: Pick<ActivityRow, 'id' | 'seminarId'>,
  body: ActivityBody,
): Promise<void> {
  const ids = { seminarId: activity.seminarId, activityId: activity.id }
  await tx.delete(phases).where(eq(phases.activityId, activity.id))
  await tx.insert(phases).values(toPhases(body.phases).map((p, position) => ({ ...ids, ...p, position })))
  await tx.delete(expectations).where(eq(expectations.activityId, activity.id))
  if (body.rules.length > 0)
    await tx.insert(expectations).values(body.rules.map((r, position) => ({ ...ids, ...r, position })))
  await tx.delete(jointSeminars).where(eq(jointSeminars.activityId, activity.id))
  if (body.jointSeminarIds.length > 0)
    await tx
      .insert(jointSeminars)
      .values(body.jointSeminarIds.map(seminarId => ({ activityId: activity.id, seminarId })))
  await tx.delete(prompts).where(
    and(
      eq(prompts.activityId, activity.id),
      ...(body.prompts.length > 0
        ? [
            notInArray(
              prompts.id,
              body.prompts.map(p => p.id),
            ),
          ]
        : []),
    ),
  )
  for (const [position, p] of body.prompts.entries()) {
    const values = {
      ...ids,
      position,
      doc: p.doc,
      html: renderDoc(p.doc).html,
      releaseAt: new Date(p.releaseAt),
    }
    await tx
      .insert(prompts)
      .values({ id: p.id, ...values })
      .onConflictDoUpdate({ target: prompts.id, set: values, setWhere: eq(prompts.activityId, activity.id) })
  }
}
