/** A row of a file of marks, as read: `line` as the file counts, from 1. */
export interface MarkRow {
  readonly line: number
  readonly who: string
  readonly points: string
  readonly reason: string
}
export interface KnownMark {
  readonly enrolmentId: string
  readonly name: string
  readonly email: string
  readonly studentNumber: string | null
  readonly points: number | null
} // points in hundredths

export interface MarkChange {
  readonly line: number
  readonly enrolmentId: string
  readonly name: string
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
}

/**
 * What a file of marks would change. A person is known by mail address, student number or full name, whatever the case; a
 * name two people bear is not guessed. An empty cell changes nothing and is never zero.
 * @param max hundredths
 */
export function compareMarks(
  rows: readonly MarkRow[],
  known: readonly KnownMark[],
  max: number,
): MarksCompared {
  const keys = new Map<string, KnownMark[]>()
  for (const mark of known)
    for (const key of new Set([mark.email, mark.studentNumber ?? '', mark.name].map(fold).filter(Boolean)))
      keys.set(key, [...(keys.get(key) ?? []), mark])
  const changes: MarkChange[] = []
  const faults: MarkFault[] = []
  const seen = new Set<string>()
  let same = 0
  let empty = 0
  for (const row of rows) {
    const fault = (f: MarkFault['fault']) => {
      faults.push({ line: row.line, who: row.who, fault: f })
    }
    if (row.points.trim() === '') {
      empty++
      continue
    }
    const found = keys.get(fold(row.who)) ?? []
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
    const [mark] = found as [KnownMark]
    if (seen.has(mark.enrolmentId)) {
      fault('twice')
      continue
    }
    seen.add(mark.enrolmentId)
    if (mark.points === points) same++
    else
      changes.push({
        line: row.line,
        enrolmentId: mark.enrolmentId,
        name: mark.name,
        from: mark.points,
        to: points,
      })
  }
  return { changes, same, empty, faults }
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
