import { and, eq, getTableColumns, getTableName, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import { givenAlone, takeNamesOutOf, type GivenAlone, type Naming } from '#core/people/takeNamesOut'
import type { Db } from '#server/database/client'
import {
  activities,
  allocations,
  auditTrail,
  citations,
  closingAnswers,
  closingSurveys,
  contributionRevisions,
  contributions,
  excuses,
  extensions,
  files,
  letterReplies,
  mails,
  marks,
  messages,
  messageThreads,
  notices,
  pageVersions,
  prompts,
  secondMarks,
  wikiPages,
} from '#server/database/schema'

type Row = Record<string, unknown>

/** Whose name it is, and in which seminar. */
export interface Erasing {
  readonly seminarId: string
  readonly enrolmentId: string
  readonly name: Naming
}
interface Near {
  readonly enrolmentId: string
  readonly own: ReadonlySet<string> // contributions they wrote
  readonly threads: ReadonlySet<string> // of messages with them
}

/** A table with texts in which somebody may be named. */
interface NamedTexts {
  readonly table: PgTable & { readonly seminarId: PgColumn }
  readonly columns: readonly string[]
  /** Whether a row is to or by them: there the given name alone is theirs. */
  readonly isNear: (row: Row, near: Near) => boolean
  /** What staff are shown of other rows before somebody is erased; none of it is anybody's own still, or unnamed. */
  readonly shown?: {
    readonly what: string
    readonly words: readonly string[]
    readonly isOpen?: (row: Row) => boolean
    readonly id?: string // column with the id of what the row belongs to
    readonly of?: PgTable // and its table
  }
}
const nobody = () => false
const theirs = (row: Row, { enrolmentId }: Near) => row.enrolmentId === enrolmentId

const NAMED_TEXTS: readonly NamedTexts[] = [
  {
    table: contributions,
    columns: ['doc', 'html', 'text', 'detail', 'sentBack'],
    isNear: (r, { own }) => own.has(r.id as string) || own.has(r.parentId as string),
    shown: { what: 'a contribution', words: ['text'], isOpen: r => r.state !== 'draft' },
  },
  {
    table: contributionRevisions,
    columns: ['doc', 'html', 'text'],
    isNear: (r, { own }) => own.has(r.contributionId as string),
    shown: { what: 'an earlier version', words: ['text'], id: 'contributionId', of: contributions },
  },
  {
    table: marks,
    columns: [
      'letter',
      'letterText',
      'markerNote',
      'overrideReason',
      'excusedFrom',
      'returned',
      'before',
      'beforeTake',
    ],
    isNear: theirs,
    shown: { what: 'a letter', words: ['letterText', 'markerNote'] },
  },
  {
    table: letterReplies,
    columns: ['doc', 'html'],
    isNear: theirs,
  },
  {
    table: citations,
    columns: ['exact'],
    isNear: (r, { own }) => own.has(r.contributionId as string),
    shown: { what: 'a cited passage', words: ['exact'], id: 'contributionId', of: contributions },
  },
  { table: secondMarks, columns: ['remark'], isNear: theirs },
  {
    table: allocations,
    columns: ['setAsideReason', 'answerDoc', 'answerHtml'],
    isNear: (r, { enrolmentId }) => r.subjectId === enrolmentId || r.reviewerId === enrolmentId,
  },
  { table: excuses, columns: ['reason'], isNear: theirs },
  { table: extensions, columns: ['reason'], isNear: theirs },
  { table: notices, columns: ['text', 'detail'], isNear: nobody },
  { table: prompts, columns: ['doc', 'html'], isNear: nobody },
  {
    table: activities,
    columns: ['title', 'summary', 'brief', 'briefHtml', 'starter', 'starterHtml', 'settings'],
    isNear: nobody,
    shown: { what: 'an activity', words: ['title', 'summary'] },
  },
  {
    table: wikiPages,
    columns: ['title', 'links'],
    isNear: nobody,
    shown: { what: 'a page of a wiki', words: ['title'] },
  },
  {
    table: pageVersions,
    columns: ['summary'],
    isNear: nobody,
    shown: { what: 'a note on a version', words: ['summary'] },
  },
  { table: closingSurveys, columns: ['urns'], isNear: nobody },
  { table: closingAnswers, columns: ['answers'], isNear: theirs },
  {
    table: files,
    columns: ['name', 'transcript', 'textHtml', 'paperWords'],
    isNear: (r, { enrolmentId }) => r.madeBy === enrolmentId,
  },
  { table: mails, columns: ['subject', 'text'], isNear: nobody },
  { table: auditTrail, columns: ['detail'], isNear: (r, { enrolmentId }) => r.subjectId === enrolmentId },
  {
    table: messageThreads,
    columns: ['subject'],
    isNear: (r, { threads }) => threads.has(r.id as string),
  },
  { table: messages, columns: ['text'], isNear: (r, { threads }) => threads.has(r.threadId as string) },
]
/** What links of a wiki look for is kept in small letters. */
const KEYS_OF_PAGES: NamedTexts = {
  table: wikiPages,
  columns: ['titleKey', 'formerKeys', 'links'],
  isNear: nobody,
  shown: { what: 'a page of a wiki', words: [] },
}

/**
 * Takes a name out, wherever it stands in the seminar. Counts of words stay as they were counted.
 *
 * @param pointing keys of `findGivenAlone`, of rows in which the given name alone points to them
 */
export async function takeNameOut(db: Db, erasing: Erasing, pointing: readonly string[]): Promise<void> {
  const near = await nearOf(db, erasing)
  const chosen = new Set(pointing)
  const small = {
    given: erasing.name.given.toLowerCase(),
    family: erasing.name.family.toLowerCase(),
    email: erasing.name.email,
  }
  for (const [texts, name] of [
    ...NAMED_TEXTS.map(t => [t, erasing.name] as const),
    [KEYS_OF_PAGES, small] as const,
  ])
    for (const row of await rowsThatHold(db, texts, { ...erasing, name })) {
      const points = texts.isNear(row, near) || chosen.has(keyOf(texts, row) ?? '')
      await rewrite(db, texts, row, value => takeNamesOutOf(value, name, points))
    }
}

const MOST_SHOWN = 300

/** A place where the given name stands by itself, in something that is neither to nor by them. */
export interface PlaceOfGiven extends GivenAlone {
  readonly key: string // of the row: all places in it go or stay together
  readonly what: string
}

/** @returns the first 300 places, and how many there are */
export async function findGivenAlone(
  db: Db,
  erasing: Erasing,
): Promise<{ places: PlaceOfGiven[]; count: number }> {
  const near = await nearOf(db, erasing)
  const places: PlaceOfGiven[] = []
  for (const texts of NAMED_TEXTS) {
    if (!texts.shown) continue
    for (const row of await rowsThatHold(db, texts, erasing)) {
      const key = keyOf(texts, row)
      if (!key || texts.isNear(row, near)) continue
      const words = texts.shown.words.map(c => row[c]).filter(w => typeof w === 'string')
      for (const text of words)
        places.push(...givenAlone(text, erasing.name).map(p => ({ ...p, key, what: texts.shown!.what })))
    }
  }
  return { places: places.slice(0, MOST_SHOWN), count: places.length }
}

/** By which staff say what points to them; null for what they are not shown. */
function keyOf({ table, shown }: NamedTexts, row: Row): string | null {
  if (!shown || shown.isOpen?.(row) === false) return null
  return `${getTableName(shown.of ?? table)}:${String(row[shown.id ?? 'id'])}`
}

async function nearOf(db: Db, { enrolmentId }: Erasing): Promise<Near> {
  const own = await db
    .select({ id: contributions.id })
    .from(contributions)
    .where(eq(contributions.authorId, enrolmentId))
  const threads = await db
    .select({ id: messageThreads.id })
    .from(messageThreads)
    .where(eq(messageThreads.studentId, enrolmentId))
  return { enrolmentId, own: new Set(own.map(c => c.id)), threads: new Set(threads.map(t => t.id)) }
}

const columnsOf = (table: PgTable) => getTableColumns(table) as Record<string, PgColumn>

/** Columns that tell one row from another. */
function identityOf(table: PgTable): string[] {
  const all = columnsOf(table)
  const keys = Object.keys(all).filter(k => all[k]!.primary)
  return keys.length > 0
    ? keys
    : ['activityId', 'enrolmentId', 'contributionId', 'version'].filter(k => k in all)
}

const POINTERS = [
  'id',
  'parentId',
  'contributionId',
  'enrolmentId',
  'subjectId',
  'reviewerId',
  'madeBy',
  'threadId',
  'state',
]

/** Rows in which a part of the name stands, with what is needed of them. */
async function rowsThatHold(
  db: Db,
  { table, columns }: NamedTexts,
  { seminarId, name }: Erasing,
): Promise<Row[]> {
  const all = columnsOf(table)
  const parts = [name.family, name.given, name.email ?? ''].filter(Boolean)
  const holds: SQL[] = columns.flatMap(c =>
    parts.map(n => sql`${all[c]!}::text ilike ${`%${n.replace(/[\\%_]/g, '\\$&')}%`}`),
  )
  const wanted = [...identityOf(table), ...POINTERS.filter(k => k in all), ...columns]
  return db
    .select(Object.fromEntries([...new Set(wanted)].map(k => [k, all[k]!])))
    .from(table)
    .where(and(eq(table.seminarId, seminarId), sql`(${sql.join(holds, sql` or `)})`))
}

async function rewrite(
  db: Db,
  { table, columns }: NamedTexts,
  row: Row,
  change: (value: unknown) => unknown,
): Promise<void> {
  const changed = Object.fromEntries(
    columns.flatMap(c => {
      const now = change(row[c])
      return JSON.stringify(now) === JSON.stringify(row[c]) ? [] : [[c, now]]
    }),
  )
  if (Object.keys(changed).length === 0) return
  const all = columnsOf(table)
  await db
    .update(table)
    .set(changed)
    .where(and(...identityOf(table).map(k => eq(all[k]!, row[k]))))
}
