import { sql } from 'drizzle-orm'
import {
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import type { RichNode } from '#core/contributing/richText'
import { auditAct } from '#server/database/auditActs'
import type { ReviewingTold } from '#core/marking/peers/reviewingMark'
import type { Scale } from '#core/planning/scale'
import { id, instant, madeAt } from './columns'
import { contributions } from './contributing'
import { enrolments, seminars } from './people'
import { activities, files, rubricCriteria, rubricLevels, rubricVersions } from './planning'

/** What a student was given: written once, on return, and the only part of a mark a student's route ever reads. */
export interface ReturnedLetter {
  readonly html: string
  readonly points: number // hundredths
  readonly max: number
  readonly by: string // name of who returned it
  readonly rubric: string | null // null: not marked by a rubric
  readonly scale?: Scale // how it is shown; points where not said
  readonly letter?: string | null // of the grading scale
  readonly passed?: boolean | null // null: there is no pass mark
  readonly factor?: number | null // hundredths: the student's share of the group's points
  // ten-thousandths of what one's own reviewing is worth, in percent of the points
  readonly reviewing?: {
    readonly share: number
    readonly percent: number
    readonly parts?: ReviewingTold | null
  } | null
  readonly late?: { readonly minutes: number; readonly before: number; readonly waived: boolean } | null // points without the rule
  readonly override?: { readonly reason: string; readonly before: number } | null
  readonly files?: ReadonlyArray<{
    readonly id: string
    readonly name: string
    readonly type: string
    readonly size: number
    readonly spoken: boolean
  }>
  readonly criteria: ReadonlyArray<{
    readonly id: string
    readonly title: string
    readonly points: number
    readonly max: number
    readonly levelTitle: string
    readonly descriptor: string
    readonly levels: readonly number[]
    readonly excused?: string // reason: the member is left out of this criterion of the group
  }>
  readonly citations: ReadonlyArray<{
    readonly number: number
    readonly criterionId: string
    readonly contributionId: string
    readonly exact: string
    readonly start: number
  }>
}

/** A group criterion a member is left out of, with the reason. */
export interface CriterionExcuse {
  readonly criterionId: string
  readonly reason: string
}
/** A step of a mark: the level chosen for a criterion, and its points. */
export interface StoredStep {
  readonly criterionId: string
  readonly levelId: string
  readonly points: number // hundredths
}
/** A mark as it stood before points were taken for it; instants in ISO 8601. */
export interface MarkBeforeTake {
  readonly state: 'open' | 'held' | 'returned'
  readonly steps: readonly StoredStep[]
  readonly rubricVersionId: string | null
  readonly letter: RichNode
  readonly overridePoints: number | null
  readonly overrideReason: string | null
  readonly reviewing: number | null
  readonly reviewingParts?: ReviewingTold | null
  readonly takenFrom: 'consensus' | null
  readonly heldAt: string | null
  readonly savedAt: string
  readonly markedBy: string
}
export interface ReturnedBefore {
  readonly returned: ReturnedLetter
  readonly returnedAt: string
  readonly toldAt: string | null
}

/** A student's mark in one activity, with the letter and the marker's note. */
export const marks = pgTable(
  'marks',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    rubricVersionId: uuid().references(() => rubricVersions.id), // null: not marked by a rubric
    state: text({ enum: ['open', 'held', 'returned'] })
      .notNull()
      .default('open'),
    points: integer(), // hundredths; null until every criterion is judged
    letter: jsonb().$type<RichNode>().notNull(),
    letterText: text().notNull(),
    markerNote: text().notNull().default(''),
    lateWaived: boolean().notNull().default(false),
    markedBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    savedAt: instant().notNull(),
    heldAt: instant(),
    returnedAt: instant(),
    returned: jsonb().$type<ReturnedLetter>(),
    overridePoints: integer(), // hundredths: what a marker set instead of what was calculated, with the reason
    overrideReason: text(),
    excusedFrom: jsonb().$type<readonly CriterionExcuse[]>().notNull().default([]),
    returnAt: instant(), // a held mark: when it returns itself
    returnBy: uuid().references(() => enrolments.id),
    toldAt: instant(), // when the student was told of what was returned
    factor: integer(), // hundredths: what the group's points are multiplied by for this member
    reviewing: integer(), // ten-thousandths: what the student's own reviewing came to when the marker took it
    reviewingParts: jsonb().$type<ReviewingTold>(), // what that was made of
    takenFrom: text({ enum: ['consensus'] }), // what the steps were taken from; null: the marker's own
    ownSteps: jsonb().$type<readonly StoredStep[]>().notNull().default([]), // of a peer review: the marker's own, beside what readers gave
    // for undoing as long as the mark has that version; mark is null where there was none
    beforeTake: jsonb().$type<{ readonly version: number; readonly mark: MarkBeforeTake | null }>(),
    before: jsonb().$type<ReturnedBefore>(), // what had been returned before, for taking back
    version: integer().notNull().default(1),
  },
  t => [
    uniqueIndex().on(t.activityId, t.enrolmentId),
    index().on(t.enrolmentId),
    index().on(t.rubricVersionId),
    index('marks_to_return')
      .on(t.returnAt)
      .where(sql`return_at is not null`),
    index('marks_to_tell')
      .on(t.returnedAt)
      .where(sql`returned is not null and told_at is null`),
  ],
)

