import { and, asc, desc, eq, isNull } from 'drizzle-orm'
import { shiftInstant, shiftWeek } from '#core/planning/shiftTerm'
import type { Actor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
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
    const unitRows = await tx
      .select()
      .from(units)
      .where(eq(units.seminarId, from.id))
      .orderBy(asc(units.position))
    const unitIds = new Map<string, string>()
    for (const { id, ...unit } of unitRows) {
      const [row] = await tx
        .insert(units)
        .values({
          ...unit,
          seminarId: made.id,
          fromWeek: Math.min(copy.weeks, shiftWeek(unit.fromWeek, from, made)),
          toWeek: Math.min(copy.weeks, shiftWeek(unit.toWeek, from, made)),
        })
        .returning()
      unitIds.set(id, row!.id)
    }
    for (const { id: _own, ...row } of await tx
      .select()
      .from(categories)
      .where(eq(categories.seminarId, from.id)))
      await tx.insert(categories).values({ ...row, seminarId: made.id })
    for (const { id, ...row } of await tx
      .select()
      .from(gradingScales)
      .where(eq(gradingScales.seminarId, from.id))) {
      const [scale] = await tx
        .insert(gradingScales)
        .values({ ...row, seminarId: made.id })
        .returning()
      if (from.grading.gradingScaleId === id)
        await tx
          .update(seminars)
          .set({ grading: { ...from.grading, gradingScaleId: scale!.id } })
          .where(eq(seminars.id, made.id))
    }
    for (const { id: _own, ...row } of await tx
      .select()
      .from(outcomes)
      .where(eq(outcomes.seminarId, from.id)))
      await tx.insert(outcomes).values({ ...row, seminarId: made.id })
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
