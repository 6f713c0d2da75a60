import { and, asc, count, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { weeksOf } from '#core/planning/week'
import type { Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  categories,
  enrolments,
  gradingScales,
  sections,
  seminars,
  units,
} from '#server/database/schema'
import { proposedValues } from '#server/database/proposedValues'
import { Problem, refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import type { SettingsBody, SettingsView } from '#shared/people/settings'

/** Breaks in the order of the term. */
export const sortedBreaks = (breaks: SettingsBody['breaks']) => [...breaks].sort((a, b) => a.week - b.week)

export async function settingsView(db: Db, { seminar }: Actor): Promise<SettingsView> {
  const [unitRows, sectionRows, categoryRows, scaleRows, markedIn] = await Promise.all([
    db.select().from(units).where(eq(units.seminarId, seminar.id)).orderBy(asc(units.position)),
    db
      .select()
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position), asc(sections.title)),
    db
      .select()
      .from(categories)
      .where(eq(categories.seminarId, seminar.id))
      .orderBy(asc(categories.position)),
    db
      .select()
      .from(gradingScales)
      .where(eq(gradingScales.seminarId, seminar.id))
      .orderBy(asc(gradingScales.position)),
    db
      .select({ categoryId: sql<string>`${activities.categoryId}`, activities: count() })
      .from(activities)
      .where(
        and(
          eq(activities.seminarId, seminar.id),
          isNotNull(activities.categoryId),
          isNotNull(activities.points),
          ne(activities.scale, 'none'),
          eq(activities.practice, false),
        ),
      )
      .groupBy(activities.categoryId),
  ])
  return {
    version: seminar.version,
    archived: seminar.state === 'archived',
    markedIn,
    settings: {
      code: seminar.code,
      title: seminar.title,
      college: seminar.college,
      timeZone: seminar.timeZone,
      firstDay: seminar.firstDay,
      weeks: seminar.weeks,
      breaks: seminar.breaks.map(b => ({ ...b })),
      usualDueTime: seminar.usualDueTime,
      usualDueWeekday: seminar.usualDueWeekday,
      pace: { ...seminar.pace },
      studentHoursLimit: seminar.studentHoursLimit,
      markingHoursLimit: seminar.markingHoursLimit,
      presenceGapDays: seminar.presenceGapDays,
      grading: seminar.grading,
      units: unitRows.map(({ id, title, fromWeek, toWeek }) => ({ id, title, fromWeek, toWeek })),
      sections: sectionRows.map(({ id, title }) => ({ id, title })),
      categories: categoryRows.map(({ id, title, weightPercent, dropLowest }) => ({
        id,
        title,
        weightPercent,
        dropLowest,
      })),
      scales: scaleRows.map(({ id, title, bands }) => ({ id, title, bands: bands.map(b => ({ ...b })) })),
    },
  }
}

/**
 * Sets everything about the seminar. Units, sections, categories and scales are matched by id: what is left out goes,
 * unless something still hangs on it, which is then said. Nothing that was written or marked is touched.
 */
