import { and, asc, eq, inArray, isNotNull, ne, or } from 'drizzle-orm'
import {
  gradeOf,
  type WeightedCategory,
  type GradeEntry,
  type GradeItem,
} from '#core/marking/gradebook/gradebook'
import { worthOf } from '#core/marking/showMark'
import { isStaff, nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  categories,
  contributions,
  excuses,
  gradebookViews,
  gradingScales,
  groupMembers,
  groups,
  groupPlans,
  marks,
  secondMarks,
  sections,
} from '#server/database/schema'
import { countedStudents, type Student } from '#server/services/contributing/records'
import { closesFor, loadPlans, type ActivityPlan } from '#server/services/planning/activityPlan'
import { takesPartIn } from '#server/services/planning/jointActivities'
import {
  CELL_COUNTS,
  CELL_STATES,
  type Gradebook,
  type GradeColumn,
  type GradeRow,
  type OwnGrades,
} from '#shared/marking/gradebook'

/** Who is to read it: staff see held marks, a student only what was returned to them. */
type Reader = 'staff' | 'student'

/** Everything the gradebook of a seminar is calculated from, in a few queries, however large it is. */
export interface GradebookFrame {
  readonly plans: readonly ActivityPlan[]
  readonly columns: readonly GradeColumn[]
  readonly items: readonly GradeItem[]
  readonly categories: ReadonlyArray<WeightedCategory & { readonly title: string }>
  readonly bands: Gradebook['bands']
}

export async function gradebookFrame(db: Db, { seminar }: Pick<Actor, 'seminar'>): Promise<GradebookFrame> {
  const [rows, own, scales] = await Promise.all([
    db
      .select()
      .from(activities)
      .where(
        and(
          takesPartIn(db, seminar.id),
          eq(activities.state, 'published'),
          eq(activities.isTemplate, false),
          ne(activities.scale, 'none'),
          or(
            isNotNull(activities.points),
            isNotNull(activities.rubricVersionId),
            eq(activities.scale, 'complete'),
          ),
        ),
      )
      .orderBy(asc(activities.position)),
    db
      .select()
      .from(categories)
      .where(eq(categories.seminarId, seminar.id))
      .orderBy(asc(categories.position)),
    db.select().from(gradingScales),
  ])
  const foreign = rows.filter(a => a.seminarId !== seminar.id && a.categoryId)
  const titles =
    foreign.length > 0
      ? new Map(
          (
            await db
              .select()
              .from(categories)
              .where(
                inArray(
                  categories.id,
                  foreign.map(a => a.categoryId!),
                ),
              )
          ).map(c => [c.id, c.title.toLocaleLowerCase()]),
        )
      : new Map<string, string>()
  const plans = await loadPlans(db, rows)
  const bandsOf = (id: string | null) => scales.find(s => s.id === id)?.bands.map(b => ({ ...b })) ?? null
  // an activity held with another seminar counts here in the category of the same name
  const categoryOf = (a: ActivityRow) =>
    a.seminarId === seminar.id
      ? a.categoryId
      : (own.find(c => c.title.toLocaleLowerCase() === titles.get(a.categoryId ?? ''))?.id ?? null)
  const columns = plans.map(({ activity: a, closesAt }): GradeColumn => ({
    id: a.id,
    title: a.title,
    kind: a.kind,
    categoryId: categoryOf(a),
    max: worthOf(a),
    step: a.pointStep,
    scale: a.scale,
    bands: bandsOf(a.gradingScaleId),
    practice: a.practice,
    passPercent: a.passPercent,
    closesAt: closesAt.toISOString(),
    byHand: a.rubricVersionId === null && a.combine === null,
  }))
  return {
    plans,
    columns,
    items: columns.map(c => ({ id: c.id, categoryId: c.categoryId, max: c.max, practice: c.practice })),
    categories: own.map(c => ({ id: c.id, title: c.title, weight: c.weightPercent, drop: c.dropLowest })),
    bands: bandsOf(seminar.grading.gradingScaleId),
  }
}

