import { decodeText } from './decodeText'
import { readTable } from './readTable'
import { columnsOf, type RosterColumn } from './rosterHeadings'
import { MOST_ROWS, type Roster, type RosterFault, type RosterRow } from './rosterRow'

const ROLE_WORDS: Readonly<Record<string, RosterRow['role']>> = {
  '': 'student',
  student: 'student',
  learner: 'student',
  assistant: 'assistant',
  teachingassistant: 'assistant',
  ta: 'assistant',
  instructor: 'instructor',
  teacher: 'instructor',
  observer: 'observer',
  auditor: 'observer',
}
const EMAIL = /^[^\s@<>()[\],;:"]+@[^\s@<>()[\],;:"]+\.[^\s@<>()[\],;:".]{2,}$/
const LONGEST = 120

/**
 * People of a roster in separated values. Every row that cannot be taken is named with its line and reason; nothing is
 * guessed. A cell that begins as a formula is refused, so that it reaches no spreadsheet later on.
 *
 * Columns are known by their headings, in any order: e-mail; name, or given and family name; section, group,
 * student number and role if they are there; or as somebody says what each holds. A name in one column is
 * "Family, Given" with a comma, else
 * its last word is the family name; a single word is a name alone.
 *
 * @param assigned what each column holds, in their order; left out: by their headings
 */
export function readRosterCsv(bytes: Uint8Array, assigned?: ReadonlyArray<RosterColumn | null>): Roster {
  const { text, badLines } = decodeText(bytes)
  const table = readTable(text)
  const faults: RosterFault[] = [...table.faults]
  if (table.header.length === 0) return { rows: [], faults }
  const column = assigned ? columnsAsSaid(assigned, table.header.length) : columnsOf(table.header)
  const fieldAt = new Map(Object.entries(column).map(([field, at]) => [at, field as RosterColumn])) // the keys of that object
  const columns = table.header.map((heading, at) => ({ heading, field: fieldAt.get(at) ?? null }))
  const refuse = (fault: RosterFault): Roster => ({ rows: [], faults: [fault], columns })
  if (column.email === undefined) return refuse({ code: 'noHeader', line: 1 })
  if (column.name === undefined && column.givenName === undefined && column.familyName === undefined)
    return refuse({ code: 'noNames', line: 1 })
  if (table.rows.length > MOST_ROWS) return refuse({ code: 'tooMany', line: table.rows[MOST_ROWS]!.line })
  const bad = new Set(badLines)
  const rows: RosterRow[] = []
  const seen = new Map<string, number>()
  const numbers = new Map<string, number>()
  for (const { line, cells } of table.rows) {
    const cell = (name: RosterColumn) =>
      column[name] === undefined ? '' : (cells[column[name]] ?? '').normalize('NFC')
    const row = bad.has(line)
      ? { code: 'encoding' as const, line, value: cells.join(' ').slice(0, 60) }
      : readRow(line, cell)
    if ('code' in row) {
      faults.push(row)
      continue
    }
    const first = seen.get(row.email)
    if (first !== undefined) {
      faults.push({ code: 'twice', line, value: row.email, first })
      continue
    }
    const sameNumber = row.studentNumber === null ? undefined : numbers.get(row.studentNumber)
    if (sameNumber !== undefined) {
      faults.push({ code: 'twice', line, value: row.studentNumber!, first: sameNumber })
      continue
    }
    seen.set(row.email, line)
    if (row.studentNumber !== null) numbers.set(row.studentNumber, line)
    rows.push(row)
  }
  return { rows, faults: faults.sort((a, b) => a.line - b.line), columns }
}

/** Columns as somebody assigned them; of two for one thing the first. */
function columnsAsSaid(
  assigned: ReadonlyArray<RosterColumn | null>,
  width: number,
): Partial<Record<RosterColumn, number>> {
  const columns: Partial<Record<RosterColumn, number>> = {}
  for (const [at, field] of assigned.slice(0, width).entries())
    if (field !== null && columns[field] === undefined) columns[field] = at
  return columns
}

function readRow(line: number, cell: (name: RosterColumn) => string): RosterRow | RosterFault {
  const used = (
    ['email', 'name', 'givenName', 'familyName', 'section', 'group', 'studentNumber', 'role'] as const
  ).map(cell)
  const formula = used.find(isFormula)
  if (formula !== undefined) return { code: 'formula', line, value: formula.slice(0, 60) }
  const long = used.find(value => value.length > LONGEST)
  if (long !== undefined) return { code: 'tooLong', line, value: long.slice(0, 60) }
  const email = cell('email').toLowerCase()
  if (email === '') return { code: 'noEmail', line }
  if (!EMAIL.test(email)) return { code: 'badEmail', line, value: cell('email').slice(0, 60) }
  const names = namesOf(cell)
  if (!names) return { code: 'noName', line }
  const role =
    ROLE_WORDS[
      cell('role')
        .toLowerCase()
        .replace(/[^a-z]/g, '')
    ]
  if (!role) return { code: 'badRole', line, value: cell('role') }
  return {
    line,
    email,
    ...names,
    section: cell('section') || null,
    group: cell('group') || null,
    studentNumber: cell('studentNumber') || null,
    role,
  }
}

/** Whether a spreadsheet would run the cell instead of showing it. A plain number with a sign is none. */
export const isFormula = (value: string): boolean =>
  /^[=@\t\r]/.test(value) || (/^[+-]/.test(value) && !/^[+-]?[\d\s().-]+$/.test(value))

function namesOf(cell: (name: RosterColumn) => string): { givenName: string; familyName: string } | null {
  const given = cell('givenName')
  const family = cell('familyName')
  if (given || family) return given ? { givenName: given, familyName: family } : alone(family)
  const whole = cell('name')
  if (whole.includes(',')) {
    const [last = '', ...first] = whole.split(',').map(part => part.trim())
    const before = first.join(' ').trim()
    return before && last ? { givenName: before, familyName: last } : alone(before || last)
  }
  const words = whole.split(/\s+/).filter(Boolean)
  if (words.length < 2) return alone(words[0] ?? '')
  return { givenName: words.slice(0, -1).join(' '), familyName: words.at(-1)! }
}

/** A name that is the only one. */
const alone = (name: string) => (name === '' ? null : { givenName: name, familyName: '' })
