/** By what a row of a file says whose mark it is. */
export const MARK_KEYS = ['mail', 'number', 'name'] as const
export type MarkKey = (typeof MARK_KEYS)[number]

/** A row of a file of marks, as read: `line` as the file counts, from 1. */
export interface MarkRow {
  readonly line: number
  readonly keys: Readonly<Partial<Record<MarkKey | 'any', string>>> // cells that say who it is; `any`: by whatever it may be
  readonly points: string
}
export interface KnownMark {
  readonly enrolmentId: string
  readonly name: string
  readonly givenName: string
  readonly familyName: string
  readonly email: string
  readonly studentNumber: string | null
  readonly points: number | null
} // points in hundredths

export interface MarkChange {
  readonly line: number
  readonly enrolmentId: string
  readonly name: string
  readonly by: MarkKey // what the student was known by
  readonly from: number | null
  readonly to: number
}
export interface MarkFault {
  readonly line: number
  readonly who: string
  readonly fault: 'unknown' | 'ambiguous' | 'notANumber' | 'outside' | 'twice'
}
export interface MarksCompared {
  readonly changes: readonly MarkChange[]
  readonly same: number
  readonly empty: number
  readonly faults: readonly MarkFault[]
  readonly used: Readonly<Record<MarkKey, number>> // how many lines were taken by what
}

/**
 * What a file of marks would change. A person is known by mail address, where the row has none by student number, and by
 * name where it has neither, whatever the case; "Lee, Ann" is Ann Lee; a name two people bear is not guessed. An empty cell
 * changes nothing and is never zero.
 * @param max hundredths
 */
export function compareMarks(
  rows: readonly MarkRow[],
  known: readonly KnownMark[],
  max: number,
): MarksCompared {
  const findStudents = finder(known)
  const changes: MarkChange[] = []
  const faults: MarkFault[] = []
  const seen = new Set<string>()
  let same = 0
  let empty = 0
  const used = { mail: 0, number: 0, name: 0 }
  for (const row of rows) {
    const fault = (f: MarkFault['fault']) => {
      faults.push({ line: row.line, who: said(row), fault: f })
    }
    if (row.points.trim() === '') {
      empty++
      continue
    }
    const { found, by } = findStudents(row)
    if (found.length !== 1) {
      fault(found.length === 0 ? 'unknown' : 'ambiguous')
      continue
    }
    const points = readPoints(row.points)
    if (points === null) {
      fault('notANumber')
      continue
    }
    if (points < 0 || points > max) {
      fault('outside')
      continue
    }
    const mark = found[0]!
    if (seen.has(mark.enrolmentId)) {
      fault('twice')
      continue
    }
    seen.add(mark.enrolmentId)
    used[by]++
    if (mark.points === points) same++
    else
      changes.push({
        line: row.line,
        enrolmentId: mark.enrolmentId,
        name: mark.name,
        by,
        from: mark.points,
        to: points,
      })
  }
  return { changes, same, empty, faults, used }
}

/** What a row says of whose it is. */
const said = ({ keys }: MarkRow): string =>
  [keys.mail, keys.number, keys.name, keys.any].find(text => text?.trim()) ?? ''

/** Looks students up by what a row says. */
function finder(known: readonly KnownMark[]) {
  const by: Record<MarkKey, Map<string, KnownMark[]>> = {
    mail: new Map(),
    number: new Map(),
    name: new Map(),
  }
  const add = (key: MarkKey, text: string, mark: KnownMark) => {
    const folded = fold(text)
    const there = by[key].get(folded) ?? []
    if (folded !== '' && !there.includes(mark)) by[key].set(folded, [...there, mark])
  }
  for (const mark of known) {
    add('mail', mark.email, mark)
    add('number', mark.studentNumber ?? '', mark)
    add('name', mark.name, mark)
    add('name', `${mark.familyName}, ${mark.givenName}`, mark)
    add('name', `${mark.familyName} ${mark.givenName}`, mark)
  }
  return ({ keys }: MarkRow): { found: readonly KnownMark[]; by: MarkKey } => {
    const own = MARK_KEYS.find(key => keys[key]?.trim())
    if (own) return { found: by[own].get(fold(keys[own]!)) ?? [], by: own }
    const text = fold(keys.any ?? '')
    const key = MARK_KEYS.find(k => by[k].has(text)) ?? 'name'
    return { found: by[key].get(text) ?? [], by: key }
  }
}

const fold = (text: string) => text.trim().replace(/^'/, '').replace(/\s+/g, ' ').toLocaleLowerCase()

/** Hundredths from "17", "17.5", "17,5"; null where it is no number of points. */
export function readPoints(text: string): number | null {
  const found = /^([+-]?\d{1,6})(?:[.,](\d{1,2}))?$/.exec(text.trim())
  if (!found) return null
  const whole = Number(found[1]) * 100
  const part = Number((found[2] ?? '').padEnd(2, '0'))
  return found[1]!.startsWith('-') ? whole - part : whole + part
}
