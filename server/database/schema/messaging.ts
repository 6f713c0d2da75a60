import { sql } from 'drizzle-orm'
import { boolean, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant, madeAt } from './columns'
import { activities } from './planning'
import { NOTICE_KINDS } from '#core/messaging/noticeKinds'
import { enrolments, persons, seminars } from './people'

/** What somebody is told about, in the application; its mail, if they want one, is a row of `mails`. */
export const notices = pgTable(
  'notices',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    kind: text({ enum: NOTICE_KINDS }).notNull(),
    activityId: uuid().references(() => activities.id),
    text: text().notNull(), // one sentence
    detail: text().notNull().default(''),
    madeAt: instant().notNull(),
    seenAt: instant(),
    mailedAt: instant(), // when it went into a mail: by itself, or with a day's others
  },
  t => [index().on(t.enrolmentId, t.madeAt), index().on(t.mailedAt)],
)

/** A mail to go out. Written in the transaction of what it tells; the queue only says when to try. */
export const mails = pgTable(
  'mails',
  {
    id: id(),
    seminarId: uuid().references(() => seminars.id),
    personId: uuid().references(() => persons.id),
    key: text().notNull(), // one mail for one reason: a second with the same key is not written
    to: text().notNull(),
    subject: text().notNull(),
    text: text().notNull(),
    state: text({ enum: ['waiting', 'sent', 'refused'] })
      .notNull()
      .default('waiting'),
    tries: integer().notNull().default(0),
    lastError: text(),
    madeAt: madeAt(),
    nextAt: madeAt(), // when it is tried next
    sentAt: instant(),
  },
  t => [
    uniqueIndex().on(t.key),
    index('waiting_mails')
      .on(t.nextAt)
      .where(sql`state = 'waiting'`),
  ],
)

/** What the mailroom has taken in: the stand-in mailbox that is used while no mail server is set. */
export const mailroomMessages = pgTable(
  'mailroom_messages',
  {
    id: id(),
    from: text().notNull(),
    to: jsonb().$type<readonly string[]>().notNull(),
    subject: text().notNull(),
    text: text().notNull(),
    receivedAt: madeAt(),
  },
  t => [index().on(t.receivedAt)],
)

/** A standing rule: whoever has put in nothing by a time before an activity’s first due is written to, once. */
export const messageRules = pgTable(
  'message_rules',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid().references(() => activities.id), // null: every activity of the seminar
    daysBefore: integer().notNull(), // local days before the first due time
    atTime: text().notNull(), // local
    subject: text().notNull(),
    text: text().notNull(), // with places for the name, what is missing, the activity and its due time
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id), // in whose name it writes
    on: boolean().notNull().default(false),
    onSince: instant(), // what was due to be sent before it was switched on is not sent
    madeAt: madeAt(),
    version: integer().notNull().default(1),
  },
  t => [index().on(t.seminarId)],
)

/** What staff and one student write to each other. A sending to several is a thread with each. */
export const messageThreads = pgTable(
  'message_threads',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    studentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    startedBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    activityId: uuid().references(() => activities.id), // what it is about
    subject: text().notNull(),
    sendingId: uuid().notNull(), // written together: taken back together
    ruleId: uuid().references(() => messageRules.id),
    toldAt: instant(), // when its student was told; until then it can be taken back, and is not theirs to read
    lastAt: instant().notNull(),
    staffSeenAt: instant(),
    studentSeenAt: instant(),
    madeAt: instant().notNull(),
  },
  t => [
    index().on(t.seminarId, t.lastAt),
    index().on(t.studentId),
    index().on(t.sendingId),
    index('untold_threads')
      .on(t.madeAt)
      .where(sql`told_at is null`),
    uniqueIndex('one_message_of_a_rule')
      .on(t.ruleId, t.activityId, t.studentId)
      .where(sql`rule_id is not null`),
  ],
)

export const messages = pgTable(
  'messages',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    threadId: uuid()
      .notNull()
      .references(() => messageThreads.id),
    authorId: uuid()
      .notNull()
      .references(() => enrolments.id),
    text: text().notNull(),
    words: integer().notNull(),
    direct: boolean().notNull(), // written to this one student: not the same words to several, not by a rule
    at: instant().notNull(),
  },
  t => [index().on(t.threadId, t.at), index().on(t.authorId)],
)
