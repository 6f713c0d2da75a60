import { and, eq, inArray, isNotNull, isNull, lte } from 'drizzle-orm'
import { asNamedIn, type ActivityActor } from '#server/access/seminar'
import type { AuditAct } from '#server/database/auditActs'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  enrolments,
  marks,
  persons,
  seminars,
  type ReturnedBefore,
} from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { tell } from '#server/services/messaging/notices'
import { withIdempotency } from '#server/services/idempotency'
import { isRunning, isSpeaking } from '#server/services/people/silence'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { MarkView, RecordView } from '#shared/marking/desk'
import { loadMark, TAKE_BACK_MINUTES } from './mark'
import { recordView } from './record'
import { letterFrom } from './returnedLetter'
import { requireCurrent } from './saveMark'

type MarkRow = typeof marks.$inferSelect

/** Holds a mark that is whole: it waits, unseen by the student, until it is returned. */
export function holdMark(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  key: string,
  baseVersion: number,
  now: Date,
): Promise<MarkView> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion, now)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    requireWhole(row, mark)
    await tx
      .update(marks)
      .set({ state: 'held', heldAt: now, points: mark.points, version: row.version + 1 })
      .where(eq(marks.id, row.id))
    await writeDown(tx, actor, row.id, 'markHeld', { points: mark.points }, now)
    return loadAs(tx, actor, enrolmentId, mark, now)
  })
}

/** Takes a held mark back to the desk: undo of holding. */
export function reopenMark(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  key: string,
  baseVersion: number,
  now: Date,
): Promise<MarkView> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion, now)
    if (!row || row.state !== 'held')
      throw new Problem(409, 'notHeld', 'This mark is not held, so there is nothing to take back.')
    await tx
      .update(marks)
      .set({ state: 'open', heldAt: null, returnAt: null, returnBy: null, version: row.version + 1 })
      .where(eq(marks.id, row.id))
    await writeDown(tx, actor, row.id, 'markReopened', {}, now)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    return mark
  })
}

/** Returns one mark now: the student gets letter, steps and points as they stand. */
export function returnMark(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  key: string,
  baseVersion: number,
  now: Date,
): Promise<MarkView> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion, now)
    const record = await recordView(tx, actor, enrolmentId, now)
    requireWhole(row, record.mark)
    await storeReturn(tx, actor, row, record, now)
    return loadAs(tx, actor, enrolmentId, record.mark, now)
  })
}

/** Returns all held marks of the chosen students at once, or none of them. */
export function returnHeld(
  db: Database,
  actor: ActivityActor,
  enrolmentIds: readonly string[],
  key: string,
  now: Date,
): Promise<{ returned: number }> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const rows = await heldOf(tx, actor, enrolmentIds)
    for (const row of rows) {
      const record = await recordView(tx, actor, row.enrolmentId, now)
      requireWhole(row, record.mark)
      await storeReturn(tx, actor, row, record, now)
    }
    return { returned: rows.length }
  })
}

/** Lets held marks return themselves at a time, or wait to be returned by hand again. */
export function returnAt(
  db: Database,
  actor: ActivityActor,
  enrolmentIds: readonly string[],
  at: Date | null,
  key: string,
  now: Date,
): Promise<{ returned: number }> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    if (at && at <= now)
      throw new Problem(422, 'past', 'That time is over. Choose one that is to come, or return them now.', {
        fields: { at: 'That time is over. Choose one that is to come, or return them now.' },
      })
    const rows = await heldOf(tx, actor, enrolmentIds)
    for (const row of rows) {
      const { mark } = await recordView(tx, actor, row.enrolmentId, now)
      requireWhole(row, mark)
      await tx
        .update(marks)
        .set({ returnAt: at, returnBy: at ? actor.enrolment.id : null, version: row.version + 1 })
        .where(eq(marks.id, row.id))
      await writeDown(
        tx,
        actor,
        row.id,
        at ? 'returnScheduled' : 'returnUnscheduled',
        { at: at?.toISOString() ?? null },
        now,
      )
    }
    return { returned: rows.length }
  })
}

/** Takes back what was returned a moment ago: the student has what they had before, and has not been told yet. */
export function undoReturn(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  key: string,
  baseVersion: number,
  now: Date,
): Promise<MarkView> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion, now)
    if (!row || row.state !== 'returned')
      throw new Problem(409, 'notReturned', 'This mark is not returned, so there is nothing to take back.')
    if (row.returnedAt!.getTime() + TAKE_BACK_MINUTES * 60_000 <= now.getTime() || row.toldAt !== null) {
      throw new Problem(
        409,
        'tooLate',
        `A mark can be taken back for ${TAKE_BACK_MINUTES} minutes after it is returned. Change it instead; the student keeps this letter until the next return.`,
      )
    }
    const { before } = row
    await tx
      .update(marks)
      .set({
        state: 'held',
        version: row.version + 1,
        before: null,
        returned: before?.returned ?? null,
        returnedAt: before ? new Date(before.returnedAt) : null,
        toldAt: before?.toldAt ? new Date(before.toldAt) : null,
      })
      .where(eq(marks.id, row.id))
    await writeDown(tx, actor, row.id, 'returnUndone', {}, now)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    return mark
  })
}

