import { and, eq, inArray } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { TEST_NOW } from './server'
import type { World } from './world'

export const isStudentOf = (seminarId: string) =>
  and(
    eq(t.enrolments.seminarId, seminarId),
    eq(t.enrolments.state, 'active'),
    eq(t.enrolments.role, 'student'),
  )

/** Holds a whole mark for everybody in the talk about the breakwater. */
export async function holdAll({ db, seminar, breakwater }: World): Promise<string[]> {
  const students = await db.select({ id: t.enrolments.id }).from(t.enrolments).where(isStudentOf(seminar.id))
  const [marker] = await db.select().from(t.enrolments).where(eq(t.enrolments.role, 'instructor'))
  const given = {
    ...{ rubricVersionId: breakwater.rubricVersionId, state: 'held' as const, heldAt: new Date(TEST_NOW) },
    ...{ letter: { type: 'doc', content: [] }, letterText: '', savedAt: new Date(TEST_NOW) },
  }
  const marks = await db
    .insert(t.marks)
    .values(
      students.map(s => ({
        ...{ seminarId: seminar.id, activityId: breakwater.id, enrolmentId: s.id, markedBy: marker!.id },
        ...given,
      })),
    )
    .onConflictDoUpdate({ target: [t.marks.activityId, t.marks.enrolmentId], set: given })
    .returning({ id: t.marks.id })
  const criteria = await db
    .select()
    .from(t.rubricCriteria)
    .where(eq(t.rubricCriteria.rubricVersionId, breakwater.rubricVersionId!))
  const levels = await db
    .select()
    .from(t.rubricLevels)
    .where(
      inArray(
        t.rubricLevels.criterionId,
        criteria.map(c => c.id),
      ),
    )
  await db.delete(t.criterionMarks).where(
    inArray(
      t.criterionMarks.markId,
      marks.map(m => m.id),
    ),
  )
  const top = criteria.map(c => ({
    criterionId: c.id,
    level: levels.find(l => l.criterionId === c.id && l.points === c.max)!,
  }))
  const steps = marks.flatMap(m =>
    top.map(({ criterionId, level }) => ({
      ...{ seminarId: seminar.id, markId: m.id, criterionId, levelId: level.id, points: level.points },
    })),
  )
  for (let i = 0; i < steps.length; i += 500)
    await db.insert(t.criterionMarks).values(steps.slice(i, i + 500))
  return students.map(s => s.id)
}
