import { sql } from 'drizzle-orm'
import { type AnyPgColumn, check, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { CONTRIBUTION_STATES, CONTRIBUTION_TYPES } from '../../../core/contributing/contribution'
import type { RichNode } from '../../../core/contributing/richText'
import { id, instant, madeAt } from './columns'
import { enrolments, seminars } from './people'
import { activities } from './planning'

/** What only some kinds need: the passage a reply takes up, the prompt an entry answers, the anchor of a note. */
export interface ContributionDetail {
  readonly takesUp?: { readonly contributionId: string, readonly exact: string, readonly prefix: string, readonly suffix: string }
  readonly prompt?: number
  readonly anchor?: Readonly<Record<string, unknown>>
  readonly title?: string
}

/** Everything anyone adds to any activity: one table, one life. */
export const contributions = pgTable('contributions', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  authorId: uuid().notNull().references(() => enrolments.id),
  type: text({ enum: CONTRIBUTION_TYPES }).notNull(),
  parentId: uuid().references((): AnyPgColumn => contributions.id), // what it answers
  state: text({ enum: CONTRIBUTION_STATES }).notNull(),
  doc: jsonb().$type<RichNode>().notNull(),
  html: text().notNull(), // rendered once, when written
  text: text().notNull(),
  words: integer().notNull(), // quotations left out
  detail: jsonb().$type<ContributionDetail>().notNull().default({}),
  madeAt: madeAt(),
  savedAt: madeAt(),
  shownAt: instant(),
  editedAt: instant(),
  withdrawnAt: instant(),
  version: integer().notNull().default(1),
}, t => [
  index().on(t.activityId, t.state, t.shownAt),
  index().on(t.authorId, t.activityId),
  index().on(t.parentId),
  index('contributions_words').using('gin', sql`to_tsvector('english', ${t.text})`), // what finding looks in
  // one draft for each place one can write in
  uniqueIndex('one_draft_per_place').on(t.activityId, t.authorId, sql`coalesce(${t.parentId}, '00000000-0000-0000-0000-000000000000')`).where(sql`state = 'draft'`),
  check('shown_has_a_time', sql`state not in ('shown', 'withdrawn') or shown_at is not null`),
])

/** Earlier texts of a contribution; the current one stands in its row. */
export const contributionRevisions = pgTable('contribution_revisions', {
  seminarId: uuid().notNull().references(() => seminars.id),
  contributionId: uuid().notNull().references(() => contributions.id),
  version: integer().notNull(),
  doc: jsonb().$type<RichNode>().notNull(),
  html: text().notNull(),
  text: text().notNull(),
  words: integer().notNull(),
  replacedAt: instant().notNull(),
}, t => [primaryKey({ columns: [t.contributionId, t.version] })])

export const nods = pgTable('nods', {
  seminarId: uuid().notNull().references(() => seminars.id),
  contributionId: uuid().notNull().references(() => contributions.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  madeAt: madeAt(),
}, t => [primaryKey({ columns: [t.contributionId, t.enrolmentId] })])

/** Up to when a reader has seen an activity: what was shown later is new to them. */
export const visits = pgTable('visits', {
  seminarId: uuid().notNull().references(() => seminars.id),
  activityId: uuid().notNull().references(() => activities.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  seenUntil: instant().notNull(),
}, t => [primaryKey({ columns: [t.activityId, t.enrolmentId] })])

/** Writes already answered, so that one sent again after a lost answer is answered again and not done twice. */
export const receipts = pgTable('receipts', {
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  key: uuid().notNull(),
  seminarId: uuid().notNull().references(() => seminars.id),
  answer: jsonb().notNull(),
  madeAt: madeAt(),
}, t => [primaryKey({ columns: [t.enrolmentId, t.key] })])
