import { integer, index, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { TEXT_FORMS, type TextPart } from '#core/kinds/reading/reading'
import type { Cue } from '#core/files/webVtt'
import { languageCodes } from '#core/language/languages'
import { id, instant, madeAt } from './columns'
import { enrolments, seminars } from './people'
import { activities, files } from './planning'

/** A text of the library that can be set to be read: a paper, an article or section of a book, a recording. */
export const texts = pgTable(
  'texts',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    credit: text().notNull(), // who wrote it, where it is from
    form: text({ enum: TEXT_FORMS }).notNull(),
    version: integer().notNull(), // its newest
    language: text({ enum: languageCodes }), // null: the page's
    // what was taken from the book supplier
    supplier: jsonb().$type<{ readonly bookId: string; readonly from: number; readonly to: number }>(),
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
    archivedAt: instant(),
  },
  t => [index().on(t.seminarId)],
)

/** A text as it was uploaded at one time. Never changed: a better copy is the next version, into which notes are carried over. */
export const textVersions = pgTable(
  'text_versions',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    textId: uuid()
      .notNull()
      .references(() => texts.id),
    number: integer().notNull(),
    fileId: uuid().references(() => files.id), // a paper, or a recording
    words: text().notNull(), // readable text of all parts
    parts: jsonb().$type<readonly TextPart[]>().notNull(),
    html: jsonb().$type<readonly string[]>().notNull(), // of an article: each part, sanitised; else empty
    cues: jsonb().$type<ReadonlyArray<Cue & { readonly start: number; readonly end: number }>>().notNull(), // of a recording
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    madeAt: madeAt(),
  },
  t => [uniqueIndex().on(t.textId, t.number)],
)

/**
 * A private address under which one's own programs read and write one's notes in an activity (Web
 * Annotation Protocol). Only the digest of its secret is kept.
 */
export const annotationTokens = pgTable(
  'annotation_tokens',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id, { onDelete: 'cascade' }),
    digest: text().notNull(),
    madeAt: madeAt(),
  },
  t => [uniqueIndex().on(t.digest), uniqueIndex().on(t.activityId, t.enrolmentId)],
)