/** What student and markers write to each other under a returned letter. */
export const letterReplies = pgTable(
  'letter_replies',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id), // whose letter it is
    authorId: uuid()
      .notNull()
      .references(() => enrolments.id),
    doc: jsonb().$type<RichNode>().notNull(),
    html: text().notNull(),
    at: instant().notNull(),
  },
  t => [index().on(t.activityId, t.enrolmentId)],
)

export const criterionMarks = pgTable(
  'criterion_marks',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    markId: uuid()
      .notNull()
      .references(() => marks.id),
    criterionId: uuid()
      .notNull()
      .references(() => rubricCriteria.id),
    levelId: uuid()
      .notNull()
      .references(() => rubricLevels.id),
    points: integer().notNull(), // hundredths
  },
  t => [primaryKey({ columns: [t.markId, t.criterionId] })],
)

/** Files and spoken notes that go with a letter. */
export const markFiles = pgTable(
  'mark_files',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    markId: uuid()
      .notNull()
      .references(() => marks.id),
    fileId: uuid()
      .notNull()
      .references(() => files.id),
    spoken: boolean().notNull().default(false),
    takenOff: boolean().notNull().default(false), // no longer goes with it; whoever was given it keeps it, and nobody else gets it
    position: integer().notNull(),
  },
  t => [primaryKey({ columns: [t.markId, t.fileId] }), index().on(t.fileId)],
)

/** A second marker's judgement of a student, made without seeing the first. */
export const secondMarks = pgTable(
  'second_marks',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id), // whose record it is
    markerId: uuid()
      .notNull()
      .references(() => enrolments.id),
    state: text({ enum: ['asked', 'done', 'agreed'] })
      .notNull()
      .default('asked'),
    steps: jsonb()
      .$type<
        ReadonlyArray<{ readonly criterionId: string; readonly levelId: string; readonly points: number }>
      >()
      .notNull()
      .default([]),
    remark: text().notNull().default(''),
    madeAt: madeAt(),
    doneAt: instant(),
  },
  t => [uniqueIndex().on(t.activityId, t.enrolmentId), index().on(t.markerId)],
)

/** Whose share of the queue a student's record is. */
export const markerShares = pgTable(
  'marker_shares',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    markerId: uuid()
      .notNull()
      .references(() => enrolments.id),
  },
  t => [primaryKey({ columns: [t.activityId, t.enrolmentId] }), index().on(t.markerId)],
)

/** Remarks a marker keeps for reuse. */
export const phrases = pgTable(
  'phrases',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    ownerId: uuid()
      .notNull()
      .references(() => enrolments.id),
    text: text().notNull(),
    criterion: text(), // title of the criterion it is about
    uses: integer().notNull().default(0),
    lastUsedAt: instant(),
    madeAt: madeAt(),
  },
  t => [index().on(t.ownerId)],
)

/** A student who need not do an activity: it leaves their gradebook. */
export const excuses = pgTable(
  'excuses',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    reason: text().notNull(),
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
  },
  t => [primaryKey({ columns: [t.activityId, t.enrolmentId] }), index().on(t.enrolmentId)],
)

/** How one member of staff has laid out the gradebook's columns. */
export const gradebookViews = pgTable('gradebook_views', {
  enrolmentId: uuid()
    .primaryKey()
    .references(() => enrolments.id),
  seminarId: uuid()
    .notNull()
    .references(() => seminars.id),
  order: jsonb().$type<readonly string[]>().notNull().default([]),
  hidden: jsonb().$type<readonly string[]>().notNull().default([]),
})

/** A passage of the record tied to a criterion: the W3C text quote with its position as a hint. */
export const citations = pgTable(
  'citations',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    markId: uuid()
      .notNull()
      .references(() => marks.id),
    criterionId: uuid()
      .notNull()
      .references(() => rubricCriteria.id),
    contributionId: uuid()
      .notNull()
      .references(() => contributions.id),
    exact: text().notNull(),
    start: integer().notNull(), // in the contribution's plain text, UTF-16 units
    position: integer().notNull(),
  },
  t => [index().on(t.markId)],
)

/** Which record a marker has open, and when their browser last said so. */
export const recordMarkers = pgTable(
  'record_markers',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    markerId: uuid()
      .notNull()
      .references(() => enrolments.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id), // whose record it is
    seenAt: instant().notNull(),
  },
  t => [primaryKey({ columns: [t.activityId, t.markerId] })],
)

/** Every change of a mark or of the seminar's shape: who, when, what, why. Rows are only ever added. */
export const auditTrail = pgTable(
  'audit_trail',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    actorId: uuid()
      .notNull()
      .references(() => enrolments.id),
    at: madeAt(),
    act: auditAct().notNull(),
    subjectId: uuid().notNull(),
    detail: jsonb().notNull().default({}),
  },
  t => [index().on(t.seminarId, t.at), index().on(t.subjectId)],
)
