import { and, asc, eq } from 'drizzle-orm'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { Lateness } from '#core/marking/lateness'
import { totalMark, type TotalMark } from '#core/marking/totalMark'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { citations, criterionMarks, enrolments, marks, persons } from '#server/database/schema'
import { loadRubric } from '#server/services/planning/activityView'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView } from '#shared/marking/desk'

const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }

/** The points of a mark as the rubric and the late rule make them; nothing is taken from the client. */
export function totalOf(activity: ActivityRow, rubric: RubricView | null, steps: MarkView['steps'], lateness: Lateness | null, waived: boolean): TotalMark {
  if (!rubric || rubric.criteria.length === 0 || !activity.points) return { points: 0, before: 0, notJudged: [] }
  return totalMark(
    rubric.criteria.map((criterion) => {
      const step = steps.find(s => s.criterionId === criterion.id)
      return { criterionId: criterion.id, weight: criterion.weight, max: criterion.max, points: criterion.levels.find(l => l.id === step?.levelId)?.points ?? null }
    }),
    { max: activity.points, step: activity.pointStep },
    { lateness, rule: activity.lateRule, waived },
  )
}

/** The mark as stored, or an empty one at version 0. */
export async function loadMark(db: Db, actor: Actor & { readonly activity: ActivityRow }, enrolmentId: string): Promise<MarkView> {
  const [found] = await db.select({ mark: marks, savedBy: persons.name }).from(marks)
    .innerJoin(enrolments, eq(enrolments.id, marks.markedBy)).innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, enrolmentId)))
  if (!found) return { version: 0, state: 'open', steps: [], citations: [], letter: EMPTY, markerNote: '', lateWaived: false, points: 0, criteriaLeft: 0, savedAt: null, savedBy: null, returnedAt: null }
  const [steps, cited] = await Promise.all([
    db.select({ criterionId: criterionMarks.criterionId, levelId: criterionMarks.levelId }).from(criterionMarks).where(eq(criterionMarks.markId, found.mark.id)),
    db.select({ criterionId: citations.criterionId, contributionId: citations.contributionId, exact: citations.exact, start: citations.start })
      .from(citations).where(eq(citations.markId, found.mark.id)).orderBy(asc(citations.position)),
  ])
  const { mark } = found
  return {
    version: mark.version, state: mark.state, steps, citations: cited, letter: mark.letter, markerNote: mark.markerNote, lateWaived: mark.lateWaived,
    points: mark.points ?? 0, criteriaLeft: 0, savedAt: mark.savedAt.toISOString(), savedBy: found.savedBy, returnedAt: mark.returnedAt?.toISOString() ?? null,
  }
}

/** The rubric a student is marked by: a mark with steps keeps the version it was given under, others take the activity's. */
export async function rubricOfMark(db: Db, activity: ActivityRow, enrolmentId: string): Promise<RubricView | null> {
  const [given] = await db.select({ version: marks.rubricVersionId }).from(marks)
    .innerJoin(criterionMarks, eq(criterionMarks.markId, marks.id))
    .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, enrolmentId))).limit(1)
  return loadRubric(db, given?.version ?? activity.rubricVersionId)
}

export const isEmptyLetter = (letter: RichNode): boolean => plainText(letter).trim() === ''
