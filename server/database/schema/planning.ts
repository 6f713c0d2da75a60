import { boolean, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { ACTIVITY_KINDS } from '../../../core/contributing/kinds/kind'
import type { RichNode } from '../../../core/contributing/richText'
import type { LateRule } from '../../../core/marking/lateness'
import type { ExpectationRule } from '../../../core/planning/expectations/rule'
import { PHASES } from '../../../core/planning/schedule'
import { id, instant, madeAt } from './columns'
import { enrolments, seminars } from './people'

export const units = pgTable('units', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  title: text().notNull(),
  fromWeek: integer().notNull(),
  toWeek: integer().notNull(),
  position: integer().notNull(),
}, t => [index().on(t.seminarId)])

export const categories = pgTable('categories', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  title: text().notNull(),
  weightPercent: integer().notNull(),
  position: integer().notNull(),
}, t => [index().on(t.seminarId)])

export const rubrics = pgTable('rubrics', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  title: text().notNull(),
}, t => [index().on(t.seminarId)])

/** Rubrics are versioned: a mark keeps the version it was given under. A version in use is never changed. */
export const rubricVersions = pgTable('rubric_versions', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  rubricId: uuid().notNull().references(() => rubrics.id),
  version: integer().notNull(),
  madeAt: madeAt(),
}, t => [uniqueIndex().on(t.rubricId, t.version)])

export const rubricCriteria = pgTable('rubric_criteria', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  rubricVersionId: uuid().notNull().references(() => rubricVersions.id),
  position: integer().notNull(),
  title: text().notNull(),
  max: integer().notNull(), // hundredths of a point
  weight: integer().notNull().default(1),
  scope: text({ enum: ['own', 'group'] }).notNull().default('own'),
  suggestFrom: text({ enum: ['timeliness'] }), // what in the record a step can be suggested from
}, t => [index().on(t.rubricVersionId)])

export const rubricLevels = pgTable('rubric_levels', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  criterionId: uuid().notNull().references(() => rubricCriteria.id),
  position: integer().notNull(),
  title: text().notNull(),
  points: integer().notNull(), // hundredths of a point
  descriptor: text().notNull(),
}, t => [index().on(t.criterionId)])

/** What can differ between two activities of one kind. */
export interface ActivitySettings {
  readonly writeFirst: boolean
  readonly editMinutes: number // how long one's own can be changed or withdrawn after posting
}

export const activities = pgTable('activities', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  unitId: uuid().references(() => units.id),
  categoryId: uuid().references(() => categories.id),
  kind: text({ enum: ACTIVITY_KINDS }).notNull(),
  title: text().notNull(),
  summary: text().notNull(), // the brief in a sentence or two
  brief: jsonb().$type<RichNode>().notNull(),
  briefHtml: text().notNull(),
  state: text({ enum: ['draft', 'scheduled', 'published'] }).notNull().default('draft'),
  settings: jsonb().$type<ActivitySettings>().notNull(),
  opensAt: instant().notNull(),
  points: integer(), // hundredths; null: not marked
  pointStep: integer().notNull().default(50), // hundredths a mark is rounded to
  lateRule: jsonb().$type<LateRule>().notNull(),
  rubricVersionId: uuid().references(() => rubricVersions.id),
  practice: boolean().notNull().default(false),
  position: integer().notNull(),
  version: integer().notNull().default(1),
}, t => [index().on(t.seminarId)])

export const phases = pgTable('phases', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  name: text({ enum: PHASES }).notNull(),
  startsAt: instant().notNull(),
  endsAt: instant().notNull(),
  position: integer().notNull(),
}, t => [index().on(t.activityId)])

export const expectations = pgTable('expectations', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  rule: jsonb().$type<ExpectationRule>().notNull(),
  needed: boolean().notNull().default(true), // needed before a student counts as ready to mark
  position: integer().notNull(),
}, t => [index().on(t.activityId)])

export const extensions = pgTable('extensions', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  dueAt: instant().notNull(),
  reason: text().notNull(),
}, t => [uniqueIndex().on(t.activityId, t.enrolmentId)])
