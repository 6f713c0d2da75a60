import { v7 } from 'uuid'
import {
  type AnyPgColumn,
  bigint,
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
import type { GroupRules } from '#core/people/makeGroups'
import type { TermBreak } from '#core/planning/week'
import type { Pace } from '#core/planning/load'
import { id, instant, madeAt } from './columns'

export const ROLES = ['instructor', 'assistant', 'student', 'observer'] as const
export type Role = (typeof ROLES)[number]
export const MAIL_CHOICES = ['atOnce', 'daily', 'never'] as const

/** How a seminar's gradebook calculates. */
export interface Grading {
  readonly missingIsZero: boolean // what is missing at its close counts as zero
  readonly countHeld: boolean // staff's figures count held marks, too; a student's never do
  readonly gradingScaleId: string | null // letters for the final figure
  readonly passPercent: number | null
  readonly showTotal: boolean // students see their final figure while the term goes on
}
export const USUAL_GRADING: Grading = {
  missingIsZero: true,
  countHeld: false,
  gradingScaleId: null,
  passPercent: null,
  showTotal: true,
}

/** Someone who can sign in; the same person may be in several seminars. */
export const persons = pgTable('persons', {
  id: id(),
  email: text().notNull().unique(), // lower case
  name: text().notNull(),
  givenName: text().notNull(), // for greetings and short lists
  familyName: text().notNull(), // lists are sorted by it
  passwordHash: text(), // scrypt, see access/password; null: cannot sign in by password
  foundsSeminars: boolean().notNull().default(false), // may make new seminars, and sees the mailroom
  mailChoice: text({ enum: MAIL_CHOICES }).notNull().default('atOnce'),
  /** Secret of the calendar feed's address. In clear, because it is shown again; it opens due times and nothing else. */
  calendarSecret: text().unique(),
  /** When its owner followed a link that was sent to the address; until then a role given to the address is of no use. */
  confirmedAt: instant(),
  practiceOf: uuid().references((): AnyPgColumn => persons.id), // an instructor's student's eye: nobody signs in as it
  madeAt: madeAt(),
})

/** A link sent by mail that lets its reader choose a password, once. Only its digest is kept. */
export const passwordLinks = pgTable(
  'password_links',
  {
    digest: text().primaryKey(),
    personId: uuid()
      .notNull()
      .references(() => persons.id, { onDelete: 'cascade' }),
    expiresAt: instant().notNull(),
    usedAt: instant(),
  },
  t => [index().on(t.personId)],
)

/** A link sent to an address, by which its owner confirms it. It becomes the person's address where it is another. */
export const addressLinks = pgTable(
  'address_links',
  {
    digest: text().primaryKey(),
    personId: uuid()
      .notNull()
      .references(() => persons.id, { onDelete: 'cascade' }),
    email: text().notNull(), // lower case
    expiresAt: instant().notNull(),
  },
  t => [index().on(t.personId)],
)

/** A signed-in browser. The cookie holds a secret of which only the digest is kept. */
export const sessions = pgTable(
  'sessions',
  {
    digest: text().primaryKey(),
    id: uuid()
      .notNull()
      .unique()
      .$defaultFn(() => v7()), // by which its owner ends it
    personId: uuid()
      .notNull()
      .references(() => persons.id, { onDelete: 'cascade' }),
    madeAt: madeAt(),
    lastSeenAt: madeAt(), // to a few minutes
    expiresAt: instant().notNull(),
    revokedAt: instant(),
    browser: text(), // digest of a cookie that stays: the browser its owner has signed in with before
    agent: text().notNull().default(''), // what the browser calls itself, shortened
    actingAs: uuid().references((): AnyPgColumn => enrolments.id), // student's eye: the practice student whose place is taken
  },
  t => [index().on(t.personId)],
)

/** What somebody shows beside their password: codes of an app, by time (RFC 6238). */
export const secondFactors = pgTable('second_factors', {
  personId: uuid()
    .primaryKey()
    .references(() => persons.id),
  secret: text().notNull(), // base32, sealed, see access/seal
  confirmedAt: instant(), // null: being set up, and not asked for yet
  lastStep: integer().notNull().default(0), // number of the half minute whose code was taken last: each is taken once
  madeAt: madeAt(),
})

/** Codes on paper, each good once, for whoever has lost the app. Only their digests are kept. */
export const recoveryCodes = pgTable(
  'recovery_codes',
  {
    id: id(),
    personId: uuid()
      .notNull()
      .references(() => persons.id),
    digest: text().notNull(),
    usedAt: instant(),
  },
  t => [index().on(t.personId)],
)

/** A password was right, and the code is still to come. */
export const signInSteps = pgTable(
  'sign_in_steps',
  {
    digest: text().primaryKey(),
    personId: uuid()
      .notNull()
      .references(() => persons.id),
    expiresAt: instant().notNull(),
  },
  t => [index().on(t.expiresAt)],
)

/** Keys in people's devices that sign them in (WebAuthn); what is kept of each opens nothing. */
export const passkeys = pgTable(
  'passkeys',
  {
    id: id(),
    personId: uuid()
      .notNull()
      .references(() => persons.id),
    credentialId: text().notNull().unique(), // base64url, as the device names it
    publicKey: text().notNull(), // base64url of a COSE key
    counter: bigint({ mode: 'number' }).notNull(), // how often the device has signed, where it counts
    transports: jsonb().$type<string[]>().notNull().default([]), // how browsers reach the device
    site: text().notNull(), // host it was made for, and works at alone
    title: text().notNull(), // by which its owner knows it
    lastUsedAt: instant(),
    madeAt: madeAt(),
  },
  t => [index().on(t.personId)],
)

/** What a device was asked to sign; each is taken once. Only digests are kept. */
export const passkeyChallenges = pgTable(
  'passkey_challenges',
  {
    digest: text().primaryKey(),
    personId: uuid().references(() => persons.id), // who adds a passkey; null: whoever signs in
    expiresAt: instant().notNull(),
  },
  t => [index().on(t.expiresAt)],
)

/** Counters of tries, see access/limits: by what is tried and who tries. The columns stand in the order its package asks for. */
export const rateLimits = pgTable('rate_limits', {
  key: text().primaryKey(),
  points: integer().notNull().default(0),
  expire: bigint({ mode: 'number' }), // milliseconds since 1970
})

/** One-time codes that make the first account of an empty installation. Only digests are kept. */
export const setupCodes = pgTable('setup_codes', {
  digest: text().primaryKey(),
  madeAt: madeAt(),
})

export const seminars = pgTable('seminars', {
  id: id(),
  code: text().notNull(),
  title: text().notNull(),
  college: text().notNull(),
  timeZone: text().notNull(),
  firstDay: text().notNull(), // local date of the first Monday
  weeks: integer().notNull(),
  usualDueTime: text().notNull().default('23:59'), // local
  usualDueWeekday: integer().notNull().default(7), // 1 Monday … 7 Sunday
  breaks: jsonb().$type<readonly TermBreak[]>().notNull().default([]),
  pace: jsonb()
    .$type<Pace>()
    .notNull()
    .default({ readingWordsPerMinute: 220, writingWordsPerMinute: 12, markingMinutesPerStudent: 3 }),
  studentHoursLimit: integer().notNull().default(6), // a week; above it the plan says so
  markingHoursLimit: integer().notNull().default(8),
  presenceGapDays: integer().notNull().default(14),
  grading: jsonb().$type<Grading>().notNull().default(USUAL_GRADING),
  state: text({ enum: ['active', 'archived'] })
    .notNull()
    .default('active'),
  silentSince: instant(), // brought back from an archive then; until an instructor says so nobody is told anything
  madeAt: madeAt(),
  version: integer().notNull().default(1),
})

export const sections = pgTable(
  'sections',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    position: integer().notNull().default(0),
  },
  t => [index().on(t.seminarId)],
)

