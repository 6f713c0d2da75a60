import { and, eq, inArray } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, secondMarks } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { happened } from '#server/services/events'
import { withIdempotency } from '#server/services/idempotency'
import type { RecordView, SecondWrite } from '#shared/marking/desk'
import { rubricOfMark } from './mark'
import { markedStudents } from './markedStudents'
import { recordView } from './record'
import { secondOf } from './secondOf'
import { requireSteps } from './steps'

/** Asks a marker to mark some students a second time, or nobody after all. What a second marker has done already stays. */
export function askSecond(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentIds: readonly string[]; readonly markerId: string | null },
  now: Date,
): Promise<{ done: boolean }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const { activity, seminar } = actor
    await markedStudents(tx, actor, write.enrolmentIds)
    const standing = await tx
      .select({ enrolmentId: secondMarks.enrolmentId })
      .from(secondMarks)
      .where(
        and(
          eq(secondMarks.activityId, activity.id),
          inArray(secondMarks.enrolmentId, [...write.enrolmentIds]),
          inArray(secondMarks.state, ['done', 'agreed']),
        ),
      )
    if (standing.length > 0)
      throw new Problem(
        409,
        'markedTwice',
        'Some of these have been marked a second time already. Leave them out.',
      )
    await tx
      .delete(secondMarks)
      .where(
        and(
          eq(secondMarks.activityId, activity.id),
          inArray(secondMarks.enrolmentId, [...write.enrolmentIds]),
        ),
      )
    if (write.markerId) {
      const [marker] = await tx
        .select()
        .from(enrolments)
        .where(
          and(
            eq(enrolments.id, write.markerId),
            eq(enrolments.seminarId, seminar.id),
            eq(enrolments.state, 'active'),
          ),
        )
      if (!marker || !isStaff(marker))
        throw refusedField('markerId', 'notAMarker', 'Choose the instructor or an assistant of this seminar.')
      await tx.insert(secondMarks).values(
        write.enrolmentIds.map(enrolmentId => ({
          seminarId: seminar.id,
          activityId: activity.id,
          enrolmentId,
          markerId: marker.id,
          madeAt: now,
        })),
      )
      await happened(
        tx,
        {
          kind: 'secondAsked',
          activity,
          enrolmentId: marker.id,
          by: actor.person.name,
          studentIds: write.enrolmentIds,
        },
        now,
      )
    }
    return { done: true }
  })
}

/** Saves a second marker's steps, or says that they are done: then both see both. */
export function saveSecond(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  write: SecondWrite,
  now: Date,
): Promise<RecordView> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [row] = await tx
      .select()
      .from(secondMarks)
      .where(
        and(
          eq(secondMarks.activityId, actor.activity.id),
          eq(secondMarks.enrolmentId, enrolmentId),
          eq(secondMarks.markerId, actor.enrolment.id),
        ),
      )
      .for('update')
    if (!row) throw nothingHere()
    if (row.state !== 'asked')
      throw new Problem(409, 'secondDone', 'Your second marking is handed over already; it stays as it was.')
    const rubric = await rubricOfMark(tx, actor.activity, enrolmentId)
    if (!rubric) throw refusedField('steps', 'noRubric', 'This activity is not marked by a rubric.')
    const steps = requireSteps(rubric, write.steps)
    if (write.done && steps.length < rubric.criteria.length)
      throw new Problem(
        422,
        'criteriaLeft',
        'Some criteria are still without a step. Set them, then hand it over.',
      )
    await tx
      .update(secondMarks)
      .set({ steps, remark: write.remark, ...(write.done && { state: 'done' as const, doneAt: now }) })
      .where(eq(secondMarks.id, row.id))
    if (write.done)
      await noteActs(tx, actor, now, {
        act: 'markedSecondTime',
        subjectId: row.id,
        detail: { enrolmentId },
      })
    return recordView(tx, actor, enrolmentId, now)
  })
}

/** Notes that the markers have agreed; the agreed steps are saved as the mark's own. */
export function agreeSecond(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  key: string,
  now: Date,
): Promise<RecordView> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const [row] = await tx
      .update(secondMarks)
      .set({ state: 'agreed' })
      .where(
        and(
          eq(secondMarks.activityId, actor.activity.id),
          eq(secondMarks.enrolmentId, enrolmentId),
          eq(secondMarks.state, 'done'),
        ),
      )
      .returning()
    if (!row)
      throw new Problem(409, 'noSecond', 'There is no second marking to agree on, or it is not done yet.')
    await noteActs(tx, actor, now, {
      act: 'secondMarkingAgreed',
      subjectId: row.id,
      detail: { enrolmentId },
    })
    return recordView(tx, actor, enrolmentId, now)
  })
}

/** Refuses the mark itself, its history and its letter to a second marker who is not to see them yet. */
export async function requireSeesMark(db: Db, actor: ActivityActor, enrolmentId: string): Promise<void> {
  const second = await secondOf(db, actor.activity.id, enrolmentId)
  if (second?.markerId === actor.enrolment.id && second.state === 'asked')
    throw new Problem(
      403,
      'secondAsked',
      'You are asked to mark this record without seeing the first marking. Hand your own steps over; then both are shown.',
    )
}

/** Students whose marks the actor is not to see yet, in an activity. */
export async function unseenBy(db: Db, actor: ActivityActor): Promise<Set<string>> {
  const rows = await db
    .select({ id: secondMarks.enrolmentId })
    .from(secondMarks)
    .where(
      and(
        eq(secondMarks.activityId, actor.activity.id),
        eq(secondMarks.markerId, actor.enrolment.id),
        eq(secondMarks.state, 'asked'),
      ),
    )
  return new Set(rows.map(r => r.id))
}
