import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  check,
  customType,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core'
import type { Check } from '#core/standing/judgeRecord'
import { STANDINGS } from '#core/standing/standing'
import { instant } from './columns'
import { enrolments, seminars } from './people'
import { activities } from './planning'

const transactionId = customType<{ data: string }>({ dataType: () => 'xid8' })

/**
 * Where each student stands in each activity, kept so that pages need not read what everybody wrote. A row is judged by
 * the same function as ever, holds for a span of time, and can be thrown away: it is made again.
 */
export const standings = pgTable(
  'standings',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id, { onDelete: 'cascade' }), // the student's
    activityId: uuid()
      .notNull()
      .references(() => activities.id, { onDelete: 'cascade' }),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id, { onDelete: 'cascade' }),
    standing: text({ enum: STANDINGS }).notNull().default('nothing'),
    ownStanding: text({ enum: STANDINGS }).notNull().default('nothing'), // as the student knows it
    hasLetter: boolean().notNull().default(false),
    shown: integer().notNull().default(0), // contributions
    words: integer().notNull().default(0), // of them
    drafts: integer().notNull().default(0),
    firstAt: instant(),
    lastAt: instant(),
    checks: jsonb().$type<Check[]>().notNull().default([]),
    validFrom: instant(), // null: without a beginning
    validUntil: instant().default(sql`'-infinity'`), // not at this instant any more; null: without an end
  },
  t => [
    primaryKey({ columns: [t.activityId, t.enrolmentId] }),
    index().on(t.enrolmentId),
    index().on(t.seminarId),
    index().on(t.validUntil),
    check(
      'known_standings',
      sql`standing in ('nothing', 'underWay', 'ready', 'held', 'returned') and own_standing in ('nothing', 'underWay', 'ready', 'held', 'returned')`,
    ),
  ],
)

/** What was changed that a standing is judged from, written by triggers; a row goes when it has been judged. */
export const standingChanges = pgTable(
  'standing_changes',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedByDefaultAsIdentity(),
    activityId: uuid().notNull(),
    enrolmentId: uuid(), // null: everybody in the activity
    madeIn: transactionId()
      .notNull()
      .default(sql`pg_current_xact_id()`),
  },
  t => [index().on(t.activityId, t.enrolmentId), index().on(t.madeIn)],
)
