import { and, eq, inArray } from 'drizzle-orm'
import type { ContributionMark } from '#core/marking/combineMarks'
import type { Lateness } from '#core/marking/lateness'
import { latenessOfRecord } from '#core/marking/latenessOfRecord'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { secondMarks } from '#server/database/schema'
import type { Student } from '#server/services/people'
import { loadPlan } from '#server/services/planning'
import { readChecked } from '#server/services/standing'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView, RecordView } from '#shared/marking/desk'
import { markedStudents } from './markedStudents'
import { calculate, emptyMark, givenToEach, loadMarks, rubricsOfMarks } from './mark'

/** A student's mark with all it is calculated from, without what they wrote. */
export interface MarkedRecord {
  readonly student: Student
  readonly rubric: RubricView | null
  readonly given: readonly ContributionMark[] // to single contributions
  readonly lateness: Lateness | null
  readonly late: RecordView['late']
  readonly mark: MarkView // with points, what they were before, and how many criteria are left
}

/**
 * Marks of several students of one activity, calculated as they stand now: as many queries for three hundred as for one.
 * Whoever marks a second time without seeing the first gets an empty mark.
 *
 * @param of.andFormer also of students who have left
 * @throws {Problem} 404 if one of them is not marked in this activity
 */
export async function markedRecords(
  db: Db,
  actor: ActivityActor,
  enrolmentIds: readonly string[],
  now: Date,
  of: { readonly andFormer?: boolean } = {},
): Promise<Map<string, MarkedRecord>> {
  if (enrolmentIds.length === 0) return new Map()
  const { activity } = actor
  const [plan, students, rubrics, stored, given, blind] = await Promise.all([
    loadPlan(db, activity),
    markedStudents(db, actor, enrolmentIds, of),
    rubricsOfMarks(db, activity, enrolmentIds),
    loadMarks(db, activity.id, enrolmentIds, now),
    givenToEach(db, activity.id, enrolmentIds),
    unseenBy(db, actor, enrolmentIds),
  ])
  const standings = (await readChecked(db, [plan], students, now)).get(activity.id)!
  return new Map(
    students.map(student => {
      const id = student.enrolmentId
      const rubric = rubrics.get(id) ?? null
      const isBlind = blind.has(id)
      const mark = isBlind ? emptyMark() : (stored.get(id) ?? emptyMark())
      const own = isBlind ? [] : (given.get(id) ?? [])
      const lateness = latenessOfRecord(plan, activity.lateRule, standings.get(id)!.checks, id)
      const { points, before, left } = calculate(activity, rubric, mark, own, lateness)
      return [
        id,
        {
          ...{ student, rubric, given: own, lateness },
          late:
            lateness && lateness.minutes > 0
              ? { minutes: lateness.minutes, pointsWithout: before ?? 0 }
              : null,
          mark: { ...mark, points: points ?? 0, before, criteriaLeft: left },
        },
      ]
    }),
  )
}

/** One student's mark. */
export async function markedRecord(
  db: Db,
  actor: ActivityActor,
  enrolmentId: string,
  now: Date,
): Promise<MarkedRecord> {
  return (await markedRecords(db, actor, [enrolmentId], now)).get(enrolmentId)!
}

/** Whose first marking the actor must not see, because they are asked for a second. */
async function unseenBy(
  db: Db,
  { activity, enrolment }: ActivityActor,
  enrolmentIds: readonly string[],
): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({ enrolmentId: secondMarks.enrolmentId })
    .from(secondMarks)
    .where(
      and(
        eq(secondMarks.activityId, activity.id),
        inArray(secondMarks.enrolmentId, [...enrolmentIds]),
        eq(secondMarks.markerId, enrolment.id),
        eq(secondMarks.state, 'asked'),
      ),
    )
  return new Set(rows.map(r => r.enrolmentId))
}
