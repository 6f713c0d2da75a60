import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
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
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import type { RichNode } from '#core/contributing/richText'
import type { CombineRule } from '#core/marking/combineMarks'
import type { LateRule } from '#core/marking/lateness'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { Audience } from '#core/planning/audience'
import { PHASES } from '#core/planning/schedule'
import type { LexiconSettings } from '#core/kinds/lexicon/lexiconSettings'
import type { ReadingSettings } from '#core/kinds/reading/reading'
import type { WikiSettings } from '#core/kinds/wiki/wikiSettings'
import type { ReviewSettings } from '#core/kinds/review/reviewSettings'
import type { TalkSettings } from '#core/contributing/talkSettings'
import { SCALES } from '#core/planning/scale'
import { bytes, id, instant, madeAt } from './columns'
import { v7 } from 'uuid'
import { enrolments, seminars } from './people'

export const units = pgTable(
  'units',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    fromWeek: integer().notNull(),
    toWeek: integer().notNull(),
    position: integer().notNull(),
  },
  t => [index().on(t.seminarId)],
)

export const categories = pgTable(
  'categories',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    weightPercent: integer().notNull(),
    dropLowest: integer().notNull().default(0), // how many items are left out, those whose leaving helps most
    position: integer().notNull(),
  },
  t => [index().on(t.seminarId)],
)

/** Letters or words for shares of the points: "A from 93 %". */
export const gradingScales = pgTable(
  'grading_scales',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    title: text().notNull(),
    bands: jsonb()
      .$type<ReadonlyArray<{ readonly letter: string; readonly fromPercent: number }>>()
      .notNull(), // highest first, the last from 0
    position: integer().notNull().default(0),
  },
  t => [index().on(t.seminarId)],
)

/** What students should have learnt by the end, as the college words it; `identifier` is its CASE GUID. */
export const outcomes = pgTable(
  'outcomes',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    identifier: text().notNull(),
    code: text().notNull(),
    statement: text().notNull(),
    position: integer().notNull(),
    retiredAt: instant(), // since when it is offered for criteria no more
    version: integer().notNull().default(1),
  },
  t => [uniqueIndex().on(t.seminarId, t.identifier)],
)

export const rubrics = pgTable(
  'rubrics',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    identifier: uuid()
      .notNull()
      .$defaultFn(() => v7()), // its CASE GUID
    title: text().notNull(),
    revision: integer().notNull().default(1), // counted at every save, also where that makes no new version
    archivedAt: instant(),
  },
  t => [index().on(t.seminarId)],
)

/** Rubrics are versioned: a mark keeps the version it was given under. A version in use is never changed. */
export const rubricVersions = pgTable(
  'rubric_versions',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    rubricId: uuid()
      .notNull()
      .references(() => rubrics.id),
    version: integer().notNull(),
    madeAt: madeAt(),
  },
  t => [uniqueIndex().on(t.rubricId, t.version)],
)

export const rubricCriteria = pgTable(
  'rubric_criteria',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    rubricVersionId: uuid()
      .notNull()
      .references(() => rubricVersions.id),
    position: integer().notNull(),
    title: text().notNull(),
    max: integer().notNull(), // hundredths of a point
    weight: integer().notNull().default(1),
    scope: text({ enum: ['own', 'group'] })
      .notNull()
      .default('own'),
    suggestFrom: text({ enum: ['timeliness'] }), // what in the record a step can be suggested from
  },
  t => [index().on(t.rubricVersionId)],
)

/** Of which learning outcomes a criterion is evidence. */
export const criterionOutcomes = pgTable(
  'criterion_outcomes',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    criterionId: uuid()
      .notNull()
      .references(() => rubricCriteria.id),
    outcomeId: uuid()
      .notNull()
      .references(() => outcomes.id),
  },
  t => [uniqueIndex().on(t.criterionId, t.outcomeId), index().on(t.outcomeId)],
)

export const rubricLevels = pgTable(
  'rubric_levels',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    criterionId: uuid()
      .notNull()
      .references(() => rubricCriteria.id),
    position: integer().notNull(),
    title: text().notNull(),
    points: integer().notNull(), // hundredths of a point; the top of the range when `pointsFrom` is set
    pointsFrom: integer(), // hundredths: the level stands for a range from here to `points`
    descriptor: text().notNull(),
  },
  t => [index().on(t.criterionId)],
)

/** What can differ between two activities of one kind. */
export interface ActivitySettings extends Partial<TalkSettings> {
  readonly writeFirst: boolean
  readonly editMinutes: number // how long one's own can be changed or withdrawn after posting
  readonly hiddenUntil?: string | null // an instant until which classmates' contributions stay hidden from everyone but staff
  readonly rests?: readonly number[] // weeks of the term in which nothing is asked for
  readonly review?: ReviewSettings // of a peer review
  readonly wiki?: WikiSettings
  readonly lexicon?: LexiconSettings
  readonly reading?: ReadingSettings
}

