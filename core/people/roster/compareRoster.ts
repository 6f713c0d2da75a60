import { keptNames } from '../names'
import type { RosterRow } from './rosterRow'

/** Somebody who is in the seminar already. */
export interface Enrolled {
  readonly enrolmentId: string
  readonly email: string
  readonly givenName: string
  readonly familyName: string
  readonly section: string | null
  readonly studentNumber: string | null
  readonly role: RosterRow['role']
  readonly state: 'active' | 'withdrawn' | 'practice'
  /** Whether the address belongs to an account, to another seminar or to a right, and is not this seminar's to change. */
  readonly isElsewhere: boolean
  /** Whether they chose the name themselves: what a file calls them changes nothing. */
  readonly nameIsOwn: boolean
}

export const ROSTER_FIELDS = ['email', 'givenName', 'familyName', 'section', 'studentNumber', 'role'] as const
const NAMES: readonly RosterChange['field'][] = ['givenName', 'familyName']

export interface RosterChange {
  readonly field: (typeof ROSTER_FIELDS)[number]
  readonly from: string | null
  readonly to: string | null
}

export interface RosterComparison {
  readonly added: readonly RosterRow[]
  readonly changed: ReadonlyArray<{
    readonly enrolmentId: string
    readonly row: RosterRow
    readonly changes: readonly RosterChange[]
  }>
  readonly back: ReadonlyArray<{
    readonly enrolmentId: string
    readonly row: RosterRow
    readonly changes: readonly RosterChange[]
  }> // withdrawn people who come back
  /** Lines that would give another address to somebody who is somebody elsewhere. Nothing of them is done. */
  readonly refused: readonly RosterRow[]
  readonly same: number
  readonly enrolmentOf: ReadonlyMap<number, string> // who is in the seminar already, by the line that is about them
  readonly missing: readonly Enrolled[] // students of the seminar whom the file does not have
}

/**
 * What a roster would change. People are known by their student number, else by their e-mail address. A column the file
 * does not have (an empty section, an empty number) changes nothing. Staff who are not in the file are never missing. Names are
 * those of the enrolment, unless somebody chose theirs. Whoever is somebody elsewhere is not given another address: such a
 * line is refused as a whole.
 */
export function compareRoster(rows: readonly RosterRow[], enrolled: readonly Enrolled[]): RosterComparison {
  const people = enrolled.filter(e => e.state !== 'practice')
  const byNumber = new Map(people.flatMap(e => (e.studentNumber ? [[e.studentNumber, e] as const] : [])))
  const byEmail = new Map(people.map(e => [e.email, e]))
  const met = new Set<string>()
  const enrolmentOf = new Map<number, string>()
  const added: RosterRow[] = []
  const changed: Array<RosterComparison['changed'][number]> = []
  const back: Array<RosterComparison['back'][number]> = []
  const refused: RosterRow[] = []
  let same = 0
  for (const row of rows) {
    const known = byEmail.get(row.email) ?? (row.studentNumber ? byNumber.get(row.studentNumber) : undefined)
    if (!known || met.has(known.enrolmentId)) {
      added.push(row)
      continue
    }
    met.add(known.enrolmentId)
    enrolmentOf.set(row.line, known.enrolmentId)
    const changes = ROSTER_FIELDS.flatMap(field => {
      if (known.nameIsOwn && NAMES.includes(field)) return []
      // whoever has one name alone has it in both places
      const to = field === 'familyName' ? keptNames(row).familyName : row[field]
      return to !== null && to !== known[field] ? [{ field, from: known[field], to }] : []
    })
    if (known.isElsewhere && changes.some(c => c.field === 'email')) {
      refused.push(row)
      continue
    }
    const entry = { enrolmentId: known.enrolmentId, row, changes }
    if (known.state === 'withdrawn') back.push(entry)
    else if (changes.length > 0) changed.push(entry)
    else same++
  }
  return {
    added,
    changed,
    back,
    refused,
    same,
    enrolmentOf,
    missing: people.filter(e => e.role === 'student' && e.state === 'active' && !met.has(e.enrolmentId)),
  }
}
