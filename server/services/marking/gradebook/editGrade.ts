import { and, eq } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import type { ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { excuses } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { requireStudent } from '#server/services/marking/markedStudents'
import { requireSeesMark } from '#server/services/marking/secondMarks'
import { withIdempotency } from '#server/services/idempotency'
import type { ExcusedWrite, GradeRow, PointsWrite } from '#shared/marking/gradebook'
import { gradeRow } from './gradebook'
import { writePoints } from './writePoints'

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
    await writePoints(tx, actor, [{ enrolmentId, ...write }], now)
    return gradeRow(tx, actor, enrolmentId, now)
  })
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
    await noteActs(tx, actor, now, {
      act: write.excused ? 'studentExcused' : 'excuseEnded',
      subjectId: enrolmentId,
      detail: { activityId: activity.id, reason: write.reason },
    })
    return gradeRow(tx, actor, enrolmentId, now)
  })
}
