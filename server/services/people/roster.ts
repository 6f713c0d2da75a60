import { and, eq, inArray, ne } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { keptNames } from '#core/people/names'
import { compareRoster, type Enrolled, type RosterComparison } from '#core/people/roster/compareRoster'
import { readOneRoster } from '#core/people/roster/readOneRoster'
import type { RosterColumn } from '#core/people/roster/rosterHeadings'
import { readRosterCsv } from '#core/people/roster/readRosterCsv'
import type { Roster, RosterFault, RosterRow } from '#core/people/roster/rosterRow'
import type { Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, persons, sections } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'
import { refusedField } from '#server/http/problem'
import type { Progress } from '#server/http/route'
import { withIdempotency } from '#server/services/idempotency'
import type { RosterAnswer, RosterPreview } from '#shared/people/people'
import { inviteAll } from './people'
import { changeEnrolled, withdrawEnrolled } from './rosterChanges'
import { groupColumn, placeInGroups, previewGroups } from './rosterGroups'

interface RosterFile {
  readonly name: string
  readonly base64: string
  readonly columns?: readonly (RosterColumn | null)[] | undefined // what each column holds, where somebody said so
}
const CHUNK = 50 // rows of one statement: few enough that the bar moves

/** What a roster file would change: nothing is written. */
export async function previewRoster(db: Db, actor: Actor, file: RosterFile): Promise<RosterPreview> {
  const { roster, comparison, known } = await compare(db, actor, file)
  const titles = new Set(known.map(s => s.title))
  return {
    ...copyOf(comparison),
    missing: comparison.missing.map(({ enrolmentId, givenName, familyName, email }) => ({
      enrolmentId,
      givenName,
      familyName,
      email,
    })),
    faults: roster.faults.map(f => ({ line: f.line, code: f.code, sentence: faultSentence(f) })),
    columns: (roster.columns ?? []).map(c => ({ ...c })),
    groups: previewGroups(await groupColumn(db, actor, roster), comparison),
    newSections: [
      ...new Set(roster.rows.flatMap(r => (r.section && !titles.has(r.section) ? [r.section] : []))),
    ],
  }
}

/** Does what the preview said, all of it or nothing. Rows with faults are passed over: they were named before. */
export function importRoster(
  db: Database,
  actor: Actor,
  write: RosterFile & { readonly key: string; readonly withdrawMissing: boolean; readonly invite: boolean },
  now: Date,
  progress: Progress = () => {},
): Promise<RosterAnswer> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const { roster, comparison, known, elsewhere } = await compare(tx, actor, write)
    if (roster.rows.length === 0)
      throw refusedField(
        'file',
        'nothing',
        'No row of this file can be taken, so nothing was changed. The preview says why, line by line.',
      )
    const sectionId = await sectionIds(tx, actor, roster.rows, known)
    const leaving = write.withdrawMissing ? comparison.missing.map(m => m.enrolmentId) : []
    const inAll =
      comparison.added.length * (write.invite ? 2 : 1) +
      comparison.changed.length +
      comparison.back.length +
      leaving.length
    let done = 0
    const come = (n: number) => {
      done += n
      progress(done, inAll)
    }
    const added = await addRows(tx, actor, comparison.added, sectionId, now, come)
    for (const some of slicesOf([...comparison.changed, ...comparison.back], CHUNK)) {
      await changeEnrolled(tx, some, sectionId, id => elsewhere.has(id))
      come(some.length)
    }
    for (const some of slicesOf(leaving, CHUNK)) {
      await withdrawEnrolled(tx, some)
      come(some.length)
    }
    const placed = await placeInGroups(tx, actor, await groupColumn(tx, actor, roster, { locked: true }), now)
    for (const some of write.invite ? slicesOf(added, CHUNK) : []) {
      await inviteAll(tx, actor, some, now)
      come(some.length)
    }
    const answer = {
      added: added.length,
      changed: comparison.changed.length,
      back: comparison.back.length,
      withdrawn: leaving.length,
      placed,
      passedOver: roster.faults.length,
    }
    await noteActs(tx, actor, now, {
      act: 'rosterImported',
      subjectId: actor.seminar.id,
      detail: { file: write.name, ...answer },
    })
    return answer
  })
}

async function compare(db: Db, actor: Actor, file: RosterFile) {
  const bytes = Buffer.from(file.base64, 'base64')
  if (bytes.length === 0) throw refusedField('file', 'empty', 'This file is empty.')
  const roster: Roster = isZip(bytes) ? readOneRoster(bytes) : readRosterCsv(bytes, file.columns)
  const [there, known] = await Promise.all([
    db
      .select({ enrolment: enrolments, person: persons, section: sections.title })
      .from(enrolments)
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .leftJoin(sections, eq(sections.id, enrolments.sectionId))
      .where(eq(enrolments.seminarId, actor.seminar.id)),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, actor.seminar.id)),
  ])
  const elsewhere = await inOtherSeminars(
    db,
    actor,
    there.map(r => r.person.id),
  )
  const enrolled = there.map(({ enrolment: e, person: p, section }): Enrolled => ({
    enrolmentId: e.id,
    email: p.email,
    givenName: e.givenName,
    familyName: e.familyName,
    nameIsOwn: e.nameIsOwn,
    section,
    studentNumber: e.studentNumber,
    role: e.role,
    state: e.state,
    isElsewhere: p.passwordHash !== null || p.foundsSeminars || elsewhere.has(p.id),
  }))
  // whoever runs the seminar is not turned into something else by a file
  const kept = roster.rows.map((row): RosterRow => {
    const staff = enrolled.find(e => e.email === row.email && e.role === 'instructor')
    return staff ? { ...row, role: 'instructor' } : row
  })
  const comparison = compareRoster(kept, enrolled)
  const faults = comparison.refused.map(({ line, givenName, familyName }): RosterFault => ({
    code: 'elsewhere',
    line,
    value: keptNames({ givenName, familyName }).name,
  }))
  const rows = kept.filter(row => !comparison.refused.includes(row))
  return {
    roster: { ...roster, rows, faults: [...roster.faults, ...faults] },
    comparison,
    known,
    elsewhere: new Set(enrolled.flatMap(e => (e.isElsewhere ? [e.enrolmentId] : []))),
  }
}

