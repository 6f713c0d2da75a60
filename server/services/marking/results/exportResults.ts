import { and, asc, eq, isNotNull, notExists } from 'drizzle-orm'
import { gradeLetterOf, percentOf } from '#core/marking/gradebook/gradebook'
import { showMark, letterOfMark } from '#core/marking/showMark'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, enrolments, marks, persons, secondMarks } from '#server/database/schema'
import { letterView } from '#server/services/marking/returnedLetter'
import { gradebook } from '#server/services/marking/gradebook/gradebook'
import { CELL_COUNTS, CELL_STATES, type Gradebook } from '#shared/marking/gradebook'
import { csvOf, lettersPdf, lettersZip, tablesZip, workbook } from './inThread'
import type { Cell } from './tables'

export interface ResultFile {
  readonly name: string
  readonly type: string
  readonly bytes: Buffer
}
/** Results to take away. Only returned marks are in them: what is held is nobody's but the markers'. */
export async function exportResults(
  db: Db,
  actor: Actor,
  form: 'csv' | 'xlsx' | 'oneroster' | 'pdf' | 'zip',
  activityId: string | null,
  now: Date,
): Promise<ResultFile> {
  const base = `${actor.seminar.code} results`.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
  switch (form) {
    case 'csv':
      return {
        name: `${base}.csv`,
        type: 'text/csv; charset=utf-8',
        bytes: await csvOf(await table(db, actor, now)),
      }
    case 'xlsx':
      return {
        name: `${base}.xlsx`,
        type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        bytes: await workbook(await table(db, actor, now)),
      }
    case 'oneroster':
      return {
        name: `${base} OneRoster.zip`,
        type: 'application/zip',
        bytes: await oneRoster(db, actor, now),
      }
    case 'pdf':
      return {
        name: `${base} letters.pdf`,
        type: 'application/pdf',
        bytes: await lettersPdf(await returnedLetters(db, actor, activityId)),
      }
    case 'zip': {
      const letters = await returnedLetters(db, actor, activityId)
      const paths = new Map<string, Letter>()
      for (const l of letters) paths.set(pathOf(paths, l), l)
      return {
        name: `${base} letters.zip`,
        type: 'application/zip',
        bytes: await lettersZip([...paths], now),
      }
    }
  }
}

/** Where a letter stands in the archive: of two of one name the second gets a number. */
const pathOf = (taken: ReadonlyMap<string, unknown>, l: Letter): string => {
  const folder = l.letter.title.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
  const name = l.student.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
  for (let n = 1; ; n++) {
    const path = `${folder}/${name}${n > 1 ? ` ${n}` : ''}.pdf`
    if (!taken.has(path)) return path
  }
}

async function people(db: Db, actor: Actor) {
  const rows = await db
    .select({ id: enrolments.id, email: persons.email, number: enrolments.studentNumber })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(eq(enrolments.seminarId, actor.seminar.id))
  return new Map(rows.map(r => [r.id, r]))
}

async function table(db: Db, actor: Actor, now: Date): Promise<Cell[][]> {
  const [book, known] = await Promise.all([gradebook(db, actor, now), people(db, actor)])
  const sections = new Map(book.sections.map(s => [s.id, s.title]))
  const head: Cell[] = [
    'Family name',
    'Given name',
    'Mail',
    'Student number',
    'Section',
    ...book.columns.map(c => `${c.title} (of ${c.max / 100})`),
    ...book.categories.map(c => `${c.title} (%)`),
    'Final (%)',
    ...(book.bands ? ['Letter'] : []),
  ]
  return [
    head,
    ...book.rows.map((r): Cell[] => [
      r.familyName,
      r.givenName,
      known.get(r.enrolmentId)?.email ?? '',
      known.get(r.enrolmentId)?.number ?? '',
      sections.get(r.sectionId ?? '') ?? '',
      ...book.columns.map((c, i) => {
        if (returned(r, i)) return (r.points[i] ?? 0) / 100
        if (r.counts[i] === CELL_COUNTS.excused) return 'excused'
        // it counts as nothing, as the gradebook shows it
        if (r.counts[i] === CELL_COUNTS.missing || r.counts[i] === CELL_COUNTS.droppedMissing) return 0
        return null
      }),
      ...r.shares.map(s => (s === null ? null : percentOf(s))),
      r.share === null ? null : percentOf(r.share),
      ...(book.bands ? [r.share === null ? '' : (gradeLetterOf(r.share, book.bands) ?? '')] : []),
    ]),
  ]
}

const returned = (row: Gradebook['rows'][number], i: number) => row.states[i] === CELL_STATES.returned

/**
 * Line items and results as OneRoster 1.2 CSV: the files lineItems.csv and results.csv with their manifest.
 * Source: 1EdTech OneRoster 1.2 CSV binding.
 */
