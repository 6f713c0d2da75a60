import { index, integer, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant, madeAt } from './columns'

export const ROLES = ['instructor', 'assistant', 'student', 'observer'] as const

/** Someone who can sign in; the same person may be in several seminars. */
export const persons = pgTable('persons', {
  id: id(),
  email: text().notNull().unique(), // lower case
  name: text().notNull(),
  givenName: text().notNull(), // for greetings and short lists
  familyName: text().notNull(), // lists are sorted by it
  passwordHash: text(), // scrypt, see access/password; null: cannot sign in by password
  madeAt: madeAt(),
})

/** A signed-in browser. The cookie holds a secret of which only the digest is kept. */
export const sessions = pgTable('sessions', {
  digest: text().primaryKey(),
  personId: uuid().notNull().references(() => persons.id, { onDelete: 'cascade' }),
  madeAt: madeAt(),
  expiresAt: instant().notNull(),
  revokedAt: instant(),
}, t => [index().on(t.personId)])

/** Tries to sign in, kept for a day to slow guessing down. */
export const signInAttempts = pgTable('sign_in_attempts', {
  id: id(),
  email: text().notNull(),
  at: madeAt(),
}, t => [index().on(t.email, t.at)])

export const seminars = pgTable('seminars', {
  id: id(),
  code: text().notNull(),
  title: text().notNull(),
  college: text().notNull(),
  timeZone: text().notNull(),
  firstDay: text().notNull(), // local date of the first Monday
  weeks: integer().notNull(),
  usualDueTime: text().notNull().default('23:59'),
})

export const sections = pgTable('sections', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  title: text().notNull(),
}, t => [index().on(t.seminarId)])

/** A person in a seminar; withdrawing keeps their work and marks. */
export const enrolments = pgTable('enrolments', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  personId: uuid().notNull().references(() => persons.id),
  sectionId: uuid().references(() => sections.id),
  role: text({ enum: ROLES }).notNull(),
  state: text({ enum: ['active', 'withdrawn', 'practice'] }).notNull().default('active'),
}, t => [uniqueIndex().on(t.seminarId, t.personId), index().on(t.personId)])