export function writeSettings(
  db: Database,
  actor: Actor,
  write: { readonly key: string; readonly baseVersion: number; readonly settings: SettingsBody },
  now: Date,
): Promise<SettingsView> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [current] = await tx.select().from(seminars).where(eq(seminars.id, actor.seminar.id)).for('update')
    if (current!.version !== write.baseVersion) {
      throw new Problem(
        409,
        'changedMeanwhile',
        'Someone else changed these settings meanwhile. Nothing of yours was lost: both are here.',
        { theirs: await settingsView(tx, { ...actor, seminar: current! }) },
      )
    }
    const {
      units: unitList,
      sections: sectionList,
      categories: categoryList,
      scales,
      ...own
    } = write.settings
    requireWithinTerm(write.settings)
    // letters of a scale that is taken away go with it
    const grading = {
      ...own.grading,
      gradingScaleId: scales.some(s => s.id === own.grading.gradingScaleId)
        ? own.grading.gradingScaleId
        : null,
    }
    const [seminar] = await tx
      .update(seminars)
      .set({ ...own, grading, breaks: sortedBreaks(own.breaks), version: current!.version + 1 })
      .where(eq(seminars.id, actor.seminar.id))
      .returning()
    const seminarId = actor.seminar.id
    await replace(
      tx,
      sections,
      seminarId,
      sectionList.map((s, position) => ({ ...s, seminarId, position })),
      async ids =>
        requireUnused(
          tx,
          enrolments,
          enrolments.sectionId,
          ids,
          'sections',
          'People are still in a section you took away. Move them first.',
        ),
    )
    await replace(
      tx,
      units,
      seminarId,
      unitList.map((u, position) => ({ ...u, seminarId, position })),
      async ids =>
        void (await tx.update(activities).set({ unitId: null }).where(inArray(activities.unitId, ids))),
    )
    await replace(
      tx,
      categories,
      seminarId,
      categoryList.map((c, position) => ({ ...c, seminarId, position })),
      async ids =>
        requireUnused(
          tx,
          activities,
          activities.categoryId,
          ids,
          'categories',
          'Activities still count in a category you took away. Put them into another first.',
        ),
    )
    await replace(
      tx,
      gradingScales,
      seminarId,
      scales.map((s, position) => ({ ...s, seminarId, position })),
      async ids =>
        requireUnused(
          tx,
          activities,
          activities.gradingScaleId,
          ids,
          'scales',
          'Activities are still marked on a scale you took away. Choose another for them first.',
        ),
    )
    await tx.insert(auditTrail).values({
      seminarId,
      actorId: actor.enrolment.id,
      at: now,
      act: 'settingsChanged',
      subjectId: seminarId,
      detail: {
        from: {
          title: current!.title,
          firstDay: current!.firstDay,
          weeks: current!.weeks,
          timeZone: current!.timeZone,
        },
      },
    })
    return settingsView(tx, { ...actor, seminar: seminar! })
  })
}

function requireWithinTerm(s: SettingsBody): void {
  const last = weeksOf({ firstDay: s.firstDay, weeks: s.weeks, timeZone: s.timeZone }).length
  const late = s.units.find(u => u.toWeek > last)
  if (late)
    throw refusedField(
      'units',
      'outside',
      `“${late.title}” ends in week ${late.toWeek}, after the term. Shorten it, or make the term longer.`,
    )
}

type Listed = typeof sections | typeof units | typeof categories | typeof gradingScales

/**
 * Makes a seminar's list what it should be in three statements: changes by id, adds, and takes away what is gone once
 * `release` has let go of it.
 */
async function replace<T extends Listed>(
  tx: Db,
  table: T,
  seminarId: string,
  wanted: ReadonlyArray<T['$inferInsert'] & { readonly id?: string }>,
  release: (ids: string[]) => Promise<void>,
): Promise<void> {
  const rows = await tx
    .select({ id: table.id, seminarId: table.seminarId })
    .from(table as typeof sections)
    .where(eq((table as typeof sections).seminarId, seminarId))
  const gone = rows.filter(r => !wanted.some(w => w.id === r.id)).map(r => r.id)
  if (gone.length > 0) {
    await release(gone)
    await tx.delete(table).where(inArray(table.id, gone))
  }
  if (wanted.length === 0) return
  const stored = await tx
    .insert(table as typeof sections)
    .values([...wanted] as never) // rows of this very table: its columns are not known where the table is a parameter
    .onConflictDoUpdate({
      target: table.id,
      set: proposedValues(table),
      setWhere: eq((table as typeof sections).seminarId, seminarId),
    })
    .returning({ id: table.id })
  if (stored.length < wanted.length)
    throw new Problem(
      409,
      'taken',
      'Something in these settings belongs to another seminar. Nothing was stored; load the page again.',
    )
}

async function requireUnused(
  tx: Db,
  table: typeof enrolments | typeof activities,
  column: typeof enrolments.sectionId | typeof activities.categoryId | typeof activities.gradingScaleId,
  ids: string[],
  field: string,
  sentence: string,
): Promise<void> {
  const [user] = await tx
    .select({ id: table.id })
    .from(table as typeof enrolments)
    .where(inArray(column as typeof enrolments.sectionId, ids))
    .limit(1)
  if (user) throw refusedField(field, 'used', sentence)
}

/** Archives a seminar or brings it back. Archived, it is read and nothing is added; nothing is lost. */
export async function setArchived(db: Database, actor: Actor, archived: boolean, now: Date): Promise<void> {
  await db.transaction(async tx => {
    await tx
      .update(seminars)
      .set({ state: archived ? 'archived' : 'active' })
      .where(eq(seminars.id, actor.seminar.id))
    await noteActs(tx, actor, now, {
      act: archived ? 'seminarArchived' : 'seminarRestored',
      subjectId: actor.seminar.id,
    })
  })
}
