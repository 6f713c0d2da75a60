import { and, eq } from 'drizzle-orm'
import { plainText, type RichNode } from '#core/contributing/richText'
import { worthOf } from '#core/marking/showMark'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, excuses, marks } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { emptyMark } from '#server/services/marking/mark'
import { requireStudent } from '#server/services/marking/markedStudents'
import { storePoints } from '#server/services/marking/storePoints'
import { requireSeesMark } from '#server/services/marking/secondMarks'
import { withIdempotency } from '#server/services/idempotency'
import type { ExcusedWrite, GradeRow, PointsWrite } from '#shared/marking/gradebook'
import { gradeRow } from './gradebook'

/**
 * Sets points in the gradebook, in place of what was calculated, or takes them off again. They are held until they are
 * returned; a returned mark is held again and its student keeps what they were given.
 */
export function setPoints(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  write: PointsWrite,
  now: Date,
): Promise<GradeRow> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    await requireStudent(tx, actor, enrolmentId)
    await requireSeesMark(tx, actor, enrolmentId)
    await writePoints(tx, actor, enrolmentId, write, now)
    return gradeRow(tx, actor, enrolmentId, now)
  })
}

/** The same, within a transaction that writes more. */
export async function writePoints(
  tx: Db,
  actor: ActivityActor,
  enrolmentId: string,
  write: Omit<PointsWrite, 'key'>,
  now: Date,
): Promise<void> {
  const { activity } = actor
  const max = worthOf(activity)
  if (write.points !== null && max <= 0)
    throw refusedField(
      'points',
      'worthNothing',
      'This activity is worth no points, so there are none to set. Give it points in its plan first.',
    )
  if (write.points !== null && write.points > max)
    throw refusedField(
      'points',
      'tooMany',
      `There are ${max / 100} points to get here; ${write.points / 100} is more.`,
    )
  const calculatedOtherwise = activity.rubricVersionId !== null || activity.combine !== null
  if (write.points !== null && calculatedOtherwise && write.reason === '')
    throw refusedField(
      'reason',
      'reason',
      'Say why the points differ from what was reckoned; it is kept with the mark.',
    )
  const [stored] = await tx
    .select()
    .from(marks)
    .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, enrolmentId)))
    .for('update')
  const findStands = () => {
    if (stored) return stored.state === 'returned' ? (stored.returned?.points ?? null) : stored.points
    return null
  }
  const stands = findStands()
  if (stands !== write.was)
    throw new Problem(
      409,
      'changedMeanwhile',
      `This mark was changed meanwhile: it stands at ${stands === null ? 'no points' : stands / 100}. Nothing was overwritten; look again.`,
    )
  const set = {
    overridePoints: write.points,
    overrideReason: write.points === null ? null : write.reason,
    savedAt: now,
    markedBy: actor.enrolment.id,
  }
  const { letter } = emptyMark()
  const markId =
    stored?.id ??
    (
      await tx
        .insert(marks)
        .values({
          ...set,
          seminarId: actor.seminar.id,
          activityId: activity.id,
          enrolmentId,
          rubricVersionId: activity.rubricVersionId,
          letter: letter as typeof marks.$inferInsert.letter,
          letterText: plainText(letter as RichNode),
          state: write.points === null ? 'open' : 'held',
          heldAt: write.points === null ? null : now,
        })
        .returning({ id: marks.id })
    )[0]!.id
  if (stored)
    await tx
      .update(marks)
      .set({ ...set, version: stored.version + 1 })
      .where(eq(marks.id, stored.id))
  await tx.insert(auditTrail).values({
    seminarId: actor.seminar.id,
    actorId: actor.enrolment.id,
    at: now,
    act: 'markPointsSet',
    subjectId: markId,
    detail: { from: stored?.overridePoints ?? null, to: write.points, reason: write.reason },
  })
  const { criteriaLeft } = (await storePoints(tx, actor, [enrolmentId], now)).get(enrolmentId)!
  if (!stored) return
  // whole again it is held; without points it goes back to the desk
  const findState = () => {
    if (criteriaLeft > 0) return 'open' as const
    if (stored.state === 'open' && write.points === null) return 'open' as const
    return 'held' as const
  }
  const state = findState()
  await tx
    .update(marks)
    .set({ state, heldAt: state === 'held' ? (stored.heldAt ?? now) : null })
    .where(eq(marks.id, stored.id))
}

/** Excuses a student from an activity, with a reason, or counts it for them again. */
export function setExcused(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  write: ExcusedWrite,
  now: Date,
): Promise<GradeRow> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    await requireStudent(tx, actor, enrolmentId)
    if (write.excused && write.reason === '')
      throw refusedField('reason', 'reason', 'Say why; the reason is kept.')
    const where = and(eq(excuses.activityId, actor.activity.id), eq(excuses.enrolmentId, enrolmentId))
    const { activity } = actor
    if (write.excused)
      await tx
        .insert(excuses)
        .values({
          seminarId: actor.seminar.id,
          activityId: activity.id,
          enrolmentId,
          reason: write.reason,
          madeBy: actor.enrolment.id,
          madeAt: now,
        })
        .onConflictDoUpdate({
          target: [excuses.activityId, excuses.enrolmentId],
          set: { reason: write.reason, madeBy: actor.enrolment.id, madeAt: now },
        })
    else await tx.delete(excuses).where(where)
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: write.excused ? 'studentExcused' : 'excuseEnded',
      subjectId: enrolmentId,
      detail: { activityId: activity.id, reason: write.reason },
    })
    return gradeRow(tx, actor, enrolmentId, now)
  })
}
