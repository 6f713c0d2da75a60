import { and, asc, eq } from 'drizzle-orm'
import { reviewOf } from '#core/contributing/review/reviewSettings'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { ContributionMark } from '#core/marking/combineMarks'
import type { Lateness } from '#core/marking/lateness'
import { calculateMark, type CalculatedMark } from '#core/marking/calculateMark'
import { worthOf } from '#core/marking/showMark'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  citations,
  contributionMarks,
  contributions,
  criterionMarks,
  enrolments,
  files,
  markFiles,
  marks,
} from '#server/database/schema'
import { loadRubric } from '#server/services/planning/activityView'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView } from '#shared/marking/desk'

const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
export const TAKE_BACK_MINUTES = 10

/** What points are calculated from, besides the rubric and the contributions' own marks. */
export type CalculatedFrom = Pick<MarkView, 'steps' | 'excusedFrom' | 'override' | 'lateWaived'> &
  Partial<Pick<MarkView, 'factor' | 'reviewing'>>

/** The points of a mark as its stored parts make them; nothing is taken from the client. */
export function calculate(
  activity: ActivityRow,
  rubric: RubricView | null,
  mark: CalculatedFrom,
  given: readonly ContributionMark[],
  lateness: Lateness | null,
): CalculatedMark {
  const max = worthOf(activity)
  if (max <= 0) return { points: 0, before: 0, left: 0 }
  const excused = new Set(mark.excusedFrom.map(e => e.criterionId))
  return calculateMark(
    {
      criteria:
        rubric?.criteria
          .filter(c => !excused.has(c.id))
          .map(c => ({
            criterionId: c.id,
            weight: c.weight,
            max: c.max,
            scope: c.scope,
            points: mark.steps.find(s => s.criterionId === c.id)?.points ?? null,
          })) ?? null,
      combine: activity.combine ? { rule: activity.combine, marks: given } : null,
      late: { lateness, rule: activity.lateRule, waived: mark.lateWaived },
      override: mark.override?.points ?? null,
      factor: mark.factor == null ? null : mark.factor / 100,
      reviewing:
        mark.reviewing == null
          ? null
          : { share: mark.reviewing / 10_000, percent: reviewOf(activity.settings).reviewingPercent },
    },
    { max, step: activity.pointStep },
  )
}

/** Marks of a student's single contributions that are shown. */
export async function givenTo(db: Db, activityId: string, enrolmentId: string): Promise<ContributionMark[]> {
  const rows = await db
    .select({
      id: contributions.id,
      at: contributions.shownAt,
      points: contributionMarks.points,
      done: contributionMarks.done,
    })
    .from(contributionMarks)
    .innerJoin(contributions, eq(contributions.id, contributionMarks.contributionId))
    .where(
      and(
        eq(contributions.activityId, activityId),
        eq(contributions.authorId, enrolmentId),
        eq(contributions.state, 'shown'),
      ),
    )
  return rows.map(r => ({ ...r, at: r.at! }))
}

/** The mark as stored, or an empty one at version 0; points and what is left are the record's to calculate. */
export async function loadMark(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  enrolmentId: string,
  now: Date,
): Promise<MarkView> {
  const [found] = await db
    .select({ mark: marks, savedBy: enrolments.name })
    .from(marks)
    .innerJoin(enrolments, eq(enrolments.id, marks.markedBy))
    .where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, enrolmentId)))
  if (!found) return emptyMark()
  const { mark } = found
  const [steps, cited, withIt] = await Promise.all([
    db
      .select({
        criterionId: criterionMarks.criterionId,
        levelId: criterionMarks.levelId,
        points: criterionMarks.points,
      })
      .from(criterionMarks)
      .where(eq(criterionMarks.markId, mark.id)),
    db
      .select({
        criterionId: citations.criterionId,
        contributionId: citations.contributionId,
        exact: citations.exact,
        start: citations.start,
      })
      .from(citations)
      .where(eq(citations.markId, mark.id))
      .orderBy(asc(citations.position)),
    letterFiles(db, mark.id),
  ])
  const until = mark.returnedAt ? new Date(mark.returnedAt.getTime() + TAKE_BACK_MINUTES * 60_000) : null
  return {
    version: mark.version,
    state: mark.state,
    steps,
    citations: cited,
    letter: mark.letter,
    markerNote: mark.markerNote,
    lateWaived: mark.lateWaived,
    excusedFrom: [...mark.excusedFrom],
    override:
      mark.overridePoints === null
        ? null
        : { points: mark.overridePoints, reason: mark.overrideReason ?? '' },
    files: withIt,
    factor: mark.factor,
    reviewing: mark.reviewing,
    takenFrom: mark.takenFrom,
    points: mark.points ?? 0,
    before: null,
    criteriaLeft: 0,
    savedAt: mark.savedAt.toISOString(),
    savedBy: found.savedBy,
    returnedAt: mark.returnedAt?.toISOString() ?? null,
    returnAt: mark.returnAt?.toISOString() ?? null,
    takeBackUntil: mark.state === 'returned' && until && until > now ? until.toISOString() : null,
  }
}

export const emptyMark = (): MarkView => ({
  version: 0,
  state: 'open',
  steps: [],
  citations: [],
  letter: EMPTY,
  markerNote: '',
  lateWaived: false,
  excusedFrom: [],
  override: null,
  files: [],
  factor: null,
  reviewing: null,
  takenFrom: null,
  points: 0,
  before: null,
  criteriaLeft: 0,
  savedAt: null,
  savedBy: null,
  returnedAt: null,
  returnAt: null,
  takeBackUntil: null,
})

/** Files that go with a letter, in their order. */
export async function letterFiles(db: Db, markId: string): Promise<MarkView['files']> {
  const rows = await db
    .select({ id: files.id, name: files.name, type: files.type, size: files.size, spoken: markFiles.spoken })
    .from(markFiles)
    .innerJoin(files, eq(files.id, markFiles.fileId))
    .where(and(eq(markFiles.markId, markId), eq(markFiles.takenOff, false)))
    .orderBy(asc(markFiles.position))
  return rows.map(r => ({ ...r, url: `/api/files/${r.id}` }))
}

/** The rubric a student is marked by: a mark with steps keeps the version it was given under, others take the activity's. */
export async function rubricOfMark(
  db: Db,
  activity: ActivityRow,
  enrolmentId: string,
): Promise<RubricView | null> {
  const [given] = await db
    .select({ version: marks.rubricVersionId })
    .from(marks)
    .innerJoin(criterionMarks, eq(criterionMarks.markId, marks.id))
    .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, enrolmentId)))
    .limit(1)
  return loadRubric(db, given?.version ?? activity.rubricVersionId)
}

/** Students whose mark keeps a version of the rubric that the activity is no longer marked by. */
export async function underOlderVersion(db: Db, activity: ActivityRow): Promise<string[]> {
  if (!activity.rubricVersionId) return []
  const rows = await db
    .selectDistinct({ enrolmentId: marks.enrolmentId, version: marks.rubricVersionId })
    .from(marks)
    .innerJoin(criterionMarks, eq(criterionMarks.markId, marks.id))
    .where(eq(marks.activityId, activity.id))
  return rows
    .filter(r => r.version !== null && r.version !== activity.rubricVersionId)
    .map(r => r.enrolmentId)
}

export const isEmptyLetter = (letter: RichNode): boolean => plainText(letter).trim() === ''
