import { parse } from 'csv-parse/sync'
import { noteActs } from '#server/services/auditTrail'
import { and, eq } from 'drizzle-orm'
import {
  compareMarks,
  type KnownMark,
  type MarkFault,
  type MarkRow,
  type MarksCompared,
} from '#core/marking/results/compareMarks'
import { worthOf } from '#core/marking/showMark'
import { columnsOf } from '#core/people/roster/rosterHeadings'
import { decodeText } from '#core/people/roster/decodeText'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, marks, persons } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { loadPlan, participants } from '#server/services/planning'
import { writePoints } from '#server/services/marking/gradebook/writePoints'
import { unseenBy } from '#server/services/marking/secondMarks'
import { withIdempotency } from '#server/services/idempotency'
import type { MarksPreview } from '#shared/marking/gradebook'

const POINTS = ['points', 'mark', 'score', 'result', 'grade']

/** What a file of marks would change in one activity, before anything is written. */
export async function previewMarks(db: Db, actor: ActivityActor, base64: string): Promise<MarksPreview> {
  const compared = await compare(db, actor, base64)
  return {
    title: actor.activity.title,
    changes: [...compared.changes],
    same: compared.same,
    empty: compared.empty,
    used: { ...compared.used },
    faults: compared.faults.map(f => ({ line: f.line, who: f.who, fault: FAULTS[f.fault] })),
  }
}

/** Takes in what a file of marks changes, all or nothing; rows that cannot be taken are passed over as the preview said. */
export function importMarks(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly base64: string; readonly reason: string; readonly name: string },
  now: Date,
): Promise<{ changed: number }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const { changes } = await compare(tx, actor, write.base64)
    if (changes.length > 0 && write.reason === '')
      throw refusedField('reason', 'reason', 'Say where these marks come from; it is kept with each.')
    const sets = changes.map(({ enrolmentId, from, to }) => ({
      ...{ enrolmentId, was: from, points: to, reason: write.reason },
    }))
    await writePoints(tx, actor, sets, now)
    await noteActs(tx, actor, now, {
      act: 'marksImported',
      subjectId: actor.activity.id,
      detail: { file: write.name, changed: changes.length },
    })
    return { changed: changes.length }
  })
}

const FAULTS: Readonly<Record<MarkFault['fault'], string>> = {
  unknown: 'nobody here goes by this',
  ambiguous: 'two people go by this name; use mail address or student number',
  notANumber: 'this is no number of points',
  outside: 'outside what there is to get',
  twice: 'this student stands in the file already',
}

async function compare(db: Db, actor: ActivityActor, base64: string): Promise<MarksCompared> {
  const rows = rowsOf(Buffer.from(base64, 'base64'), actor.activity.title)
  const [plan, everyone, stored, hidden] = await Promise.all([
    loadPlan(db, actor.activity),
    participants(db, actor.activity),
    db
      .select({
        enrolmentId: marks.enrolmentId,
        state: marks.state,
        points: marks.points,
        returned: marks.returned,
      })
      .from(marks)
      .where(eq(marks.activityId, actor.activity.id)),
    unseenBy(db, actor),
  ])
  const students = everyone.filter(s => plan.isMeant(s) && !hidden.has(s.enrolmentId))
  const contacts = new Map(
    (
      await db
        .select({ id: enrolments.id, email: persons.email, number: enrolments.studentNumber })
        .from(enrolments)
        .innerJoin(persons, eq(persons.id, enrolments.personId))
        .where(and(eq(enrolments.seminarId, actor.seminar.id)))
    ).map(c => [c.id, c]),
  )
  const known = students.map((s): KnownMark => {
    const mark = stored.find(m => m.enrolmentId === s.enrolmentId)
    const pointsNow = () => {
      if (mark) return mark.state === 'returned' ? (mark.returned?.points ?? null) : mark.points
      return null
    }
    return {
      enrolmentId: s.enrolmentId,
      name: s.name,
      givenName: s.givenName,
      familyName: s.familyName,
      email: contacts.get(s.enrolmentId)?.email ?? '',
      studentNumber: contacts.get(s.enrolmentId)?.number ?? null,
      points: pointsNow(),
    }
  })
  return compareMarks(rows, known, worthOf(actor.activity))
}

/** Rows of a CSV in whatever encoding and with whatever separator; its columns are known by their headings. */
function rowsOf(bytes: Buffer, title: string): MarkRow[] {
  const { text, badLines } = decodeText(bytes)
  if (badLines.length > 0)
    throw refusedField(
      'file',
      'encoding',
      `Line ${badLines[0]} mixes two encodings and cannot be read safely. Save the file as UTF-8 and choose it again.`,
    )
  const first = text.split(/\r?\n/, 1)[0] ?? ''
  const delimiter = [';', '\t', ',']
    .map(d => [d, first.split(d).length] as const)
    .sort((a, b) => b[1] - a[1])[0]![0]
  let table: string[][]
  try {
    table = parse(text, {
      delimiter,
      bom: true,
      relax_column_count: true,
      skip_empty_lines: false,
      relax_quotes: true,
    }) as string[][]
  } catch {
    throw refusedField(
      'file',
      'notCsv',
      'This file could not be read as CSV. Save it as CSV in UTF-8 and choose it again.',
    )
  }
  const header = table[0] ?? []
  const head = header.map(h => h.trim().toLocaleLowerCase().replace(/[_-]/g, ' '))
  const own = head.findIndex(
    h => h.replace(/\s*\(of [\d.]+\)$/, '') === title.toLocaleLowerCase().replace(/[_-]/g, ' '),
  )
  const points = own >= 0 ? own : (POINTS.map(p => head.indexOf(p)).find(i => i >= 0) ?? -1)
  const columns = columnsOf(header)
  const names = [columns.email, columns.studentNumber, columns.name, columns.familyName]
  if (names.every(c => c === undefined) || points < 0)
    throw refusedField(
      'file',
      'headings',
      'The first line must name the columns: mail, student number or name, and “points” or the activity’s title.',
    )
  return table
    .slice(1)
    .flatMap((r, i) =>
      r.every(c => c.trim() === '')
        ? []
        : [{ line: i + 2, keys: keysOf(r, columns), points: r[points] ?? '' }],
    )
}

/** What a row says of whose it is: in a column headed "name" or "student" anything may stand. */
function keysOf(row: readonly string[], columns: ReturnType<typeof columnsOf>): MarkRow['keys'] {
  const cell = (column: number | undefined) => (column === undefined ? '' : (row[column] ?? '').trim())
  const [given, family] = [cell(columns.givenName), cell(columns.familyName)]
  const mail = cell(columns.email)
  if (mail !== '' && !mail.includes('@')) return { any: mail } // no address, whatever its heading says
  return {
    mail,
    number: cell(columns.studentNumber),
    ...(columns.name === undefined ? { name: `${given} ${family}`.trim() } : { any: cell(columns.name) }),
  }
}
