import { and, eq, inArray } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, marks, type ReturnedLetter } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { renderDoc } from '#server/services/contributing/renderDoc'
import { loadRubric } from '#server/services/planning/activityView'
import { once } from '#server/services/receipt'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView } from '#shared/marking/desk'
import { isEmptyLetter, loadMark } from './mark'
import { recordView } from './record'
import { requireCurrent } from './saveMark'

type ActorAt = Actor & { readonly activity: ActivityRow }
type MarkRow = typeof marks.$inferSelect

/** Holds a mark that is whole: it waits, unseen by the student, until it is returned. */
export function holdMark(db: Database, actor: ActorAt, enrolmentId: string, key: string, baseVersion: number, now: Date): Promise<MarkView> {
  return once(db, actor.enrolment, key, async (tx) => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    requireWhole(row, mark)
    await tx.update(marks).set({ state: 'held', heldAt: now, points: mark.points, version: row.version + 1 }).where(eq(marks.id, row.id))
    await writeDown(tx, actor, row.id, 'held a mark', { points: mark.points }, now)
    return { ...mark, state: 'held' as const, version: row.version + 1 }
  })
}

/** Takes a held mark back to the desk: undo of holding. */
export function reopenMark(db: Database, actor: ActorAt, enrolmentId: string, key: string, baseVersion: number, now: Date): Promise<MarkView> {
  return once(db, actor.enrolment, key, async (tx) => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion)
    if (!row || row.state !== 'held') throw new Problem(409, 'notHeld', 'This mark is not held, so there is nothing to take back.')
    await tx.update(marks).set({ state: 'open', heldAt: null, version: row.version + 1 }).where(eq(marks.id, row.id))
    await writeDown(tx, actor, row.id, 'took a held mark back', {}, now)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    return mark
  })
}

/** Returns one mark now: the student gets letter, steps and points as they stand. */
export function returnMark(db: Database, actor: ActorAt, enrolmentId: string, key: string, baseVersion: number, now: Date): Promise<MarkView> {
  return once(db, actor.enrolment, key, async (tx) => {
    const row = await requireCurrent(tx, actor, enrolmentId, baseVersion)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    requireWhole(row, mark)
    await storeReturn(tx, actor, row, mark, now)
    return { ...mark, state: 'returned' as const, version: row.version + 1, returnedAt: now.toISOString() }
  })
}

/** Returns all held marks of the chosen students at once, or none of them. */
export function returnHeld(db: Database, actor: ActorAt, enrolmentIds: readonly string[], key: string, now: Date): Promise<{ returned: number }> {
  return once(db, actor.enrolment, key, async (tx) => {
    const rows = await tx.select().from(marks)
      .where(and(eq(marks.activityId, actor.activity.id), eq(marks.state, 'held'), inArray(marks.enrolmentId, [...enrolmentIds]))).for('update')
    if (rows.length === 0) throw new Problem(409, 'nothingHeld', 'None of these marks is held any more; someone may have returned them already.')
    for (const row of rows) {
      const { mark } = await recordView(tx, actor, row.enrolmentId, now)
      requireWhole(row, mark)
      await storeReturn(tx, actor, row, mark, now)
    }
    return { returned: rows.length }
  })
}

function requireWhole(row: MarkRow | undefined, mark: MarkView): asserts row is MarkRow {
  const left = mark.criteriaLeft
  if (!row || left > 0) {
    throw new Problem(422, 'criteriaLeft', left === 1 ? 'One criterion is still without a step. Set it, then hold or return the mark.' : `${left} criteria are still without a step. Set them, then hold or return the mark.`)
  }
}

async function storeReturn(tx: Db, actor: ActorAt, row: MarkRow, mark: MarkView, now: Date): Promise<void> {
  const rubric = await loadRubric(tx, row.rubricVersionId)
  const current = await loadMark(tx, actor, row.enrolmentId)
  await tx.update(marks).set({
    state: 'returned', returnedAt: now, heldAt: row.heldAt ?? now, points: mark.points, version: row.version + 1,
    returned: letterOf(actor, row, current, mark.points, rubric!),
  }).where(eq(marks.id, row.id))
  await writeDown(tx, actor, row.id, 'returned a mark', { points: mark.points }, now)
}

function letterOf(actor: ActorAt, row: MarkRow, mark: MarkView, points: number, rubric: RubricView): ReturnedLetter {
  return {
    html: isEmptyLetter(row.letter) ? '' : renderDoc(row.letter).html,
    points, max: actor.activity.points ?? 0, by: actor.person.name, rubric: rubric.title,
    criteria: rubric.criteria.map((criterion) => {
      const level = criterion.levels.find(l => l.id === mark.steps.find(s => s.criterionId === criterion.id)?.levelId)!
      return { id: criterion.id, title: criterion.title, points: level.points, max: criterion.max, levelTitle: level.title, descriptor: level.descriptor, levels: criterion.levels.map(l => l.points) }
    }),
    citations: mark.citations.map((c, i) => ({ number: i + 1, ...c })),
  }
}

const writeDown = (tx: Db, actor: ActorAt, subjectId: string, act: string, detail: object, at: Date) =>
  tx.insert(auditTrail).values({ seminarId: actor.seminar.id, actorId: actor.enrolment.id, at, act, subjectId, detail })