export const activities = pgTable(
  'activities',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    unitId: uuid().references(() => units.id),
    categoryId: uuid().references(() => categories.id),
    kind: text({ enum: ACTIVITY_KINDS }).notNull(),
    title: text().notNull(),
    summary: text().notNull(), // the brief in a sentence or two
    brief: jsonb().$type<RichNode>().notNull(),
    briefHtml: text().notNull(),
    state: text({ enum: ['draft', 'scheduled', 'published'] })
      .notNull()
      .default('draft'),
    settings: jsonb().$type<ActivitySettings>().notNull(),
    opensAt: instant().notNull(),
    points: integer(), // hundredths; null: not marked
    pointStep: integer().notNull().default(50), // hundredths a mark is rounded to
    lateRule: jsonb().$type<LateRule>().notNull(),
    combine: jsonb().$type<CombineRule>(), // marked contribution by contribution, and how these make the mark; null: by rubric or by hand
    rubricVersionId: uuid().references(() => rubricVersions.id),
    practice: boolean().notNull().default(false),
    scale: text({ enum: SCALES }).notNull().default('points'),
    gradingScaleId: uuid().references(() => gradingScales.id),
    passPercent: integer(), // of the points; null: no pass mark
    groupMark: boolean().notNull().default(false), // one mark for the whole group
    returnTogether: boolean().notNull().default(true),
    audience: jsonb().$type<Audience>().notNull().default({ kind: 'everyone' }),
    // what the settings point to, so that the database knows it is there; both have a foreign key, checked at the commit
    groupPlanId: uuid().generatedAlwaysAs(sql`(audience ->> 'groupPlanId')::uuid`),
    textId: uuid().generatedAlwaysAs(sql`(settings -> 'reading' ->> 'textId')::uuid`),
    starter: jsonb().$type<RichNode>(), // the instructor's opening example
    starterHtml: text(),
    spokenFileId: uuid().references((): AnyPgColumn => files.id),
    tellOnPublish: boolean().notNull().default(true), // a scheduled one: whether students are told when it opens
    publishedAt: instant(),
    closedToWords: boolean().notNull().default(false), // students write nothing new in it, whatever its times
    lockedAt: instant(), // settings cannot be changed until it is unlocked
    isTemplate: boolean().notNull().default(false), // kept in the library, not on the plan
    position: integer().notNull(),
    version: integer().notNull().default(1),
  },
  t => [
    index().on(t.seminarId),
    index().on(t.groupPlanId),
    index().on(t.textId),
    index('activities_to_publish')
      .on(t.opensAt)
      .where(sql`state = 'scheduled'`),
  ],
)

/** Other seminars that take part in an activity, with the home of which everything else is shared. */
export const jointSeminars = pgTable(
  'joint_seminars',
  {
    activityId: uuid()
      .notNull()
      .references(() => activities.id, { onDelete: 'cascade' }),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
  },
  t => [primaryKey({ columns: [t.activityId, t.seminarId] }), index().on(t.seminarId)],
)

export const phases = pgTable(
  'phases',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    name: text({ enum: PHASES }).notNull(),
    startsAt: instant().notNull(),
    endsAt: instant().notNull(),
    position: integer().notNull(),
  },
  t => [index().on(t.activityId), index().on(t.name, t.startsAt)],
)

export const expectations = pgTable(
  'expectations',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    rule: jsonb().$type<ExpectationRule>().notNull(),
    needed: boolean().notNull().default(true), // needed before a student counts as ready to mark
    position: integer().notNull(),
  },
  t => [index().on(t.activityId)],
)

export const extensions = pgTable(
  'extensions',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    enrolmentId: uuid()
      .notNull()
      .references(() => enrolments.id),
    dueAt: instant().notNull(),
    reason: text().notNull(),
  },
  t => [uniqueIndex().on(t.activityId, t.enrolmentId)],
)

/** A prompt written ahead and released at its time; numbered in the order of release. */
export const prompts = pgTable(
  'prompts',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    activityId: uuid()
      .notNull()
      .references(() => activities.id),
    position: integer().notNull(),
    doc: jsonb().$type<RichNode>().notNull(),
    html: text().notNull(),
    releaseAt: instant().notNull(),
  },
  t => [index().on(t.activityId)],
)

/** Pictures, recordings and papers, kept with everything else so that one database holds a seminar whole. */
export const files = pgTable(
  'files',
  {
    id: id(),
    seminarId: uuid()
      .notNull()
      .references(() => seminars.id),
    madeBy: uuid()
      .notNull()
      .references(() => enrolments.id),
    name: text().notNull(),
    type: text().notNull(), // media type, from what the bytes are, not from what they were called
    size: integer().notNull(), // bytes
    transcript: text(), // of a recording: WebVTT
    textHtml: text(), // of a document: its text, sanitised, so that nobody has to download it
    paperWords: text(), // of a PDF that is read without names: its words, so that names are found in them; empty: its pages are pictures
    words: integer(), // in its text; null: it has none that is known
    withoutMetadata: boolean().notNull().default(false), // what its program wrote into it about people was taken out
    bytes: bytes().notNull(),
    madeAt: madeAt(),
    begunAt: instant(), // when its upload began; null: at once
  },
  t => [index().on(t.seminarId)],
)
