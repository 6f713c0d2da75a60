import { inArray, sql } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { AuditAct } from '#server/database/auditActs'
import type { Db } from '#server/database/client'
import { auditTrail, marks, type ReturnedBefore } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { MarkView } from '#shared/marking/desk'
import type { MarkedRecord } from './markedRecords'
import { letterFrom, scaleOf } from './returnedLetter'

export type MarkRow = typeof marks.$inferSelect

/** @throws {Problem} 422 unless everything is judged that the mark is made of */
export function requireWhole(row: MarkRow | undefined, mark: MarkView): asserts row is MarkRow {
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

/** Returns marks: each student gets letter, steps and points as they stand. Three statements, however many there are. */
export async function storeReturns(
  tx: Db,
  actor: ActivityActor,
  rows: readonly MarkRow[],
  records: ReadonlyMap<string, MarkedRecord>,
  now: Date,
): Promise<void> {
  const scale = await scaleOf(tx, actor.activity)
  const returned = rows.map(row => {
    const record = records.get(row.enrolmentId)!
    return {
      id: row.id,
      points: record.mark.points,
      before: beforeOf(row),
      returned: letterFrom(actor, record, scale),
    }
  })
  const at = sql`${now.toISOString()}::timestamptz`
  await tx.execute(sql`
    update marks m set state = 'returned', returned_at = ${at}, held_at = coalesce(m.held_at, ${at}), points = v.points,
      version = m.version + 1, return_at = null, return_by = null, told_at = null, before = v.before, returned = v.returned
    from jsonb_to_recordset(${JSON.stringify(returned)}::jsonb)
      as v(id uuid, points integer, before jsonb, returned jsonb)
    where m.id = v.id`)
  await writeDown(
    tx,
    actor,
    'markReturned',
    returned.map(({ id, points }) => ({ id, detail: { points } })),
    now,
  )
}

/** What the student had before, for taking back. */
const beforeOf = (row: MarkRow): ReturnedBefore | null =>
  row.returned
    ? {
        returned: row.returned,
        returnedAt: row.returnedAt!.toISOString(),
        toldAt: row.toldAt?.toISOString() ?? null,
      }
    : null

/** Sets when marks return themselves; null: by hand again. */
export async function storeReturnTime(
  tx: Db,
  actor: ActivityActor,
  rows: readonly MarkRow[],
  at: Date | null,
  now: Date,
): Promise<void> {
  const ids = rows.map(r => r.id)
  await tx
    .update(marks)
    .set({
      returnAt: at,
      returnBy: at ? actor.enrolment.id : null,
      version: sql`${marks.version} + 1`,
    })
    .where(inArray(marks.id, ids))
  const detail = { at: at?.toISOString() ?? null }
  await writeDown(
    tx,
    actor,
    at ? 'returnScheduled' : 'returnUnscheduled',
    ids.map(id => ({ id, detail })),
    now,
  )
}

/** Writes one act into the audit trail, for each mark it was done to. */
export async function writeDown(
  tx: Db,
  actor: ActivityActor,
  act: AuditAct,
  subjects: ReadonlyArray<{ readonly id: string; readonly detail: object }>,
  at: Date,
): Promise<void> {
  await tx.insert(auditTrail).values(
    subjects.map(({ id, detail }) => ({
      ...{ seminarId: actor.seminar.id, actorId: actor.enrolment.id, at, act, subjectId: id, detail },
    })),
  )
}
