import { index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant, madeAt } from './columns'
import { activities } from './planning'
import { enrolments, persons, seminars } from './people'

export const NOTICE_KINDS = ['published', 'changed', 'letter', 'group', 'prompt'] as const

/** What somebody is told about, in the application; its mail, if they want one, is a row of `mails`. */
export const notices = pgTable('notices', {
  id: id(),
  seminarId: uuid().notNull().references(() => seminars.id),
  enrolmentId: uuid().notNull().references(() => enrolments.id),
  kind: text({ enum: NOTICE_KINDS }).notNull(),
  activityId: uuid().references(() => activities.id),
  text: text().notNull(), // one sentence
  detail: text().notNull().default(''),
  madeAt: instant().notNull(),
  seenAt: instant(),
  mailedAt: instant(), // when it went into a mail: by itself, or with a day's others
}, t => [index().on(t.enrolmentId, t.madeAt), index().on(t.mailedAt)])

/** A mail to go out. Written in the transaction of what it tells; the queue only says when to try. */
export const mails = pgTable('mails', {
  id: id(),
  seminarId: uuid().references(() => seminars.id),
  personId: uuid().references(() => persons.id),
  key: text().notNull(), // one mail for one reason: a second with the same key is not written
  to: text().notNull(),
  subject: text().notNull(),
  text: text().notNull(),
  state: text({ enum: ['waiting', 'sent', 'refused'] }).notNull().default('waiting'),
  tries: integer().notNull().default(0),
  lastError: text(),
  madeAt: madeAt(),
  queuedAt: instant(), // when a process last took it into the queue
  sentAt: instant(),
}, t => [uniqueIndex().on(t.key), index().on(t.state)])

/** What the mailroom has taken in: the stand-in mailbox that is used while no mail server is set. */
export const mailroomMessages = pgTable('mailroom_messages', {
  id: id(),
  from: text().notNull(),
  to: jsonb().$type<readonly string[]>().notNull(),
  subject: text().notNull(),
  text: text().notNull(),
  receivedAt: madeAt(),
}, t => [index().on(t.receivedAt)])
