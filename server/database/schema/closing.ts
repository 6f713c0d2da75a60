import { index, integer, jsonb, boolean, pgTable, primaryKey, uuid } from 'drizzle-orm/pg-core'
import type { ClosingAnswers, ClosingQuestion, Urns } from '#core/closing/questions'
import { instant } from './columns'
import { enrolments, seminars } from './people'
import { activities } from './planning'

/**
 * Closing questions of an activity, round after round: the next begins once the last has closed, and has its own promise
 * about names, its own answers and its own minimum. Where names are not kept, what is stored says who has answered and what was
 * answered, and nothing else: both stand here, each in its own order of the alphabet, without a time. The same people
 * with the same answers leave the same row, in whatever order they came.
 */
export const closingSurveys = pgTable(
  'closing_rounds',
  {
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    round: integer().notNull().default(1),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    named: boolean().notNull(), // names are kept with the answers; set for good with the first
    questions: jsonb().$type<readonly ClosingQuestion[]>().notNull(),
    opensAt: instant().notNull(),
    closesAt: instant().notNull(),
    takers: uuid().array().notNull().default([]), // who has answered, sorted
    urns: jsonb().$type<Urns>().notNull().default({}), // answers without names, by question, sorted
    toldAt: instant(), // when students were told that it is open
    version: integer().notNull().default(1),
  },
  t => [primaryKey({ columns: [t.activityId, t.round] })],
)

/** Answers with their names. */
export const closingAnswers = pgTable(
  'closing_answers',
  {
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    round: integer().notNull().default(1),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    answers: jsonb().$type<ClosingAnswers>().notNull(),
    handedInAt: instant().notNull(),
  },
  t => [primaryKey({ columns: [t.activityId, t.round, t.enrolmentId] }), index().on(t.enrolmentId)],
)
