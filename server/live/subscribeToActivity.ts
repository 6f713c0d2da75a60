import { and, eq } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import { now } from '#server/clock'
import type { Db } from '#server/database/client'
import { visits } from '#server/database/schema'
import { subscribe } from './hub'
import type { LiveEvent } from '#shared/contributing/thread'

/** Tells a reader what happens in a talk as long as they have it open. @returns how to stop */
export async function subscribeToActivity(
  db: Db,
  { activity, enrolment }: Actor & { readonly activity: ActivityRow },
  send: (event: LiveEvent) => void,
): Promise<() => void> {
  const [visit] = await db
    .select({ seenSeq: visits.seenSeq })
    .from(visits)
    .where(and(eq(visits.activityId, activity.id), eq(visits.enrolmentId, enrolment.id)))
  return subscribe(
    db,
    process.env.DATABASE_URL!,
    activity.id,
    { enrolment, seenSeq: visit?.seenSeq ?? 0, send },
    now,
  )
}
