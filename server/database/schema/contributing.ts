import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  bigint,
  boolean,
  check,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { CONTRIBUTION_STATES, CONTRIBUTION_TYPES } from '#core/contributing/contribution'
import type { ContributionDetail } from '#core/kinds/contributionDetail'
import type { RichNode } from '#core/contributing/richText'
import { id, instant, madeAt } from './columns'
import { enrolments, seminars } from './people'
import { activities, files } from './planning'

/** Everything anyone adds to any activity: one table, one life. */
export const contributions = pgTable(
  'contributions',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    authorId: uuid()
      .notNull()
      .references(() => enrolments.id),
    type: text({ enum: CONTRIBUTION_TYPES }).notNull(),
    parentId: uuid().references((): AnyPgColumn => contributions.id), // what it answers
    threadId: uuid(), // the first contribution of the thread it is in; its own id where it is the first
    // the student whose text, nearest the top, all of this hangs below or is; none under staff's words
    // alone
    openerId: uuid().references(() => enrolments.id),
    slot: text().notNull().default(''), // which of several texts begun at one place: the prompt or the entry it is for
    promptId: uuid(), // the prompt of a journal, or the question of a discussion, that it is written to
    state: text({ enum: CONTRIBUTION_STATES }).notNull(),
    /** Its place among what was shown in this activity: given when it is shown, in the order in which that became true. */
    seq: bigint({ mode: 'number' }),
    showAt: instant(), // a timed entry: when it shows itself
    onTop: boolean().notNull().default(false), // kept first in its list
    closedToWords: boolean().notNull().default(false), // of the first of a thread: students write nothing new in it
    openToClass: boolean().notNull().default(false), // a journal entry its author, or the instructor, has opened
    sentBack: text(), // what staff said when they did not let it be shown yet
    sources: integer().notNull().default(0), // addresses it links to
    figures: integer().notNull().default(0), // pictures that came with it
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
    withdrawnBy: uuid().references(() => enrolments.id), // what staff have withdrawn, its author does not put back
    version: integer().notNull().default(1),
  },
  t => [
    index().on(t.activityId, t.state, t.shownAt),
    index().on(t.activityId, t.seq),
    index('timed_contributions')
      .on(t.showAt)
      .where(sql`state = 'scheduled'`),
    index().on(t.authorId, t.activityId),
    index().on(t.parentId),
    index().on(t.threadId),
    index('contributions_words').using('gin', sql`to_tsvector('english', ${t.text})`), // what finding looks in
    // one draft for each place one can write in
    uniqueIndex('one_draft_per_place')
      .on(
        t.activityId,
        t.authorId,
        sql`coalesce(${t.parentId}, '00000000-0000-0000-0000-000000000000')`,
        t.slot,
      )
      .where(sql`state = 'draft'`),
    check('shown_has_a_time', sql`state not in ('shown', 'withdrawn') or shown_at is not null`),
  ],
)

/** Earlier texts of a contribution; the current one stands in its row. */
export const contributionRevisions = pgTable(
  'contribution_revisions',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    contributionId: uuid()
      .notNull()
      .references(() => contributions.id),
    version: integer().notNull(),
    doc: jsonb().$type<RichNode>().notNull(),
    html: text().notNull(),
    text: text().notNull(),
    words: integer().notNull(),
    replacedAt: instant().notNull(),
  },
  t => [primaryKey({ columns: [t.contributionId, t.version] })],
)

export const nods = pgTable(
  'nods',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    contributionId: uuid()
      .notNull()
      .references(() => contributions.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
  },
  t => [primaryKey({ columns: [t.contributionId, t.enrolmentId] })],
)

/** Up to which place a reader has seen what was shown in an activity: what comes after it is new to them. */
export const visits = pgTable(
  'visits',
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
    seenUntil: instant().notNull(),
    seenSeq: bigint({ mode: 'number' }).notNull().default(0),
  },
  t => [primaryKey({ columns: [t.activityId, t.enrolmentId] })],
)

/** Files that came with a contribution, in their order. Who may read the contribution may read them. */
export const contributionFiles = pgTable(
  'contribution_files',
  {
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    contributionId: uuid()
      .notNull()
      .references(() => contributions.id, { onDelete: 'cascade' }),
    fileId: uuid()
      .notNull()
      .references(() => files.id),
    position: integer().notNull(),
  },
  t => [primaryKey({ columns: [t.contributionId, t.fileId] }), index().on(t.fileId)],
)

/** The name somebody goes by in one thread where names are hidden from classmates. Its id says nothing of when or who. */
export const aliases = pgTable(
  'aliases',
  {
    id: uuid().primaryKey().defaultRandom(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    threadId: uuid().notNull(), // the thread's first contribution
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    name: text().notNull(),
  },
  t => [
    uniqueIndex().on(t.threadId, t.enrolmentId),
    uniqueIndex().on(t.threadId, t.name),
    index().on(t.activityId),
  ],
)

/** A single contribution marked as done or not, as short answers are. */
export const contributionMarks = pgTable('contribution_marks', {
  seminarId: uuid()
    .notNull()
    .references(() => seminars.id),
  contributionId: uuid()
    .primaryKey()
    .references(() => contributions.id),
  done: boolean(), // null: marked by points
  points: integer(), // hundredths; null: marked done or not
  markedBy: uuid()
    .notNull()
    .references(() => enrolments.id),
  markedAt: instant().notNull(),
})

/** A private address under which one member follows an activity in a feed reader. In clear, because it is shown again. */
export const feeds = pgTable(
  'feeds',
  {
    secret: text().primaryKey(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
  },
  t => [uniqueIndex().on(t.activityId, t.enrolmentId)],
)

/** Writes already answered, so that one sent again after a lost answer is answered again and not done twice. */
export const idempotencyRecords = pgTable(
  'receipts',
  {
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    key: uuid().notNull(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    answer: jsonb().notNull(),
    madeAt: madeAt(),
  },
  t => [primaryKey({ columns: [t.enrolmentId, t.key] })],
)
