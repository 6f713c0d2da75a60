import { and, eq } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, citations, criterionMarks, marks } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { loadRubric } from '#server/services/planning/activityView'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricView } from '#shared/contributing/activity'
import type { MoveView, Step } from '#shared/marking/desk'
import { givenTo, calculate, underOlderVersion } from './mark'
import { latenessFor, recordView, requireStudent } from './record'
import { storePoints } from './saveMark'

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
  for (const enrolmentId of await underOlderVersion(db, actor.activity)) {
    const record = await recordView(db, actor, enrolmentId, now)
    const steps = stepsIn(to, record.rubric!, record.mark.steps)
    const lateness = await latenessFor(db, actor, await requireStudent(db, actor, enrolmentId), now)
    const after = calculate(
      actor.activity,
      to,
      { ...record.mark, steps, excusedFrom: excusesIn(to, record.rubric!, record.mark.excusedFrom) },
      await givenTo(db, actor.activity.id, enrolmentId),
      lateness,
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

const excusesIn = (
  to: RubricView,
  from: RubricView,
  excuses: ReadonlyArray<{ criterionId: string; reason: string }>,
) =>
  excuses.flatMap(e => {
    const next = counterpart(to, from.criteria.find(c => c.id === e.criterionId)?.title ?? '')
    return next?.scope === 'group' ? [{ ...e, criterionId: next.id }] : []
  })

/** Moves marks to the rubric's present version. One with something left to judge goes back to the desk; one that was returned is held until its next return. */
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
    for (const enrolmentId of ids) {
      const [row] = await tx
        .select()
        .from(marks)
        .where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, enrolmentId)))
        .for('update')
      const { rubric, mark } = await recordView(tx, actor, enrolmentId, now)
      const steps = stepsIn(to, rubric!, mark.steps)
      const excusedFrom = excusesIn(to, rubric!, mark.excusedFrom)
      await tx.delete(criterionMarks).where(eq(criterionMarks.markId, row!.id))
      if (steps.length > 0)
        await tx
          .insert(criterionMarks)
          .values(steps.map(s => ({ seminarId: actor.seminar.id, markId: row!.id, ...s })))
      const cited = mark.citations.flatMap(c => {
        const next = counterpart(to, rubric!.criteria.find(x => x.id === c.criterionId)?.title ?? '')
        return next ? [{ ...c, criterionId: next.id }] : []
      })
      await tx.delete(citations).where(eq(citations.markId, row!.id))
      if (cited.length > 0)
        await tx
          .insert(citations)
          .values(
            cited.map((c, position) => ({ seminarId: actor.seminar.id, markId: row!.id, ...c, position })),
          )
      const whole = to.criteria.every(
        c => steps.some(s => s.criterionId === c.id) || excusedFrom.some(e => e.criterionId === c.id),
      )
      const stateNow = () => {
        if (!whole) return 'open'
        if (row!.state === 'returned') return 'held'
        return row!.state
      }
      await tx
        .update(marks)
        .set({
          rubricVersionId: to.versionId,
          excusedFrom,
          version: row!.version + 1,
          state: stateNow(),
          ...(!whole && { returnAt: null, returnBy: null }),
        })
        .where(eq(marks.id, row!.id))
      await tx.insert(auditTrail).values({
        seminarId: actor.seminar.id,
        actorId: actor.enrolment.id,
        at: now,
        act: 'markMovedToVersion',
        subjectId: row!.id,
        detail: { version: to.version },
      })
      await storePoints(tx, actor, enrolmentId, now)
    }
    return { returned: ids.length }
  })
}
