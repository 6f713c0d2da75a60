import { and, eq, inArray, sql } from 'drizzle-orm'
import { levelAt } from '#core/marking/peers/fromReviews'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { citations, criterionMarks, marks } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { loadRubric } from '#server/services/rubrics'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricView } from '#shared/contributing/activity'
import type { MoveView, Step } from '#shared/marking/desk'
import { calculate, underOlderVersion } from './mark'
import { markedRecords, type MarkedRecord } from './markedRecords'
import { storePoints } from './storePoints'
import { writeDown, type MarkRow } from './storeReturns'

const folded = (text: string) => text.trim().toLocaleLowerCase()

/** A criterion's counterpart in another version: the one of the same title. */
const counterpart = (rubric: RubricView, title: string) =>
  rubric.criteria.find(c => folded(c.title) === folded(title))

/**
 * The steps of a mark in another version of its rubric: same criterion and level by title, else the level with the same
 * points. What has no counterpart is left to be judged again, never guessed.
 */
export function stepsIn(to: RubricView, from: RubricView, steps: readonly Step[]): Step[] {
  return steps.flatMap(step => {
    const old = from.criteria.find(c => c.id === step.criterionId)
    const level = old?.levels.find(l => l.id === step.levelId)
    const criterion = old && counterpart(to, old.title)
    const next =
      (level && criterion?.levels.find(l => folded(l.title) === folded(level.title))) ||
      (level && criterion?.levels.find(l => l.points === level.points))
    if (!criterion || !next) return []
    const [least, most] = [next.pointsFrom ?? next.points, next.points]
    return [
      {
        criterionId: criterion.id,
        levelId: next.id,
        points: Math.min(
          most,
          Math.max(
            least,
            level!.points === level!.pointsFrom || level!.pointsFrom === null ? most : step.points,
          ),
        ),
      },
    ]
  })
}

/** What moving the marks given under older versions to the one the activity is marked by now would do. Nothing is stored. */
export async function moveView(db: Db, actor: ActivityActor, now: Date): Promise<MoveView> {
  const to = await loadRubric(db, actor.activity.rubricVersionId)
  if (!to) throw new Problem(409, 'noRubric', 'This activity is not marked by a rubric.')
  const view: MoveView = { title: to.title, to: to.version, marks: [] }
  const older = await underOlderVersion(db, actor.activity)
  for (const [enrolmentId, record] of await markedRecords(db, actor, older, now)) {
    const steps = stepsIn(to, record.rubric!, record.mark.steps)
    const after = calculate(
      actor.activity,
      to,
      { ...record.mark, steps, excusedFrom: excusesIn(to, record.rubric!, record.mark.excusedFrom) },
      record.given,
      record.lateness,
    )
    view.marks.push({
      enrolmentId,
      name: record.student.name,
      from: record.rubric!.version,
      version: record.mark.version,
      state: record.mark.state,
      pointsBefore: record.mark.criteriaLeft === 0 ? record.mark.points : null,
      pointsAfter: after.left === 0 ? after.points : null,
      left: to.criteria.filter(c => !steps.some(s => s.criterionId === c.id)).map(c => c.title),
    })
  }
  view.marks.sort((a, b) => a.name.localeCompare(b.name))
  return view
}

/** The marker's own points beside readers', which may lie between levels, in another version of the rubric. */
export function ownStepsIn(to: RubricView, from: RubricView, steps: readonly Step[]): Step[] {
  return steps.flatMap(step => {
    const criterion = counterpart(to, from.criteria.find(c => c.id === step.criterionId)?.title ?? '')
    if (!criterion) return []
    const points = Math.min(step.points, criterion.max)
    return [{ criterionId: criterion.id, levelId: levelAt(criterion.levels, points).id, points }]
  })
}

const excusesIn = (
  to: RubricView,
  from: RubricView,
  excuses: ReadonlyArray<{ criterionId: string; reason: string }>,
) =>
  excuses.flatMap(e => {
    const next = counterpart(to, from.criteria.find(c => c.id === e.criterionId)?.title ?? '')
    return next?.scope === 'group' ? [{ ...e, criterionId: next.id }] : []
  })

