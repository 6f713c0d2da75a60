import { and, desc, eq, isNotNull } from 'drizzle-orm'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, marks } from '#server/database/schema'
import type { LetterView } from '#shared/marking/letter'

/** A student's own letters, newest first. Only what was stored on return is read: a mark still held cannot leak. */
export async function ownLetters(db: Db, actor: Actor): Promise<LetterView[]> {
  const rows = await db.select({ activityId: marks.activityId, returned: marks.returned, returnedAt: marks.returnedAt, kind: activities.kind, title: activities.title })
    .from(marks).innerJoin(activities, eq(activities.id, marks.activityId))
    .where(and(eq(marks.enrolmentId, actor.enrolment.id), isNotNull(marks.returned)))
    .orderBy(desc(marks.returnedAt))
  return rows.map(({ returned, returnedAt, ...row }) => ({
    ...row,
    to: actor.person.givenName,
    returnedAt: returnedAt!.toISOString(),
    by: returned!.by, html: returned!.html, rubric: returned!.rubric, points: returned!.points, max: returned!.max,
    criteria: returned!.criteria.map(c => ({ ...c, levels: [...c.levels] })),
    citations: returned!.citations.map(({ number, criterionId, contributionId, exact }) => ({ number, criterionId, contributionId, exact })),
  }))
}

export async function requireLetter(db: Db, actor: Actor, activityId: string): Promise<LetterView> {
  const letter = (await ownLetters(db, actor)).find(l => l.activityId === activityId)
  if (!letter) throw nothingHere()
  return letter
}
