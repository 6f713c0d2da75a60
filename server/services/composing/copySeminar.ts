import { and, asc, desc, eq, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { shiftInstant, shiftWeek } from '#core/planning/shiftTerm'
import type { Actor, Seminar } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  categories,
  enrolments,
  gradingScales,
  outcomes,
  rubrics,
  rubricVersions,
  seminars,
  units,
} from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { namesOf } from '#server/services/people'
import type { ActivityBody } from '#shared/planning/composer'
import { copyBody, copyRubric } from './copyBody'
import { loadBody } from './composer'
import { insertActivity } from './insertActivity'
import { atTimes, placed, withNewIds } from './movedBody'

interface CopyTo {
  readonly id: string
  readonly code: string
  readonly title: string
  readonly firstDay: string
  readonly weeks: number
  readonly breaks: ReadonlyArray<{ readonly week: number; readonly title: string }>
}

/**
 * The seminar again for another term: settings, library and every activity as a draft, each date in the same teaching
 * week, on the same weekday, at the same local time. People, groups, contributions and marks stay where they are.
 */
export async function copySeminar(
  db: Database,
  actor: Actor,
  copy: CopyTo,
  now: Date,
): Promise<{ seminarId: string }> {
  const from = actor.seminar
  await db.transaction(async tx => {
    const { id: _id, madeAt: _madeAt, version: _version, state: _state, ...settings } = from
    const [made] = await tx
      .insert(seminars)
      .values({
        ...settings,
        ...copy,
        silentSince: null,
        breaks: [...copy.breaks].sort((a, b) => a.week - b.week),
        madeAt: now,
      })
      .onConflictDoNothing()
      .returning()
    if (!made) {
      const [own] = await tx
        .select({ id: enrolments.id })
        .from(enrolments)
        .where(and(eq(enrolments.seminarId, copy.id), eq(enrolments.personId, actor.person.id)))
      if (!own) throw new Problem(409, 'taken', 'This copy could not be made; please try again.')
      return
    }
    const [enrolment] = await tx
      .insert(enrolments)
      .values({
        seminarId: made.id,
        personId: actor.person.id,
        ...namesOf(actor.enrolment),
        nameIsOwn: actor.enrolment.nameIsOwn,
        role: 'instructor',
        givenToAddress: false,
        joinedAt: now,
      })
      .returning()
    const target: Actor = { person: actor.person, seminar: made, enrolment: enrolment!, studentsEye: false }
    const unitIds = await copyLists(tx, from, made)
    const newest = await tx
      .selectDistinctOn([rubricVersions.rubricId], { id: rubricVersions.id })
      .from(rubricVersions)
      .innerJoin(rubrics, eq(rubrics.id, rubricVersions.rubricId))
      .where(and(eq(rubrics.seminarId, from.id), isNull(rubrics.archivedAt)))
      .orderBy(rubricVersions.rubricId, desc(rubricVersions.version))
    for (const { id } of newest) await copyRubric(tx, id, from.id, made.id)
    for (const row of await tx
      .select()
      .from(activities)
      .where(eq(activities.seminarId, from.id))
      .orderBy(asc(activities.position))) {
      const body = await copyBody(tx, (await loadBody(tx, row)) as ActivityBody, from.id, target)
      const moved = placed(body, breaks => atTimes(body, at => shiftInstant(at, from, made, breaks)))
      const rests = (row.settings.rests ?? []).map(week => shiftWeek(week, from, made))
      await insertActivity(
        tx,
        target,
        crypto.randomUUID(),
        { ...withNewIds(moved), rests, unitId: row.unitId ? (unitIds.get(row.unitId) ?? null) : null },
        row.isTemplate,
        now,
      )
    }
  })
  return { seminarId: copy.id }
}

/** The lists of a seminar again in its copy. @returns the copy's unit for each unit of the original */
async function copyLists(tx: Db, from: Seminar, made: Seminar): Promise<Map<string, string>> {
  const [unitRows, categoryRows, scaleRows, outcomeRows] = await Promise.all([
    tx.select().from(units).where(eq(units.seminarId, from.id)),
    tx.select().from(categories).where(eq(categories.seminarId, from.id)),
    tx.select().from(gradingScales).where(eq(gradingScales.seminarId, from.id)),
    tx.select().from(outcomes).where(eq(outcomes.seminarId, from.id)),
  ])
  const idsOf = (rows: ReadonlyArray<{ readonly id: string }>) => new Map(rows.map(r => [r.id, v7()]))
  const unitIds = idsOf(unitRows)
  const scaleIds = idsOf(scaleRows)
  const inCopy = { seminarId: made.id }
  if (unitRows.length > 0)
    await tx.insert(units).values(
      unitRows.map(unit => ({
        ...unit,
        ...inCopy,
        id: unitIds.get(unit.id)!,
        fromWeek: Math.min(made.weeks, shiftWeek(unit.fromWeek, from, made)),
        toWeek: Math.min(made.weeks, shiftWeek(unit.toWeek, from, made)),
      })),
    )
  if (categoryRows.length > 0)
    await tx.insert(categories).values(categoryRows.map(({ id: _, ...row }) => ({ ...row, ...inCopy })))
  if (scaleRows.length > 0)
    await tx
      .insert(gradingScales)
      .values(scaleRows.map(row => ({ ...row, ...inCopy, id: scaleIds.get(row.id)! })))
  if (outcomeRows.length > 0)
    await tx.insert(outcomes).values(outcomeRows.map(({ id: _, ...row }) => ({ ...row, ...inCopy })))
  const gradingScaleId = scaleIds.get(from.grading.gradingScaleId ?? '')
  if (gradingScaleId)
    await tx
      .update(seminars)
      .set({ grading: { ...from.grading, gradingScaleId } })
      .where(eq(seminars.id, made.id))
  return unitIds
}
