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
 * Columns are known by their headings, in any order: e-mail; name, or given and family name; section, student number
 * and role if they are there. A name in one column is "Family, Given" with a comma, else its last word is the family name.
 */
export function readRosterCsv(bytes: Uint8Array): Roster {
  const { text, badLines } = decodeText(bytes)
  const table = readTable(text)
  const faults: RosterFault[] = [...table.faults]
  if (table.header.length === 0) return { rows: [], faults }
  const column = columnsOf(table.header)
  if (column.email === undefined) return { rows: [], faults: [{ code: 'noHeader', line: 1 }] }
  if (column.name === undefined && (column.givenName === undefined || column.familyName === undefined))
    return { rows: [], faults: [{ code: 'noNames', line: 1 }] }
  if (table.rows.length > MOST_ROWS)
    return { rows: [], faults: [{ code: 'tooMany', line: table.rows[MOST_ROWS]!.line }] }
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
  const used = Object.entries(column)
    .sort(([, a], [, b]) => a - b)
    .map(([field, at]) => ({ heading: table.header[at]!, field: field as RosterColumn })) // the keys of that object
  const taken = new Set(Object.values(column))
  return {
    rows,
    faults: faults.sort((a, b) => a.line - b.line),
    columns: { used, unused: table.header.filter((heading, at) => heading !== '' && !taken.has(at)) },
  }
}

function readRow(line: number, cell: (name: RosterColumn) => string): RosterRow | RosterFault {
  const used = (
    ['email', 'name', 'givenName', 'familyName', 'section', 'studentNumber', 'role'] as const
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
  if (given || family) return given && family ? { givenName: given, familyName: family } : null
  const whole = cell('name')
  if (whole.includes(',')) {
    const [last, ...first] = whole.split(',').map(part => part.trim())
    return last && first.join(' ') ? { givenName: first.join(' '), familyName: last } : null
  }
  const words = whole.split(/\s+/).filter(Boolean)
  return words.length >= 2 ? { givenName: words.slice(0, -1).join(' '), familyName: words.at(-1)! } : null
}
