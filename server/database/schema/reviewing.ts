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
import { instant, madeAt } from './columns'
import { contributions } from './contributing'
import { enrolments, seminars } from './people'
import { activities } from './planning'

/** How far a peer review has come: dealt out, released. */
export const peerReviews = pgTable('review_rounds', {
  activityId: uuid()
    .primaryKey()
    .references(() => activities.id),
  seminarId: uuid()
    .notNull()
    .references(() => seminars.id),
  seed: integer().notNull(),
  dealtAt: instant(),
  releasedAt: instant(),
  releasedUpTo: instant(), // reviews handed in later wait until the instructor lets them out
  releasedBy: uuid().references(() => enrolments.id), // null: by itself, as it was set
  version: integer().notNull().default(1),
})

/**
 * Who reviews what. Both ids are drawn at random, so that neither tells when or by whom: `id` is the reviewer's address
 * of it, `receivedId` the author's.
 */
export const allocations = pgTable(
  'allocations',
  {
    id: uuid().primaryKey().defaultRandom(),
    receivedId: uuid().notNull().defaultRandom(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    reviewerId: uuid()
      .notNull()
      .references(() => enrolments.id),
    subjectId: uuid()
      .notNull()
      .references(() => enrolments.id), // who handed it in, or the teammate
    entryId: uuid().references(() => contributions.id), // the work; null: a teammate is reviewed
    source: text({ enum: ['dealt', 'byHand', 'extra', 'self', 'practice'] }).notNull(),
    state: text({ enum: ['owed', 'begun', 'in'] })
      .notNull()
      .default('owed'),
    reviewId: uuid().references(() => contributions.id), // what the reviewer has written
    openedAt: instant(),
    handedInAt: instant(),
    keptBy: uuid().references(() => enrolments.id), // staff have looked at its flags and let it count
    setAsideBy: uuid().references(() => enrolments.id),
    setAsideReason: text(),
    notDone: boolean().notNull().default(false), // set aside, and not counted as done by its reviewer
    setAsideTold: boolean().notNull().default(false), // the reviewer was told that it is set aside, and why
    helpful: integer(), // 1 to 5, by whoever received it
    answerDoc: jsonb().$type<RichNode>(), // what they answered, without names
    answerHtml: text(),
    madeAt: madeAt(),
  },
  t => [
    index().on(t.activityId),
    index().on(t.reviewerId, t.activityId),
    index().on(t.entryId),
    index().on(t.reviewId),
    uniqueIndex('one_review_of_a_work').on(t.activityId, t.reviewerId, t.entryId),
    uniqueIndex('one_review_of_a_teammate')
      .on(t.activityId, t.reviewerId, t.subjectId)
      .where(sql`entry_id is null`),
    uniqueIndex().on(t.receivedId),
  ],
)

/** Two people neither of whom reviews the other. */
export const keptApart = pgTable(
  'kept_apart',
  {
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    oneId: uuid()
      .notNull()
      .references(() => enrolments.id),
    otherId: uuid()
      .notNull()
      .references(() => enrolments.id),
  },
  t => [primaryKey({ columns: [t.activityId, t.oneId, t.otherId] })],
)

/** Somebody who would take more reviews than they owe. */
export const willing = pgTable(
  'willing',
  {
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    more: integer().notNull(),
  },
  t => [primaryKey({ columns: [t.activityId, t.enrolmentId] })],
)
