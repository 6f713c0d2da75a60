import { eq } from 'drizzle-orm'
import type { ActivityRow, ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { composerView } from '#server/services/composing/composer'

/** Takes the activity's row for this change; refuses when it is locked or has moved on since it was seen. */
export async function requireCurrent(
  tx: Db,
  actor: ActivityActor,
  baseVersion: number,
  now: Date,
): Promise<ActivityRow> {
  const [row] = await tx.select().from(activities).where(eq(activities.id, actor.activity.id)).for('update')
  if (row!.version !== baseVersion) {
    const theirs = await composerView(tx, { ...actor, activity: row! }, now)
    throw new Problem(
      409,
      'changedMeanwhile',
      `${theirs.savedBy ?? 'Someone else'} changed this activity meanwhile. Nothing of yours was lost.`,
      { theirs },
    )
  }
  if (row!.lockedAt)
    throw new Problem(
      409,
      'locked',
      'The settings of this activity are locked. Unlock them first; then they can be changed.',
    )
  return row!
}
