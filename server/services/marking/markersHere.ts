import { and, asc, eq, gt, ne } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { enrolments, recordMarkers } from '#server/database/schema'
import { requireStudent } from './markedStudents'

const LONGEST_SILENCE = 40_000 // milliseconds: a browser says every fifteen seconds that it is there

/** Takes down which record a marker has open now. @returns who else has it open */
export async function noteMarkerHere(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  now: Date,
): Promise<{ others: Array<{ name: string }> }> {
  await requireStudent(db, actor, enrolmentId)
  const at = { enrolmentId, seenAt: now }
  await db
    .insert(recordMarkers)
    .values({
      ...at,
      seminarId: actor.seminar.id,
      activityId: actor.activity.id,
      markerId: actor.enrolment.id,
    })
    .onConflictDoUpdate({ target: [recordMarkers.activityId, recordMarkers.markerId], set: at })
  const others = await db
    .select({ name: enrolments.name })
    .from(recordMarkers)
    .innerJoin(enrolments, eq(enrolments.id, recordMarkers.markerId))
    .where(
      and(
        eq(recordMarkers.activityId, actor.activity.id),
        eq(recordMarkers.enrolmentId, enrolmentId),
        ne(recordMarkers.markerId, actor.enrolment.id),
        gt(recordMarkers.seenAt, new Date(now.getTime() - LONGEST_SILENCE)),
      ),
    )
    .orderBy(asc(enrolments.name))
  return { others }
}
