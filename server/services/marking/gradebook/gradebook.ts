import { asc, eq } from 'drizzle-orm'
import { isStaff, nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { gradebookViews, groups, groupPlans, sections } from '#server/database/schema'
import { type Student, countedStudents } from '#server/services/people'
import { type Gradebook, type GradeRow, type OwnGrades } from '#shared/marking/gradebook'
import { gradebookFrame } from './gradebookFrame'
import { gradeRows } from './gradeRows'

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
    joinedAt: enrolment.joinedAt,
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
