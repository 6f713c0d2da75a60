import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import type { GoneRun, Runs } from '#core/kinds/wiki/followAuthors'
import { id, instant, madeAt } from './columns'
import { contributions } from './contributing'
import { enrolments, groups, seminars } from './people'
import { activities } from './planning'

/** A page of a wiki: where it stands, whose it is, and how far its versions go. What it says is its latest version's. */
export const wikiPages = pgTable(
  'wiki_pages',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    groupId: uuid().references(() => groups.id), // whose wiki it is in; null: the class's
    title: text().notNull(),
    titleKey: text().notNull(), // as links look for it
    formerKeys: text()
      .array()
      .notNull()
      .default(sql`'{}'`), // titles it had: links to them still arrive
    parentId: uuid().references((): AnyPgColumn => wikiPages.id),
    position: integer().notNull(),
    claimedBy: uuid().references(() => enrolments.id),
    currentId: uuid().references(() => contributions.id), // its latest version; null: nothing is written yet
    versions: integer().notNull().default(0),
    links: text()
      .array()
      .notNull()
      .default(sql`'{}'`), // titles it links to, as they are written there
    trialBy: uuid().references(() => enrolments.id), // a practice student's own trial: it is in nobody else's wiki
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
    removedAt: instant(),
  },
  t => [
    index().on(t.activityId, t.groupId),
    index().on(t.currentId),
    uniqueIndex('one_page_of_a_title')
      .on(
        t.activityId,
        sql`coalesce(${t.groupId}, ${t.trialBy}, '00000000-0000-0000-0000-000000000000')`,
        t.titleKey,
      )
      .where(sql`removed_at is null`),
  ],
)

/** What a contribution of the type `pageVersion` is besides its text. Numbers of a page have no gaps: its history is one line. */
export const pageVersions = pgTable(
  'page_versions',
  {
    id: uuid()
      .primaryKey()
      .references(() => contributions.id),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    pageId: uuid()
      .notNull()
      .references(() => wikiPages.id),
    number: integer().notNull(),
    base: integer().notNull(), // the version it was written from; joined with what came in between
    summary: text().notNull(),
    words: integer().notNull(), // words of the whole page
    written: integer().notNull(), // words that are new in it
    added: integer().notNull(), // words it has and the version before has not, those brought back counted
    removed: integer().notNull(),
    moved: integer().notNull(), // words in blocks that stand elsewhere now
    restores: integer(), // the version it brought back
    origins: jsonb().$type<Runs>().notNull(), // the version each token came from, by id
    gone: jsonb().$type<readonly GoneRun[]>().notNull(), // what it took out, so that it is known when it comes back
  },
  t => [uniqueIndex().on(t.pageId, t.number)],
)

/** What a comment in a wiki is besides its text. Answers to it are comments below it. */
export const pageComments = pgTable(
  'page_comments',
  {
    id: uuid()
      .primaryKey()
      .references(() => contributions.id),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    pageId: uuid()
      .notNull()
      .references(() => wikiPages.id),
    answers: uuid().references(() => contributions.id), // the comment it answers; null: it is about the page
    versionId: uuid().references(() => contributions.id), // what was commented on; null: a page without text yet
    passage: jsonb().$type<{ readonly exact: string; readonly prefix: string; readonly suffix: string }>(),
    writers: uuid()
      .array()
      .notNull()
      .default(sql`'{}'`), // whose words the passage was
    resolvedIn: uuid().references(() => contributions.id), // the version that acted on it
    resolvedBy: uuid().references(() => enrolments.id),
    resolvedAt: instant(),
  },
  t => [index().on(t.pageId)],
)

/** Who has a page open for writing, as they said last. */
export const pageWriters = pgTable(
  'page_writers',
  {
    pageId: uuid()
      .notNull()
      .references(() => wikiPages.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    seenAt: instant().notNull(),
  },
  t => [primaryKey({ columns: [t.pageId, t.enrolmentId] })],
)
