import { listName } from '#core/people/names'
import { dateFormat } from '#core/language/dateFormat'
import { stringify } from 'csv-stringify/sync'
import { safeCell } from '#core/marking/results/safeCell'
import { counts, SUBSTANTIVE_WORDS } from '#core/voices/presence'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { HARBOUR, openPdf, QUIET, say, sayRow } from '#server/documents/taggedPdf'
import type { PresenceQuery } from '#shared/voices/presence'
import { contactsOf, presenceRecord, whyOf, type PresenceRecord } from './readPresence'

/** The record of contact to take away: every act with whether it counts and why. */
export async function exportPresence(
  db: Db,
  actor: Actor,
  query: PresenceQuery & { readonly as: 'csv' | 'pdf' },
  now: Date,
): Promise<{ readonly name: string; readonly type: string; readonly bytes: Buffer }> {
  const record = await presenceRecord(db, actor, query, now)
  const base = `${actor.seminar.code} presence ${whose(record)}`.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
  return query.as === 'csv'
    ? {
        name: `${base}.csv`,
        type: 'text/csv; charset=utf-8',
        bytes: Buffer.from(`\uFEFF${csv(record, actor, now)}`),
      }
    : { name: `${base}.pdf`, type: 'application/pdf', bytes: await pdf(record, actor, now) }
}

const whose = ({ by, teachers }: PresenceRecord): string =>
  by === 'all' ? 'everyone who teaches' : teachers.find(t => t.id === by)!.name
const KINDS = {
  reply: 'reply',
  comment: 'comment',
  answer: 'answer to a question',
  letter: 'letter',
  message: 'direct message',
} as const
const local = (at: Date, timeZone: string) =>
  dateFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' }).format(at)

function csv(record: PresenceRecord, { seminar }: Actor, now: Date): string {
  const student = new Map(record.students.map(s => [s.enrolmentId, s]))
  const teacher = new Map(record.teachers.map(t => [t.id, t.name]))
  return stringify(
    record.acts
      .filter(a => a.at <= now.getTime())
      .map(a => {
        const s = student.get(a.studentId)!
        return [
          local(new Date(a.at), seminar.timeZone),
          record.weeks.findLast(w => w.startsAt.getTime() <= a.at)?.number ?? '',
          safeCell(s.familyName),
          safeCell(s.givenName),
          safeCell(s.sectionId ? (record.sections.get(s.sectionId) ?? '') : ''),
          safeCell(teacher.get(a.teacherId) ?? ''),
          KINDS[a.kind],
          safeCell(a.activityId ? (record.titles.get(a.activityId) ?? '') : ''),
          a.words ?? '',
          counts(a) ? 'yes' : 'no',
          whyOf(a),
        ]
      }),
    {
      header: true,
      columns: [
        'time',
        'week',
        'family name',
        'given name',
        'section',
        'from',
        'kind',
        'activity',
        'words',
        'counts',
        'why',
      ],
    },
  )
}

async function pdf(record: PresenceRecord, { seminar }: Actor, now: Date): Promise<Buffer> {
  const { doc, done } = await openPdf({
    title: `${seminar.title}: record of contact`,
    author: whose(record),
    landscape: true,
  })
  const day = (at: Date) =>
    dateFormat('en-GB', { timeZone: seminar.timeZone, day: 'numeric', month: 'short' }).format(at)
  const contacts = contactsOf(record, now)
  const acts = record.acts.filter(a => a.at <= now.getTime())
  const counted = acts.filter(counts)
  say(doc, 'P', `${seminar.title}, ${seminar.code}${seminar.college ? `, ${seminar.college}` : ''}`, {
    face: 'ui',
    size: 9.5,
    color: QUIET,
    gap: 2,
  })
  say(doc, 'H1', 'Record of contact with students', { face: 'strong', size: 19, gap: 4 })
  const first = record.weeks[0]
  say(
    doc,
    'P',
    `Of ${whose(record)}, ${first ? `${day(first.startsAt)} to ${day(now)}` : 'before the term'}: ${counted.length} substantive contacts with ${new Set(counted.map(a => a.studentId)).size} of ${record.students.length} students.`,
    { face: 'text', size: 11.5, gap: 4 },
  )
  say(
    doc,
    'P',
    [
      `What counts: a reply of ${SUBSTANTIVE_WORDS} words or more to what a student wrote; a comment on their work;`,
      'an answer to their question; a letter returned with their mark; a message to one student alone.',
      'What is said to all counts for nobody, shorter replies and reminders sent by a rule neither.',
      'A gap is the time between two contacts, from the first day of the term and up to',
      `${day(now)}; longer than ${seminar.presenceGapDays} days it is marked with an asterisk.`,
    ].join(' '),
    { face: 'ui', size: 9.5, color: QUIET, gap: 10 },
  )
  const weekWidth = Math.min(30, 330 / Math.max(1, record.weeks.length))
  const columns = (
    name: string,
    section: string,
    weeks: readonly string[],
    all: string,
    last: string,
    gap: string,
  ) => [
    { text: name, width: 150 },
    { text: section, width: 70 },
    ...weeks.map(w => ({ text: w, width: weekWidth, right: true })),
    { text: all, width: 40, right: true },
    { text: last, width: 56, right: true },
    { text: gap, width: 60, right: true },
  ]
  say(doc, 'H2', 'Contact by student and week', { face: 'uiStrong', size: 10.5, color: HARBOUR, gap: 4 })
  sayRow(
    doc,
    'TH',
    columns(
      'student',
      'section',
      record.weeks.map(w => String(w.number)),
      'all',
      'last',
      'longest gap',
    ),
    { face: 'uiStrong', size: 8 },
  )
  for (const [i, s] of record.students.entries()) {
    const c = contacts[i]!
    sayRow(
      doc,
      'TD',
      columns(
        listName(s),
        s.sectionId ? (record.sections.get(s.sectionId) ?? '') : '',
        c.weeks.map(n => (n === 0 ? '·' : String(n))),
        String(c.acts),
        c.lastAt === null ? 'none' : day(new Date(c.lastAt)),
        `${c.longestGapDays} days${c.longestGapDays > seminar.presenceGapDays ? ' *' : ''}`,
      ),
      { face: 'ui', size: 8 },
    )
  }
  doc.addPage()
  say(doc, 'H2', 'Every contact, in order', { face: 'uiStrong', size: 10.5, color: HARBOUR, gap: 4 })
  const line = (at: string, name: string, by: string, kind: string, title: string, why: string) => [
    { text: at, width: 88 },
    { text: name, width: 118 },
    { text: by, width: 96 },
    { text: kind, width: 84 },
    { text: title, width: 150 },
    { text: why, width: 168 },
  ]
  sayRow(doc, 'TH', line('time', 'student', 'from', 'kind', 'in', 'why it counts'), {
    face: 'uiStrong',
    size: 8,
  })
  const names = new Map(record.students.map(s => [s.enrolmentId, listName(s)]))
  const teachers = new Map(record.teachers.map(t => [t.id, t.name]))
  for (const a of counted)
    sayRow(
      doc,
      'TD',
      line(
        local(new Date(a.at), seminar.timeZone),
        names.get(a.studentId)!,
        teachers.get(a.teacherId) ?? '',
        KINDS[a.kind],
        a.activityId ? (record.titles.get(a.activityId) ?? '') : '',
        whyOf(a),
      ),
      { face: 'ui', size: 8 },
    )
  if (counted.length === 0) say(doc, 'P', 'There has been none yet.', { face: 'slant', size: 11 })
  doc.end()
  return done
}
