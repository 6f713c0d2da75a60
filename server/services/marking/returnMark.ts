import { and, eq, inArray, isNotNull, isNull, lte } from 'drizzle-orm'
import { asNamedIn, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, enrolments, marks, persons, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { happened } from '#server/services/events'
import { withIdempotency } from '#server/services/idempotency'
import { isRunning, isSpeaking } from '#server/services/people'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { MarkView } from '#shared/marking/desk'
import { loadMark, TAKE_BACK_MINUTES } from './mark'
import { markedRecord, markedRecords } from './markedRecords'
import { requireCurrent } from './saveMark'
import { requireWhole, storeReturns, storeReturnTime, writeDown, type MarkRow } from './storeReturns'

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
    const { mark } = await markedRecord(tx, actor, enrolmentId, now)
    requireWhole(row, mark)
    await tx
      .update(marks)
      .set({ state: 'held', heldAt: now, points: mark.points, version: row.version + 1 })
      .where(eq(marks.id, row.id))
    await writeDown(tx, actor, 'markHeld', [{ id: row.id, detail: { points: mark.points } }], now)
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
      throw new Problem(409, 'notHeld', 'This mark is not held, so there is nothing to undo.')
    await tx
      .update(marks)
      .set({ state: 'open', heldAt: null, returnAt: null, returnBy: null, version: row.version + 1 })
      .where(eq(marks.id, row.id))
    await writeDown(tx, actor, 'markReopened', [{ id: row.id, detail: {} }], now)
    return (await markedRecord(tx, actor, enrolmentId, now)).mark
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
    const records = await markedRecords(tx, actor, [enrolmentId], now)
    const { mark } = records.get(enrolmentId)!
    requireWhole(row, mark)
    await storeReturns(tx, actor, [row], records, now)
    return loadAs(tx, actor, enrolmentId, mark, now)
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
    const records = await wholeRecords(tx, actor, rows, now)
    await storeReturns(tx, actor, rows, records, now)
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
    await wholeRecords(tx, actor, rows, now)
    await storeReturnTime(tx, actor, rows, at, now)
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
      throw new Problem(409, 'notReturned', 'This mark is not returned, so there is nothing to undo.')
    if (row.returnedAt!.getTime() + TAKE_BACK_MINUTES * 60_000 <= now.getTime() || row.toldAt !== null) {
      throw new Problem(
        409,
        'tooLate',
        `A return can be undone for ${TAKE_BACK_MINUTES} minutes. Change the mark instead; the student keeps this letter until the next return.`,
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
    await writeDown(tx, actor, 'returnUndone', [{ id: row.id, detail: {} }], now)
    return (await markedRecord(tx, actor, enrolmentId, now)).mark
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
    const records = await markedRecords(tx, actor, [row.enrolmentId], now)
    if (records.get(row.enrolmentId)!.mark.criteriaLeft > 0) {
      await tx.update(marks).set({ returnAt: null, returnBy: null }).where(eq(marks.id, id))
      return 0
    }
    await storeReturns(tx, actor, [row], records, now)
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
    await happened(
      tx,
      {
        kind: 'returned',
        activity: { id: row.activityId, title: row.title },
        enrolmentId: row.enrolmentId,
        isNew: row.before !== null,
      },
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

/** What all of them stand at now; none of them may have something left to judge. */
async function wholeRecords(tx: Db, actor: ActivityActor, rows: readonly MarkRow[], now: Date) {
  const records = await markedRecords(
    tx,
    actor,
    rows.map(r => r.enrolmentId),
    now,
  )
  for (const row of rows) requireWhole(row, records.get(row.enrolmentId)!.mark)
  return records
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
