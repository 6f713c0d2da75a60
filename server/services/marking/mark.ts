import { and, asc, eq, inArray } from 'drizzle-orm'
import { reviewOf } from '#core/kinds/review/reviewSettings'
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
import { loadRubrics } from '#server/services/rubrics'
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

/** Marks of students' single contributions that are shown, by student. */
export async function givenToEach(
  db: Db,
  activityId: string,
  enrolmentIds: readonly string[],
): Promise<ReadonlyMap<string, readonly ContributionMark[]>> {
  const rows = await db
    .select({
      id: contributions.id,
      at: contributions.shownAt,
      points: contributionMarks.points,
      done: contributionMarks.done,
      authorId: contributions.authorId,
    })
    .from(contributionMarks)
    .innerJoin(contributions, eq(contributions.id, contributionMarks.contributionId))
    .where(
      and(
        eq(contributions.activityId, activityId),
        inArray(contributions.authorId, [...enrolmentIds]),
        eq(contributions.state, 'shown'),
      ),
    )
  const given = new Map<string, ContributionMark[]>(enrolmentIds.map(id => [id, []]))
  for (const { authorId, at, ...row } of rows) given.get(authorId)!.push({ ...row, at: at! })
  return given
}

/** Marks of one student's single contributions that are shown. */
export const givenTo = async (db: Db, activityId: string, enrolmentId: string) =>
  (await givenToEach(db, activityId, [enrolmentId])).get(enrolmentId)!

/** Marks as stored, by student; points and what is left are the record's to calculate. Who has none has no entry. */
export async function loadMarks(
  db: Db,
  activityId: string,
  enrolmentIds: readonly string[],
  now: Date,
): Promise<Map<string, MarkView>> {
  const rows = await db
    .select({ mark: marks, savedBy: enrolments.name })
    .from(marks)
    .innerJoin(enrolments, eq(enrolments.id, marks.markedBy))
    .where(and(eq(marks.activityId, activityId), inArray(marks.enrolmentId, [...enrolmentIds])))
  if (rows.length === 0) return new Map()
  const ids = rows.map(r => r.mark.id)
  const [steps, cited, files] = await Promise.all([
    db
      .select({
        markId: criterionMarks.markId,
        step: {
          criterionId: criterionMarks.criterionId,
          levelId: criterionMarks.levelId,
          points: criterionMarks.points,
        },
      })
      .from(criterionMarks)
      .where(inArray(criterionMarks.markId, ids)),
    db
      .select({
        markId: citations.markId,
        citation: {
          criterionId: citations.criterionId,
          contributionId: citations.contributionId,
          exact: citations.exact,
          start: citations.start,
        },
      })
      .from(citations)
      .where(inArray(citations.markId, ids))
      .orderBy(asc(citations.position)),
    filesOfLetters(db, ids),
  ])
  return new Map(
    rows.map(({ mark, savedBy }) => [
      mark.enrolmentId,
      viewOf(mark, {
        savedBy,
        steps: steps.filter(s => s.markId === mark.id).map(s => s.step),
        citations: cited.filter(c => c.markId === mark.id).map(c => c.citation),
        files: files.get(mark.id) ?? [],
        now,
      }),
    ]),
  )
}

function viewOf(
  mark: typeof marks.$inferSelect,
  { now, ...parts }: Pick<MarkView, 'savedBy' | 'steps' | 'citations' | 'files'> & { readonly now: Date },
): MarkView {
  const until = mark.returnedAt ? new Date(mark.returnedAt.getTime() + TAKE_BACK_MINUTES * 60_000) : null
  return {
    ...parts,
    version: mark.version,
    state: mark.state,
    letter: mark.letter,
    markerNote: mark.markerNote,
    lateWaived: mark.lateWaived,
    excusedFrom: [...mark.excusedFrom],
    override:
      mark.overridePoints === null
        ? null
        : { points: mark.overridePoints, reason: mark.overrideReason ?? '' },
    factor: mark.factor,
    reviewing: mark.reviewing,
    reviewingParts: mark.reviewingParts,
    takenFrom: mark.takenFrom,
    ownSteps: [...mark.ownSteps],
    points: mark.points ?? 0,
    before: null,
    criteriaLeft: 0,
    savedAt: mark.savedAt.toISOString(),
    returnedAt: mark.returnedAt?.toISOString() ?? null,
    returnAt: mark.returnAt?.toISOString() ?? null,
    takeBackUntil: mark.state === 'returned' && until && until > now ? until.toISOString() : null,
  }
}

/** One student's mark as stored, or an empty one at version 0. */
export async function loadMark(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  enrolmentId: string,
  now: Date,
): Promise<MarkView> {
  const found = await loadMarks(db, actor.activity.id, [enrolmentId], now)
  return found.get(enrolmentId) ?? emptyMark()
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
  reviewingParts: null,
  takenFrom: null,
  ownSteps: [],
  points: 0,
  before: null,
  criteriaLeft: 0,
  savedAt: null,
  savedBy: null,
  returnedAt: null,
  returnAt: null,
  takeBackUntil: null,
})

/** Files that go with letters, by mark, in their order. */
async function filesOfLetters(
  db: Db,
  markIds: readonly string[],
): Promise<ReadonlyMap<string, MarkView['files']>> {
  const rows = await db
    .select({
      markId: markFiles.markId,
      file: { id: files.id, name: files.name, type: files.type, size: files.size, spoken: markFiles.spoken },
    })
    .from(markFiles)
    .innerJoin(files, eq(files.id, markFiles.fileId))
    .where(and(inArray(markFiles.markId, [...markIds]), eq(markFiles.takenOff, false)))
    .orderBy(asc(markFiles.position))
  const byMark = new Map<string, MarkView['files']>(markIds.map(id => [id, []]))
  for (const { markId, file } of rows) byMark.get(markId)!.push({ ...file, url: `/api/files/${file.id}` })
  return byMark
}

/** The rubric each student is marked by: a mark with steps keeps the version it was given under, others take the activity's. */
export async function rubricsOfMarks(
  db: Db,
  activity: ActivityRow,
  enrolmentIds: readonly string[],
): Promise<ReadonlyMap<string, RubricView | null>> {
  const given = await db
    .selectDistinct({ enrolmentId: marks.enrolmentId, version: marks.rubricVersionId })
    .from(marks)
    .innerJoin(criterionMarks, eq(criterionMarks.markId, marks.id))
    .where(and(eq(marks.activityId, activity.id), inArray(marks.enrolmentId, [...enrolmentIds])))
  const own = new Map(given.map(g => [g.enrolmentId, g.version]))
  const versionOf = (id: string) => own.get(id) ?? activity.rubricVersionId
  const rubrics = await loadRubrics(
    db,
    enrolmentIds.flatMap(id => versionOf(id) ?? []),
  )
  return new Map(enrolmentIds.map(id => [id, rubrics.get(versionOf(id) ?? '') ?? null]))
}

/** The rubric one student is marked by. */
export const rubricOfMark = async (db: Db, activity: ActivityRow, enrolmentId: string) =>
  (await rubricsOfMarks(db, activity, [enrolmentId])).get(enrolmentId) ?? null

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