/** A person in a seminar; withdrawing keeps their work and marks. */
export const enrolments = pgTable(
  'enrolments',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    personId: uuid()
      .notNull()
      .references(() => persons.id),
    sectionId: uuid().references(() => sections.id),
    role: text({ enum: ROLES }).notNull(),
    state: text({ enum: ['active', 'withdrawn', 'practice'] })
      .notNull()
      .default('active'),
    namedInFeeds: boolean().notNull().default(false), // agreed to stand by name in feeds others follow outside
    studentNumber: text(), // as the roster has it
    /** What the person is called in this seminar: as its roster has it, or as they say themselves. */
    name: text().notNull(),
    givenName: text().notNull(), // for greetings and short lists
    familyName: text().notNull(), // lists are sorted by it
    nameIsOwn: boolean().notNull().default(false), // chosen by themselves: a roster leaves it as it is
    /** Given to an address by somebody else: of use once the address is confirmed. */
    givenToAddress: boolean().notNull().default(true),
    joinedAt: madeAt(),
  },
  t => [uniqueIndex().on(t.seminarId, t.personId), index().on(t.personId)],
)

/** Lets whoever has it into a seminar, up to a number of people and a day. */
export const joiningCodes = pgTable(
  'joining_codes',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    code: text().notNull().unique(),
    role: text({ enum: ROLES }).notNull().default('student'),
    sectionId: uuid().references(() => sections.id),
    expiresAt: instant().notNull(),
    most: integer().notNull(), // how many may join with it
    used: integer().notNull().default(0),
    revokedAt: instant(),
    madeAt: madeAt(),
  },
  t => [index().on(t.seminarId)],
)

/** One way of putting the seminar's people into groups; a seminar can have several. */
export const groupPlans = pgTable(
  'group_plans',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    rules: jsonb().$type<GroupRules>().notNull(),
    selfJoin: boolean().notNull().default(false), // students choose their group themselves
    most: integer(), // people in a group when they join by themselves
    position: integer().notNull().default(0),
    version: integer().notNull().default(1),
    madeAt: madeAt(),
  },
  t => [index().on(t.seminarId)],
)

export const groups = pgTable(
  'groups',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    groupPlanId: uuid()
      .notNull()
      .references(() => groupPlans.id),
    title: text().notNull(), // its topic, when topics were dealt
    position: integer().notNull(),
  },
  t => [index().on(t.groupPlanId)],
)

export const groupMembers = pgTable(
  'group_members',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    groupPlanId: uuid()
      .notNull()
      .references(() => groupPlans.id),
    groupId: uuid()
      .notNull()
      .references(() => groups.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    since: madeAt(),
  },
  t => [
    primaryKey({ columns: [t.groupPlanId, t.enrolmentId] }),
    index().on(t.seminarId),
    index().on(t.groupId),
    index().on(t.enrolmentId),
  ],
)