async function oneRoster(db: Db, actor: Actor, now: Date): Promise<Buffer> {
  const [book, known] = await Promise.all([gradebook(db, actor, now), people(db, actor)])
  const stamp = now.toISOString()
  const { seminar } = actor
  const categories = book.categories.map(c => [c.id, 'active', stamp, c.title, c.weight])
  const items = book.columns.map(c => [
    c.id,
    'active',
    stamp,
    c.title,
    '',
    seminar.firstDay,
    c.closesAt.slice(0, 10),
    seminar.id,
    c.categoryId ?? '',
    '',
    0,
    c.max / 100,
  ])
  const results = book.rows.flatMap(r =>
    book.columns.flatMap((c, i) =>
      returned(r, i) || r.counts[i] === 'x'
        ? [
            [
              `${c.id}:${r.enrolmentId}`,
              'active',
              stamp,
              c.id,
              known.get(r.enrolmentId)?.number ?? r.enrolmentId,
              r.counts[i] === 'x' ? 'exempt' : 'fully graded',
              r.counts[i] === 'x' ? '' : (r.points[i] ?? 0) / 100,
              stamp.slice(0, 10),
              showMark({
                points: r.points[i] ?? 0,
                max: c.max,
                scale: c.scale,
                letter: letterOfMark(r.points[i] ?? 0, c.max, c.bands ? { bands: c.bands } : null),
              }),
            ],
          ]
        : [],
    ),
  )
  const files = {
    'manifest.csv': [
      ['propertyName', 'value'],
      ['manifest.version', '1.0'],
      ['oneroster.version', '1.2'],
      ['file.categories', 'bulk'],
      ['file.lineItems', 'bulk'],
      ['file.results', 'bulk'],
      ['source.systemName', 'Jovrel'],
    ],
    'categories.csv': [['sourcedId', 'status', 'dateLastModified', 'title', 'weight'], ...categories],
    'lineItems.csv': [
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'title',
        'description',
        'assignDate',
        'dueDate',
        'classSourcedId',
        'categorySourcedId',
        'gradingPeriodSourcedId',
        'resultValueMin',
        'resultValueMax',
      ],
      ...items,
    ],
    'results.csv': [
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'lineItemSourcedId',
        'studentSourcedId',
        'scoreStatus',
        'score',
        'scoreDate',
        'textScore',
      ],
      ...results,
    ],
  }
  return tablesZip(files, now)
}

interface Letter {
  readonly letter: ReturnType<typeof letterView>
  readonly seminar: string
  readonly student: string
  readonly at: string
}

/**
 * Letters as they were returned, of one activity or all, by activity and then student; without those the
 * actor is to mark a second time, unseen.
 */
export async function returnedLetters(
  db: Db,
  actor: Actor,
  activityId: string | null,
  enrolmentId: string | null = null,
): Promise<Letter[]> {
  const asked = db
    .select({ id: secondMarks.id })
    .from(secondMarks)
    .where(
      and(
        eq(secondMarks.activityId, marks.activityId),
        eq(secondMarks.enrolmentId, marks.enrolmentId),
        eq(secondMarks.markerId, actor.enrolment.id),
        eq(secondMarks.state, 'asked'),
      ),
    )
  const rows = await db
    .select({
      activityId: marks.activityId,
      kind: activities.kind,
      title: activities.title,
      returned: marks.returned,
      returnedAt: marks.returnedAt,
      name: enrolments.name,
      givenName: enrolments.givenName,
    })
    .from(marks)
    .innerJoin(activities, eq(activities.id, marks.activityId))
    .innerJoin(enrolments, eq(enrolments.id, marks.enrolmentId))
    .where(
      and(
        eq(enrolments.seminarId, actor.enrolment.seminarId),
        isNotNull(marks.returned),
        activityId ? eq(marks.activityId, activityId) : undefined,
        enrolmentId ? eq(marks.enrolmentId, enrolmentId) : undefined,
        notExists(asked),
      ),
    )
    .orderBy(asc(activities.position), asc(enrolments.familyName), asc(enrolments.givenName))
  const at = (d: Date) =>
    new Intl.DateTimeFormat('en-GB', { timeZone: actor.seminar.timeZone, dateStyle: 'long' }).format(d)
  return rows.map(r => ({
    letter: letterView(r.returned!, {
      activityId: r.activityId,
      kind: r.kind,
      title: r.title,
      to: r.givenName,
      returnedAt: r.returnedAt!.toISOString(),
    }),
    seminar: `${actor.seminar.title} · ${actor.seminar.code}`,
    student: r.name,
    at: at(r.returnedAt!),
  }))
}
