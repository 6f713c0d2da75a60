import { and, desc, eq, isNotNull } from 'drizzle-orm'
import { nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, marks } from '#server/database/schema'
import type { LetterView } from '#shared/marking/letter'
import { markedRecord } from './markedRecords'
import { letterFrom, letterView, scaleOf } from './returnedLetter'
import { requireSeesMark } from './secondMarks'

/** A student's own letters, newest first. Only what was stored on return is read: a mark still held cannot leak. */
export async function ownLetters(db: Db, actor: Actor): Promise<LetterView[]> {
  const rows = await db
    .select({
      activityId: marks.activityId,
      returned: marks.returned,
      returnedAt: marks.returnedAt,
      kind: activities.kind,
      title: activities.title,
    })
    .from(marks)
    .innerJoin(activities, eq(activities.id, marks.activityId))
    .where(and(eq(marks.enrolmentId, actor.enrolment.id), isNotNull(marks.returned)))
    .orderBy(desc(marks.returnedAt))
  return rows.map(({ returned, returnedAt, ...row }) =>
    letterView(returned!, { ...row, to: actor.person.givenName, returnedAt: returnedAt!.toISOString() }),
  )
}

export async function requireLetter(db: Db, actor: Actor, activityId: string): Promise<LetterView> {
  const letter = (await ownLetters(db, actor)).find(l => l.activityId === activityId)
  if (!letter) throw nothingHere()
  return letter
}

/** What the student would get if the mark were returned now, to its marker. */
export async function previewLetter(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  enrolmentId: string,
  now: Date,
): Promise<LetterView> {
  await requireSeesMark(db, actor, enrolmentId)
  const record = await markedRecord(db, actor, enrolmentId, now)
  const { activity } = actor
  return letterView(letterFrom(actor, record, await scaleOf(db, activity)), {
    activityId: activity.id,
    kind: activity.kind,
    title: activity.title,
    to: record.student.givenName,
    returnedAt: now.toISOString(),
  })
}