/** Returns what is set to return by now, in the name of whoever set it. One that cannot be returned any more waits for them. */
export async function returnDue(db: Database, now: Date): Promise<number> {
  const isDue = and(
    eq(marks.state, 'held'),
    isNotNull(marks.returnAt),
    lte(marks.returnAt, now),
    isRunning(marks.seminarId),
    mayBeTried('return', marks.id, now),
  )
  const due = await db.select({ id: marks.id, seminarId: marks.seminarId }).from(marks).where(isDue)
  return doEach(db, 'return', due, now, async (tx, { id }) => {
    const [row] = await tx
      .select()
      .from(marks)
      .where(and(eq(marks.id, id), isDue))
      .for('update', { skipLocked: true })
    if (!row) return 0
    const [who] = await tx
      .select({ activity: activities, seminar: seminars, enrolment: enrolments, person: persons })
      .from(activities)
      .innerJoin(seminars, eq(seminars.id, activities.seminarId))
      .innerJoin(enrolments, eq(enrolments.id, row.returnBy!))
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .where(eq(activities.id, row.activityId))
    const person = asNamedIn(who!.person, who!.enrolment)
    const actor: ActivityActor = { ...who!, person, studentsEye: false }
    const record = await recordView(tx, actor, row.enrolmentId, now)
    if (record.mark.criteriaLeft > 0) {
      await tx.update(marks).set({ returnAt: null, returnBy: null }).where(eq(marks.id, id))
      return 0
    }
    await storeReturn(tx, actor, row, record, now)
    return 1
  })
}

/** Tells students of what came back to them, once, when it cannot be taken back any more. */
export async function notifyOfReturn(db: Database, now: Date): Promise<number> {
  const isDue = and(
    isNotNull(marks.returned),
    isNull(marks.toldAt),
    isSpeaking(marks.seminarId),
    lte(marks.returnedAt, new Date(now.getTime() - TAKE_BACK_MINUTES * 60_000)),
    mayBeTried('tellOfReturn', marks.id, now),
  )
  const due = await db.select({ id: marks.id, seminarId: marks.seminarId }).from(marks).where(isDue)
  return doEach(db, 'tellOfReturn', due, now, async (tx, { id }) => {
    const [row] = await tx
      .select({
        enrolmentId: marks.enrolmentId,
        activityId: marks.activityId,
        title: activities.title,
        before: marks.before,
      })
      .from(marks)
      .innerJoin(activities, eq(activities.id, marks.activityId))
      .where(and(eq(marks.id, id), isDue))
      .for('update', { of: marks, skipLocked: true })
    if (!row) return 0
    await tell(
      tx,
      [row.enrolmentId],
      {
        kind: 'changed',
        activityId: row.activityId,
        text: row.before
          ? `A new letter about “${row.title}” has come back to you.`
          : `Your letter about “${row.title}” has come back to you.`,
        detail: '',
      },
      seminarId => `/seminars/${seminarId}/activities/${row.activityId}/letter`,
      now,
    )
    await tx.update(marks).set({ toldAt: now }).where(eq(marks.id, id))
    return 1
  })
}

async function heldOf(tx: Db, actor: ActivityActor, enrolmentIds: readonly string[]): Promise<MarkRow[]> {
  const rows = await tx
    .select()
    .from(marks)
    .where(
      and(
        eq(marks.activityId, actor.activity.id),
        eq(marks.state, 'held'),
        inArray(marks.enrolmentId, [...enrolmentIds]),
      ),
    )
    .orderBy(marks.id)
    .for('update')
  if (rows.length === 0)
    throw new Problem(
      409,
      'nothingHeld',
      'None of these marks is held any more; someone may have returned them already.',
    )
  return rows
}

function requireWhole(row: MarkRow | undefined, mark: MarkView): asserts row is MarkRow {
  const left = mark.criteriaLeft
  if (row && left === 0) return
  if (mark.steps.length === 0 && left <= 1 && mark.before === null)
    throw new Problem(
      422,
      'criteriaLeft',
      'There are no points yet. Mark a contribution or set the points, then hold or return the mark.',
    )
  throw new Problem(
    422,
    'criteriaLeft',
    left === 1
      ? 'One criterion is still without a step. Set it, then hold or return the mark.'
      : `${left} criteria are still without a step. Set them, then hold or return the mark.`,
  )
}

async function storeReturn(
  tx: Db,
  actor: ActivityActor,
  row: MarkRow,
  record: RecordView,
  now: Date,
): Promise<void> {
  const { mark } = record
  const before: ReturnedBefore | null = row.returned
    ? {
        returned: row.returned,
        returnedAt: row.returnedAt!.toISOString(),
        toldAt: row.toldAt?.toISOString() ?? null,
      }
    : null
  await tx
    .update(marks)
    .set({
      state: 'returned',
      returnedAt: now,
      heldAt: row.heldAt ?? now,
      points: mark.points,
      version: row.version + 1,
      returnAt: null,
      returnBy: null,
      toldAt: null,
      before,
      returned: await letterFrom(tx, actor, record),
    })
    .where(eq(marks.id, row.id))
  await writeDown(tx, actor, row.id, 'markReturned', { points: mark.points }, now)
}

/** The mark as it is stored now, with the figures just calculated. */
async function loadAs(
  tx: Db,
  actor: ActivityActor,
  enrolmentId: string,
  { points, before, criteriaLeft }: MarkView,
  now: Date,
): Promise<MarkView> {
  return { ...(await loadMark(tx, actor, enrolmentId, now)), points, before, criteriaLeft }
}

const writeDown = (
  tx: Db,
  actor: ActivityActor,
  subjectId: string,
  act: AuditAct,
  detail: object,
  at: Date,
) =>
  tx
    .insert(auditTrail)
    .values({ seminarId: actor.seminar.id, actorId: actor.enrolment.id, at, act, subjectId, detail })
