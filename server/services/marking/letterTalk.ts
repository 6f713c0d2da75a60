import { and, asc, eq, isNotNull } from 'drizzle-orm'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, letterReplies, marks } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { renderDoc } from '#server/richText/renderDoc'
import { happened } from '#server/services/events'
import { requireSeesMark } from './secondMarks'
import { withIdempotency } from '#server/services/idempotency'
import type { LetterTalk, LetterReplyWrite } from '#shared/marking/letter'

/** The talk under a returned letter: the student's own, or to staff anyone's. Before a letter is returned there is none. */
export async function letterTalk(db: Db, actor: ActivityActor, enrolmentId: string): Promise<LetterTalk> {
  await requireReturned(db, actor, enrolmentId)
  const rows = await db
    .select({
      id: letterReplies.id,
      html: letterReplies.html,
      at: letterReplies.at,
      authorId: letterReplies.authorId,
      author: enrolments.name,
      role: enrolments.role,
    })
    .from(letterReplies)
    .innerJoin(enrolments, eq(enrolments.id, letterReplies.authorId))
    .where(and(eq(letterReplies.activityId, actor.activity.id), eq(letterReplies.enrolmentId, enrolmentId)))
    .orderBy(asc(letterReplies.at), asc(letterReplies.id))
  return {
    replies: rows.map(({ authorId, at, role, ...r }) => ({
      ...r,
      at: at.toISOString(),
      isMe: authorId === actor.enrolment.id,
      isStaff: role !== 'student',
    })),
  }
}

export function replyToLetter(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  write: LetterReplyWrite,
  now: Date,
): Promise<LetterTalk> {
  const { doc, html, words } = renderDoc(write.doc)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const mark = await requireReturned(tx, actor, enrolmentId)
    if (words === 0) throw refusedField('doc', 'empty', 'There are no words here yet. Write a line first.')
    await tx.insert(letterReplies).values({
      seminarId: actor.activity.seminarId,
      activityId: actor.activity.id,
      enrolmentId,
      authorId: actor.enrolment.id,
      doc,
      html,
      at: now,
    })
    const isFromStudent = actor.enrolment.id === enrolmentId
    await happened(
      tx,
      {
        kind: 'wroteBack',
        activity: actor.activity,
        enrolmentId: isFromStudent ? mark.markedBy : enrolmentId,
        by: actor.person.name,
        studentId: enrolmentId,
      },
      now,
    )
    return letterTalk(tx, actor, enrolmentId)
  })
}

async function requireReturned(db: Db, actor: ActivityActor, enrolmentId: string) {
  if (actor.enrolment.id !== enrolmentId && !isStaff(actor.enrolment)) throw nothingHere()
  await requireSeesMark(db, actor, enrolmentId)
  const [mark] = await db
    .select({ markedBy: marks.markedBy })
    .from(marks)
    .where(
      and(
        eq(marks.activityId, actor.activity.id),
        eq(marks.enrolmentId, enrolmentId),
        isNotNull(marks.returned),
      ),
    )
  if (!mark) throw nothingHere()
  return mark
}