/** Rows of the given students, calculated by the core from stored marks. */
export async function gradeRows(
  db: Db,
  actor: Actor,
  frame: GradebookFrame,
  students: readonly Student[],
  reader: Reader,
  now: Date,
): Promise<GradeRow[]> {
  const { plans, columns, items, categories: cats } = frame
  const ids = columns.map(c => c.id)
  const people = students.map(s => s.enrolmentId)
  if (people.length === 0) return []
  const none = ids.length === 0
  const [given, excused, written, memberships, blind] = await Promise.all([
    none
      ? []
      : db
          .select({
            activityId: marks.activityId,
            enrolmentId: marks.enrolmentId,
            state: marks.state,
            points: marks.points,
            returned: marks.returned,
            override: marks.overridePoints,
          })
          .from(marks)
          .where(and(inArray(marks.activityId, ids), inArray(marks.enrolmentId, people))),
    none
      ? []
      : db
          .select({ activityId: excuses.activityId, enrolmentId: excuses.enrolmentId })
          .from(excuses)
          .where(and(inArray(excuses.activityId, ids), inArray(excuses.enrolmentId, people))),
    none
      ? []
      : db
          .selectDistinct({ activityId: contributions.activityId, enrolmentId: contributions.authorId })
          .from(contributions)
          .where(
            and(
              inArray(contributions.activityId, ids),
              inArray(contributions.authorId, people),
              eq(contributions.state, 'shown'),
            ),
          ),
    db
      .select({ enrolmentId: groupMembers.enrolmentId, groupId: groupMembers.groupId })
      .from(groupMembers)
      .where(inArray(groupMembers.enrolmentId, people)),
    db
      .select({ activityId: secondMarks.activityId, enrolmentId: secondMarks.enrolmentId })
      .from(secondMarks)
      .where(and(eq(secondMarks.markerId, actor.enrolment.id), eq(secondMarks.state, 'asked'))),
  ])
  const key = (activityId: string, enrolmentId: string) => `${activityId}:${enrolmentId}`
  const markOf = new Map(given.map(m => [key(m.activityId, m.enrolmentId), m]))
  const excusedIn = new Set(excused.map(e => key(e.activityId, e.enrolmentId)))
  const has = new Set(written.map(w => key(w.activityId, w.enrolmentId)))
  const unseen = new Set(blind.map(b => key(b.activityId, b.enrolmentId)))
  const inGroups = new Map<string, string[]>()
  for (const m of memberships)
    inGroups.set(m.enrolmentId, [...(inGroups.get(m.enrolmentId) ?? []), m.groupId])
  const policy = actor.seminar.grading
  return students.map(s => {
    const entries = new Map<string, GradeEntry>()
    const meantItems: GradeItem[] = []
    const points: Array<number | null> = []
    let [states, closed, set] = ['', '', '']
    for (const [i, plan] of plans.entries()) {
      const column = columns[i]!
      const at = key(column.id, s.enrolmentId)
      const stored = unseen.has(at) ? undefined : markOf.get(at)
      const meant = plan.isMeant(s)
      const isClosed = now > closesFor(plan, s.enrolmentId)
      // what was returned stands as it was, in proportion where the activity is worth something else by now
      const back = stored?.returned
        ? Math.min(
            column.max,
            stored.returned.max === column.max || stored.returned.max === 0
              ? stored.returned.points
              : Math.round((stored.returned.points * column.max) / stored.returned.max),
          )
        : null
      const findShown = () => {
        if (reader === 'student' || !stored) return back
        if (stored.state === 'returned') return back
        if (stored.points !== null) return Math.min(column.max, stored.points)
        return null
      }
      const shown = findShown()
      const counting = reader === 'staff' && policy.countHeld && stored?.state === 'held' ? shown : back
      const findState = () => {
        if (!meant) return 'notMeant'
        if (reader === 'student') {
          if (back !== null) return 'returned'
          if (has.has(at)) return 'work'
          return 'nothing'
        }
        if (stored?.state === 'returned') return 'returned'
        if (stored?.state === 'held') return 'held'
        if (shown !== null) return 'open'
        if (has.has(at)) return 'work'
        return 'nothing'
      }
      const state = findState()
      if (meant) {
        meantItems.push(items[i]!)
        entries.set(column.id, {
          points: counting,
          excused: excusedIn.has(at),
          closed: isClosed,
          any:
            has.has(at) ||
            plan.expectations.length === 0 ||
            (stored !== undefined && stored.state !== 'open'),
        })
      }
      points.push(meant ? shown : null)
      states += CELL_STATES[state]
      closed += isClosed ? '1' : '0'
      const figureFlag = () => {
        if (stored?.override !== null && stored?.override !== undefined && reader === 'staff') return '1'
        if (plan.extensions.has(s.enrolmentId)) return 'e'
        return '0'
      }
      set += figureFlag()
    }
    const grade = gradeOf(meantItems, entries, cats, policy)
    const counted = new Map(
      [...grade.categories.flatMap(c => c.parts), ...grade.outside].map(p => [p.itemId, p.counted]),
    )
    return {
      enrolmentId: s.enrolmentId,
      name: s.name,
      givenName: s.givenName,
      familyName: s.familyName,
      sectionId: s.sectionId,
      groupIds: inGroups.get(s.enrolmentId) ?? [],
      withdrawn: false,
      points,
      states,
      closed,
      set,
      counts: columns.map(c => CELL_COUNTS[counted.get(c.id) ?? 'notMeant']).join(''),
      shares: grade.categories.map(c => c.share),
      share: grade.share,
    }
  })
}

