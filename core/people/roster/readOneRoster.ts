import { unzipSync } from 'fflate'
import { decodeText } from './decodeText'
import { isFormula } from './readRosterCsv'
import { readTable, type TableRow } from './readTable'
import { MOST_ROWS, type Roster, type RosterFault, type RosterRow } from './rosterRow'

const NEEDED = ['users.csv', 'enrollments.csv'] as const
const LARGEST = 60_000_000 // bytes of one file when unpacked
const ROLES: Readonly<Record<string, RosterRow['role']>> = {
  student: 'student',
  teacher: 'instructor',
  aide: 'assistant',
  proctor: 'observer',
}

/**
 * People of an archive in the OneRoster 1.2 CSV binding (1EdTech): `users.csv` and `enrollments.csv`, with the titles of
 * `classes.csv` as sections. Rows marked `tobedeleted` are left out. Lines are those of `users.csv`, or of `enrollments.csv`
 * where an enrolment names somebody who is not there.
 */
export function readOneRoster(archive: Uint8Array): Roster {
  const files = unpack(archive)
  if (!files) return { rows: [], faults: [{ code: 'notAnArchive', line: 0 }] }
  const missing = NEEDED.filter(name => !files.has(name))
  if (missing.length > 0)
    return { rows: [], faults: missing.map(value => ({ code: 'missingFile', line: 0, value })) }
  const faults: RosterFault[] = []
  const read = (name: string) => records(files.get(name), faults)
  const users = new Map(read('users.csv').map(user => [user.get('sourcedId'), user]))
  const classes = new Map(read('classes.csv').map(c => [c.get('sourcedId'), c.get('title')]))
  if (users.size > MOST_ROWS) return { rows: [], faults: [{ code: 'tooMany', line: MOST_ROWS + 2 }] }
  const rows = new Map<string, RosterRow>()
  const emails = new Map<string, { line: number; id: string }>()
  for (const enrolment of read('enrollments.csv')) {
    const id = enrolment.get('userSourcedId')
    const user = users.get(id)
    if (!user) {
      faults.push({ code: 'badReference', line: enrolment.line, value: id })
      continue
    }
    if (rows.has(id)) continue // of somebody in several classes the first is the section
    const role = ROLES[enrolment.get('role').toLowerCase()]
    const row = role
      ? rowOf(user, role, classes.get(enrolment.get('classSourcedId')) ?? null)
      : { code: 'badRole' as const, line: enrolment.line, value: enrolment.get('role') }
    if ('code' in row) {
      faults.push(row)
      continue
    }
    const first = emails.get(row.email)
    if (first && first.id !== id) {
      faults.push({ code: 'twice', line: row.line, value: row.email, first: first.line })
      continue
    }
    emails.set(row.email, { line: row.line, id })
    rows.set(id, row)
  }
  return { rows: [...rows.values()], faults }
}

interface OneRosterRecord {
  readonly line: number
  readonly get: (column: string) => string
}

function records(bytes: Uint8Array | undefined, faults: RosterFault[]): OneRosterRecord[] {
  if (!bytes) return []
  const { text, badLines } = decodeText(bytes)
  const table = readTable(text)
  faults.push(
    ...table.faults.filter(f => f.code !== 'empty'),
    ...badLines.map(line => ({ code: 'encoding' as const, line, value: '' })),
  )
  const column = new Map(table.header.map((name, i) => [name, i]))
  return table.rows
    .map(row => ({ line: row.line, get: (name: string) => cellOf(row, column.get(name)) }))
    .filter(r => r.get('status') !== 'tobedeleted')
}

const cellOf = (row: TableRow, at: number | undefined): string =>
  at === undefined ? '' : (row.cells[at] ?? '').normalize('NFC')

function rowOf(
  user: OneRosterRecord,
  role: RosterRow['role'],
  section: string | null,
): RosterRow | RosterFault {
  const [email, givenName, familyName] = [
    user.get('email').toLowerCase(),
    user.get('preferredFirstName') || user.get('givenName'),
    user.get('preferredLastName') || user.get('familyName'),
  ]
  const formula = [email, givenName, familyName, section ?? ''].find(isFormula)
  if (formula !== undefined) return { code: 'formula', line: user.line, value: formula.slice(0, 60) }
  if (email === '') return { code: 'noEmail', line: user.line }
  if (!email.includes('@')) return { code: 'badEmail', line: user.line, value: email.slice(0, 60) }
  if (!givenName && !familyName) return { code: 'noName', line: user.line }
  return {
    line: user.line,
    email,
    givenName,
    familyName,
    section,
    group: null,
    studentNumber: user.get('identifier') || null,
    role,
  }
}

/** Files of the archive by name, folders taken off; null when it is none or would unpack to too much. */
function unpack(archive: Uint8Array): Map<string, Uint8Array> | null {
  try {
    const files = unzipSync(archive, {
      filter: file => file.name.endsWith('.csv') && file.originalSize <= LARGEST,
    })
    return new Map(Object.entries(files).map(([name, bytes]) => [name.split('/').at(-1)!, bytes]))
  } catch {
    return null // whatever is wrong with it, it is not an archive that can be read
  }
}