/**
 * Moves marks to the rubric's present version. One with something left to judge goes back to the desk; one
 * that was returned is held until its next return.
 */
export function moveMarks(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentIds: readonly string[] },
  now: Date,
): Promise<{ returned: number }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const to = await loadRubric(tx, actor.activity.rubricVersionId)
    if (!to) throw new Problem(409, 'noRubric', 'This activity is not marked by a rubric.')
    const older = new Set(await underOlderVersion(tx, actor.activity))
    const ids = write.enrolmentIds.filter(id => older.has(id))
    if (ids.length === 0) return { returned: 0 }
    const rows = await tx
      .select()
      .from(marks)
      .where(and(eq(marks.activityId, actor.activity.id), inArray(marks.enrolmentId, ids)))
      .orderBy(marks.id)
      .for('update')
    const records = await markedRecords(
      tx,
      actor,
      rows.map(r => r.enrolmentId),
      now,
    )
    const moved = rows.map(row => movedTo(to, row, records.get(row.enrolmentId)!))
    await storeMoved(tx, actor, to, moved, now)
    await storePoints(
      tx,
      actor,
      rows.map(r => r.enrolmentId),
      now,
    )
    return { returned: rows.length }
  })
}

/** A mark in the terms of another version of its rubric. */
function movedTo(to: RubricView, row: MarkRow, { rubric, mark }: MarkedRecord) {
  const steps = stepsIn(to, rubric!, mark.steps)
  const excusedFrom = excusesIn(to, rubric!, mark.excusedFrom)
  const cited = mark.citations.flatMap(c => {
    const next = counterpart(to, rubric!.criteria.find(x => x.id === c.criterionId)?.title ?? '')
    return next ? [{ ...c, criterionId: next.id }] : []
  })
  const whole = to.criteria.every(
    c => steps.some(s => s.criterionId === c.id) || excusedFrom.some(e => e.criterionId === c.id),
  )
  const stateNow = () => {
    if (!whole) return 'open'
    return row.state === 'returned' ? 'held' : row.state
  }
  const own = ownStepsIn(to, rubric!, mark.ownSteps)
  return { id: row.id, steps, own, excusedFrom, cited, whole, state: stateNow() }
}

async function storeMoved(
  tx: Db,
  actor: ActivityActor,
  to: RubricView,
  moved: ReadonlyArray<ReturnType<typeof movedTo>>,
  now: Date,
): Promise<void> {
  const ids = moved.map(m => m.id)
  const seminarId = actor.seminar.id
  await tx.delete(criterionMarks).where(inArray(criterionMarks.markId, ids))
  await tx.delete(citations).where(inArray(citations.markId, ids))
  const steps = moved.flatMap(m => m.steps.map(s => ({ seminarId, markId: m.id, ...s })))
  if (steps.length > 0) await tx.insert(criterionMarks).values(steps)
  const cited = moved.flatMap(m =>
    m.cited.map((c, position) => ({ seminarId, markId: m.id, ...c, position })),
  )
  if (cited.length > 0) await tx.insert(citations).values(cited)
  const values = moved.map(m => ({
    id: m.id,
    state: m.state,
    excused_from: m.excusedFrom,
    own_steps: m.own,
    whole: m.whole,
  }))
  await tx.execute(sql`
    update marks m set rubric_version_id = ${to.versionId}, excused_from = v.excused_from, version = m.version + 1,
      state = v.state, own_steps = v.own_steps, before_take = null,
      return_at = case when v.whole then m.return_at end, return_by = case when v.whole then m.return_by end
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb)
      as v(id uuid, state text, excused_from jsonb, own_steps jsonb, whole boolean)
    where m.id = v.id`)
  const detail = { version: to.version }
  await writeDown(
    tx,
    actor,
    'markMovedToVersion',
    ids.map(id => ({ id, detail })),
    now,
  )
}