/** Which of these people are in a seminar besides the actor's, whatever became of them there. */
async function inOtherSeminars(db: Db, actor: Actor, personIds: readonly string[]): Promise<Set<string>> {
  const found = await db
    .selectDistinct({ personId: enrolments.personId })
    .from(enrolments)
    .where(and(inArray(enrolments.personId, [...personIds]), ne(enrolments.seminarId, actor.seminar.id)))
  return new Set(found.map(f => f.personId))
}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

async function sectionIds(
  tx: Db,
  actor: Actor,
  rows: readonly RosterRow[],
  known: ReadonlyArray<{ readonly id: string; readonly title: string }>,
): Promise<Map<string, string>> {
  const ids = new Map(known.map(s => [s.title, s.id]))
  const missing = [
    ...new Set(rows.flatMap(r => (r.section && !ids.has(r.section) ? [r.section] : []))),
  ].sort()
  if (missing.length > 0) {
    const made = await tx
      .insert(sections)
      .values(missing.map((title, i) => ({ seminarId: actor.seminar.id, title, position: known.length + i })))
      .returning()
    for (const s of made) ids.set(s.title, s.id)
  }
  return ids
}

async function addRows(
  tx: Db,
  actor: Actor,
  rows: readonly RosterRow[],
  sectionId: ReadonlyMap<string, string>,
  now: Date,
  come: (n: number) => void,
): Promise<string[]> {
  const added: string[] = []
  for (const chunk of slicesOf(rows, CHUNK)) {
    await tx
      .insert(persons)
      .values(chunk.map(r => ({ email: r.email, ...keptNames(r) })))
      .onConflictDoNothing()
    const people = await tx
      .select({ id: persons.id, email: persons.email })
      .from(persons)
      .where(
        inArray(
          persons.email,
          chunk.map(r => r.email),
        ),
      )
    const idOf = new Map(people.map(p => [p.email, p.id]))
    const made = await tx
      .insert(enrolments)
      .values(
        chunk.map(r => ({
          seminarId: actor.seminar.id,
          personId: idOf.get(r.email)!,
          ...keptNames(r),
          role: r.role,
          sectionId: r.section ? sectionId.get(r.section)! : null,
          studentNumber: r.studentNumber,
          joinedAt: now,
        })),
      )
      .onConflictDoNothing()
      .returning({ id: enrolments.id })
    added.push(...made.map(e => e.id))
    come(chunk.length)
  }
  return added
}

const copyOf = (c: RosterComparison) => ({
  added: [...c.added],
  changed: c.changed.map(x => ({ ...x, changes: [...x.changes] })),
  back: c.back.map(x => ({ ...x, changes: [...x.changes] })),
  same: c.same,
})

/** What is wrong with a line, in a sentence a person can act on. */
export function faultSentence(fault: RosterFault): string {
  switch (fault.code) {
    case 'noHeader':
      return 'No column is known as the e-mail address. Say above which it is, or name the columns in the first line: e-mail, name (or given name and family name), section, student number, role.'
    case 'noNames':
      return 'No column is known as the name. Say above which it is, or name it in the first line.'
    case 'empty':
      return 'There is nothing in this file.'
    case 'tooMany':
      return 'There are more than 20,000 rows. Split the file.'
    case 'openQuote':
      return 'A quotation mark opens here and is never closed, so the rest cannot be told apart.'
    case 'badQuote':
      return 'A quotation mark stands in the middle of a cell. Double it, or remove it.'
    case 'columns':
      return `This row has ${fault.have} cells where the first line has ${fault.want}.`
    case 'noEmail':
      return 'There is no e-mail address.'
    case 'noName':
      return 'There is no name.'
    case 'badEmail':
      return `“${fault.value}” is no e-mail address.`
    case 'badRole':
      return `“${fault.value}” is no role: student, assistant, instructor or observer.`
    case 'formula':
      return `“${fault.value}” begins like a formula, not like a name.`
    case 'encoding':
      return 'Two character encodings meet in this row, so its letters cannot be told for certain.'
    case 'tooLong':
      return `“${fault.value}…” is longer than any name.`
    case 'twice':
      return `${fault.value} stands in line ${fault.first} already.`
    case 'elsewhere':
      return [
        `The address of ${fault.value} is not this seminar’s to change, for the person has an account or rights elsewhere.`,
        'They can change it themselves; with their own address the line can be imported.',
      ].join(' ')
    case 'missingFile':
      return `The archive has no ${fault.value}.`
    case 'badReference':
      return `“${fault.value}” is enrolled but not among the users.`
    case 'notAnArchive':
      return 'This archive cannot be opened.'
  }
}
