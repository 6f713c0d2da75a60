import { and, eq, sql } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments } from '#server/database/schema'
import { giveAliases } from './aliases'
import { hooksOf } from './kindHooks'

/**
 * Makes what must be there before anybody looks at activities that have changed: names where names are hidden, and what
 * their kinds need. Part of the transaction that changed them, so that reading writes nothing.
 *
 * @returns whether a kind may have made something
 */
export async function prepareActivities(
  tx: Db,
  activities: readonly ActivityRow[],
  now: Date,
): Promise<boolean> {
  let didMake = false
  for (const activity of activities) {
    const { prepare } = hooksOf(activity.kind)
    if (prepare) didMake = true
    await prepare?.(tx, activity, now)
    if (talkOf(activity.settings).namesHidden) await giveAliases(tx, activity, await authorsOf(tx, activity))
  }
  return didMake
}

const authorsOf = (tx: Db, activity: ActivityRow) =>
  tx
    .selectDistinct({
      threadId: sql<string>`coalesce(${contributions.threadId}, ${contributions.id})`,
      authorId: contributions.authorId,
    })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .where(and(eq(contributions.activityId, activity.id), eq(enrolments.role, 'student')))
