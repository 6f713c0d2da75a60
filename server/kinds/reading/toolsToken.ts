import { and, eq } from 'drizzle-orm'
import { asNamedIn, isMeantFor, mayKnowOf, type ActivityActor } from '#server/access/seminar'
import { digestOf, newSecret } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { activities, annotationTokens, enrolments, persons, seminars } from '#server/database/schema'
import type { ToolsAddress } from '#shared/kinds/reading/reading'
import type { z } from 'zod'
import { containerOf } from './annotations'

type Address = z.infer<typeof ToolsAddress>

export async function toolsAddress(db: Db, { activity, enrolment }: ActivityActor): Promise<Address> {
  const made = await db.$count(
    annotationTokens,
    and(eq(annotationTokens.activityId, activity.id), eq(annotationTokens.enrolmentId, enrolment.id)),
  )
  return { address: made > 0 ? containerOf(activity.id) : null, token: null }
}
/** Makes a token; an older one opens nothing any more. It is told once: only its digest is kept. */
export async function makeToolsToken(db: Database, { activity, enrolment }: ActivityActor): Promise<Address> {
  const token = newSecret()
  const digest = digestOf(token)
  await db
    .insert(annotationTokens)
    .values({ seminarId: enrolment.seminarId, activityId: activity.id, enrolmentId: enrolment.id, digest })
    .onConflictDoUpdate({
      target: [annotationTokens.activityId, annotationTokens.enrolmentId],
      set: { digest },
    })
  return { address: containerOf(activity.id), token }
}
export async function dropToolsToken(db: Database, { activity, enrolment }: ActivityActor): Promise<Address> {
  await db
    .delete(annotationTokens)
    .where(and(eq(annotationTokens.activityId, activity.id), eq(annotationTokens.enrolmentId, enrolment.id)))
  return { address: null, token: null }
}

/** Whose token it is, for this one activity, as far as they may be there now; null where it opens nothing. */
export async function actorOfToken(
  db: Db,
  activityId: string,
  token: string,
  now: Date,
): Promise<ActivityActor | null> {
  const [row] = await db
    .select({ activity: activities, enrolment: enrolments, seminar: seminars, person: persons })
    .from(annotationTokens)
    .innerJoin(activities, eq(activities.id, annotationTokens.activityId))
    .innerJoin(enrolments, eq(enrolments.id, annotationTokens.enrolmentId))
    .innerJoin(seminars, eq(seminars.id, activities.seminarId))
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(and(eq(annotationTokens.digest, digestOf(token)), eq(annotationTokens.activityId, activityId)))
  if (
    !row ||
    row.enrolment.state === 'withdrawn' ||
    !(await mayKnowOf(db, row.activity, row.enrolment, now)) ||
    !(await isMeantFor(db, row.activity, row.enrolment))
  )
    return null
  return { ...row, person: asNamedIn(row.person, row.enrolment), studentsEye: false }
}