/** The whole gradebook, for staff. */
export async function gradebook(db: Db, actor: Actor, now: Date): Promise<Gradebook> {
  const { seminar, enrolment } = actor
  const [frame, students, sectionRows, groupRows, [view]] = await Promise.all([
    gradebookFrame(db, actor),
    countedStudents(db, seminar.id),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position)),
    db
      .select({ id: groups.id, title: groups.title, plan: groupPlans.title })
      .from(groups)
      .innerJoin(groupPlans, eq(groupPlans.id, groups.groupPlanId))
      .where(eq(groups.seminarId, seminar.id))
      .orderBy(asc(groupPlans.position), asc(groups.position)),
    db.select().from(gradebookViews).where(eq(gradebookViews.enrolmentId, enrolment.id)),
  ])
  return {
    columns: [...frame.columns],
    categories: [...frame.categories],
    grading: seminar.grading,
    bands: frame.bands,
    rows: await gradeRows(db, actor, frame, students, 'staff', now),
    sections: sectionRows,
    groups: groupRows,
    order: [...(view?.order ?? [])],
    hidden: [...(view?.hidden ?? [])],
    mayEdit: seminar.state !== 'archived',
  }
}

/** One row anew, after something in it was changed. */
export async function gradeRow(db: Db, actor: Actor, enrolmentId: string, now: Date): Promise<GradeRow> {
  const student = (await countedStudents(db, actor.seminar.id)).find(s => s.enrolmentId === enrolmentId)
  if (!student) throw nothingHere()
  const [row] = await gradeRows(db, actor, await gradebookFrame(db, actor), [student], 'staff', now)
  return row!
}

/** A student's own gradebook: nothing in it comes from a mark that has not been returned. */
export async function ownGrades(db: Db, actor: Actor, now: Date): Promise<OwnGrades> {
  const { enrolment, person, seminar } = actor
  if (enrolment.role !== 'student' || isStaff(enrolment)) throw nothingHere()
  const frame = await gradebookFrame(db, actor)
  const student: Student = {
    enrolmentId: enrolment.id,
    seminarId: enrolment.seminarId,
    sectionId: enrolment.sectionId,
    name: person.name,
    givenName: person.givenName,
    familyName: person.familyName,
  }
  const [row] = await gradeRows(db, actor, frame, [student], 'student', now)
  const show = seminar.grading.showTotal
  return {
    columns: [...frame.columns],
    categories: [...frame.categories],
    grading: { ...seminar.grading, countHeld: false },
    bands: show ? frame.bands : null,
    row: { ...row!, share: show ? row!.share : null },
  }
}

export async function layOutGradebook(
  db: Db,
  { enrolment, seminar }: Actor,
  layout: { readonly order: readonly string[]; readonly hidden: readonly string[] },
): Promise<{ done: boolean }> {
  await db
    .insert(gradebookViews)
    .values({ enrolmentId: enrolment.id, seminarId: seminar.id, ...layout })
    .onConflictDoUpdate({ target: gradebookViews.enrolmentId, set: layout })
  return { done: true }
}
