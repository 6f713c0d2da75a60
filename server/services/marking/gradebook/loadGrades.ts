import { and, eq, inArray, sql } from 'drizzle-orm'
import type { StoredGrade } from '#core/marking/gradebook/gradeCell'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { excuses, groupMembers, marks, secondMarks } from '#server/database/schema'
import type { Student } from '#server/services/people'
import { readStandings } from '#server/services/standing'
import type { GradebookFrame } from './gradebookFrame'

/** The key of a cell: one activity's mark of one student. */
export const cellKey = (activityId: string, enrolmentId: string): string => `${activityId}:${enrolmentId}`

/** What is stored about the marks of some students, by cell; without marks that the actor is asked to give blind. */
export async function loadGrades(
  db: Db,
  actor: Actor,
  frame: GradebookFrame,
  students: readonly Student[],
  now: Date,
) {
  const ids = frame.columns.map(c => c.id)
  const people = students.map(s => s.enrolmentId)
  const none = ids.length === 0
  const [given, excused, standings, memberships, blind] = await Promise.all([
    none
      ? []
      : db
          .select({
            activityId: marks.activityId,
            enrolmentId: marks.enrolmentId,
            state: marks.state,
            points: marks.points,
            // the whole letter would come with every cell
            returned: sql<StoredGrade['returned']>`case when ${marks.returned} is not null then
              jsonb_build_object('points', ${marks.returned} -> 'points', 'max', ${marks.returned} -> 'max') end`,
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
    readStandings(db, frame.plans, students, now),
    db
      .select({ enrolmentId: groupMembers.enrolmentId, groupId: groupMembers.groupId })
      .from(groupMembers)
      .where(inArray(groupMembers.enrolmentId, people)),
    db
      .select({ activityId: secondMarks.activityId, enrolmentId: secondMarks.enrolmentId })
      .from(secondMarks)
      .where(and(eq(secondMarks.markerId, actor.enrolment.id), eq(secondMarks.state, 'asked'))),
  ])
  const unseen = new Set(blind.map(b => cellKey(b.activityId, b.enrolmentId)))
  const groups = new Map<string, string[]>()
  for (const m of memberships) groups.set(m.enrolmentId, [...(groups.get(m.enrolmentId) ?? []), m.groupId])
  return {
    marks: new Map(
      given.map(m => [cellKey(m.activityId, m.enrolmentId), m] as const).filter(([at]) => !unseen.has(at)),
    ),
    excused: new Set(excused.map(e => cellKey(e.activityId, e.enrolmentId))),
    work: new Set(
      [...standings].flatMap(([activityId, byStudent]) =>
        [...byStudent].filter(([, s]) => s.shown > 0).map(([id]) => cellKey(activityId, id)),
      ),
    ),
    groups,
  }
}
