import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import type { RichNode } from '../../../core/contributing/richText'
import { id, instant, madeAt } from './columns'
import { contributions } from './contributing'
import { enrolments, seminars } from './people'
import { activities, rubricCriteria, rubricLevels, rubricVersions } from './planning'

/** What a student was given: written once, on return, and the only part of a mark a student's route ever reads. */
export interface ReturnedLetter {
  readonly html: string
  readonly points: number // hundredths
  readonly max: number
  readonly by: string // name of who returned it
  readonly rubric: string
  readonly criteria: ReadonlyArray<{
    readonly id: string
    readonly title: string
    readonly points: number
    readonly max: number
    readonly levelTitle: string
    readonly descriptor: string
    readonly levels: readonly number[]
  }>
  readonly citations: ReadonlyArray<{ readonly number: number, readonly criterionId: string, readonly contributionId: string, readonly exact: string, readonly start: number }>
}

/** A student's mark in one activity, with the letter and the marker's note. */
export const marks = pgTable('marks', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  rubricVersionId: uuid().notNull().references(() => rubricVersions.id),
  state: text({ enum: ['open', 'held', 'returned'] }).notNull().default('open'),
  points: integer(), // hundredths; null until every criterion is judged
  letter: jsonb().$type<RichNode>().notNull(),
  letterText: text().notNull(),
  markerNote: text().notNull().default(''),
  lateWaived: boolean().notNull().default(false),
  markedBy: uuid().notNull().references(() => enrolments.id),
  savedAt: instant().notNull(),
  heldAt: instant(),
  returnedAt: instant(),
  returned: jsonb().$type<ReturnedLetter>(),
  version: integer().notNull().default(1),
}, t => [uniqueIndex().on(t.activityId, t.enrolmentId), index().on(t.enrolmentId)])

/** What student and markers write to each other under a returned letter. */
export const letterReplies = pgTable('letter_replies', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id), // whose letter it is
  authorId: uuid().notNull().references(() => enrolments.id),
  doc: jsonb().$type<RichNode>().notNull(),
  html: text().notNull(),
  at: instant().notNull(),
}, t => [index().on(t.activityId, t.enrolmentId)])

export const criterionMarks = pgTable('criterion_marks', {
  seminarId: uuid().notNull().references(() => seminars.id),
  markId: uuid().notNull().references(() => marks.id),
  criterionId: uuid().notNull().references(() => rubricCriteria.id),
  levelId: uuid().notNull().references(() => rubricLevels.id),
  points: integer().notNull(), // hundredths
}, t => [primaryKey({ columns: [t.markId, t.criterionId] })])

/** A passage of the record tied to a criterion: the W3C text quote with its position as a hint. */
export const citations = pgTable('citations', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  markId: uuid().notNull().references(() => marks.id),
  criterionId: uuid().notNull().references(() => rubricCriteria.id),
  contributionId: uuid().notNull().references(() => contributions.id),
  exact: text().notNull(),
  start: integer().notNull(), // in the contribution's plain text, UTF-16 units
  position: integer().notNull(),
}, t => [index().on(t.markId)])

/** Every change of a mark or of the seminar's shape: who, when, what, why. Rows are only ever added. */
export const auditTrail = pgTable('audit_trail', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  actorId: uuid().notNull().references(() => enrolments.id),
  at: madeAt(),
  act: text().notNull(),
  subjectId: uuid().notNull(),
  detail: jsonb().notNull().default({}),
}, t => [index().on(t.seminarId, t.at), index().on(t.subjectId)])
