import { eq } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import {
  activities,
  contributions,
  expectations,
  extensions,
  marks,
  phases,
  prompts,
} from '#server/database/schema'
import { Problem } from '#server/http/problem'

/** Takes a draft or a template away. What has been written in stays: then the activity stays, too. */
export async function removeActivity(db: Database, actor: ActivityActor, now: Date): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(activities).where(eq(activities.id, actor.activity.id)).for('update')
    const used =
      (await tx.$count(contributions, eq(contributions.activityId, row!.id))) +
      (await tx.$count(marks, eq(marks.activityId, row!.id)))
    if (row!.state !== 'draft' || used > 0)
      throw new Problem(
        409,
        'inUse',
        'Only a draft in which nobody has written can be deleted. Make it a draft first, or leave it.',
      )
    for (const table of [phases, expectations, prompts, extensions])
      await tx.delete(table).where(eq(table.activityId, row!.id))
    await tx.delete(activities).where(eq(activities.id, row!.id))
    await noteActs(tx, actor, now, {
      act: 'draftActivityRemoved',
      subjectId: row!.id,
      detail: { title: row!.title },
    })
  })
}
