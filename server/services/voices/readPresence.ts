import { and, asc, eq, inArray } from 'drizzle-orm'
import { counts, readPresence, SUBSTANTIVE_WORDS, type Act } from '#core/voices/presence'
import { weeksOf, type WeekSpan } from '#core/planning/week'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, enrolments, sections } from '#server/database/schema'
import { type Student, countedStudents } from '#server/services/people'
import { takesPartIn } from '#server/services/planning'
import type { PresenceActs, PresenceQuery, PresenceView } from '#shared/voices/presence'
import { loadActs, type LoggedAct } from './presence'

/** Everything the record of presence is made from. */
export interface PresenceRecord {
  readonly by: string | 'all'
  readonly teachers: ReadonlyArray<{ readonly id: string; readonly name: string; readonly isMe: boolean }>
  readonly students: readonly Student[]
  readonly acts: readonly LoggedAct[] // in order of time
  readonly weeks: readonly WeekSpan[] // begun by now
  readonly titles: ReadonlyMap<string, string> // of activities
  readonly sections: ReadonlyMap<string, string>
}

export async function presenceRecord(
  db: Db,
  actor: Actor,
  query: PresenceQuery,
  now: Date,
): Promise<PresenceRecord> {
  const { seminar, enrolment } = actor
  const [staff, students, rows, sectionRows] = await Promise.all([
    db
      .select({ id: enrolments.id, name: enrolments.name })
      .from(enrolments)
      .where(and(eq(enrolments.seminarId, seminar.id), inArray(enrolments.role, ['instructor', 'assistant'])))
      .orderBy(asc(enrolments.familyName)),
    countedStudents(db, seminar.id),
    db
      .select({ id: activities.id, title: activities.title })
      .from(activities)
      .where(and(takesPartIn(db, seminar.id), eq(activities.isTemplate, false))),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id)),
  ])
  const by = query.by ?? enrolment.id
  const teachers = staff.map(s => ({ ...s, isMe: s.id === enrolment.id }))
  if (by !== 'all' && !teachers.some(t => t.id === by)) throw nothingHere()
  const acts = await loadActs(
    db,
    seminar.id,
    by === 'all' ? teachers.map(t => t.id) : [by],
    students.map(s => s.enrolmentId),
    rows.map(a => a.id),
  )
  return {
    by,
    teachers,
    students,
    acts: acts.sort((a, b) => a.at - b.at || (a.studentId < b.studentId ? -1 : 1)),
    weeks: weeksOf(seminar).filter(w => w.startsAt <= now),
    titles: new Map(rows.map(a => [a.id, a.title])),
    sections: new Map(sectionRows.map(s => [s.id, s.title])),
  }
}

/** Contact with each student, week by week from the beginning of the term, and the longest time without. */
export async function readPresenceView(
  db: Db,
  actor: Actor,
  query: PresenceQuery,
  now: Date,
): Promise<PresenceView> {
  const record = await presenceRecord(db, actor, query, now)
  const contacts = contactsOf(record, now)
  const nods = new Map<string, number>()
  for (const act of record.acts) if (!counts(act)) nods.set(act.studentId, (nods.get(act.studentId) ?? 0) + 1)
  return {
    by: record.by,
    teachers: [...record.teachers],
    gapLimit: actor.seminar.presenceGapDays,
    weeks: record.weeks.map(w => ({ number: w.number, firstDay: w.firstDay, isBreak: w.teaching === null })),
    students: record.students.map((s, i) => {
      const c = contacts[i]!
      return {
        id: s.enrolmentId,
        name: s.name,
        givenName: s.givenName,
        section: s.sectionId ? (record.sections.get(s.sectionId) ?? null) : null,
        acts: c.acts,
        nods: nods.get(s.enrolmentId) ?? 0,
        lastAt: c.lastAt === null ? null : new Date(c.lastAt).toISOString(),
        gapDays: c.gapDays,
        longestGapDays: c.longestGapDays,
        weeks: [...c.weeks],
      }
    }),
  }
}

const joinedOf = (students: readonly Student[]) =>
  new Map(students.map(s => [s.enrolmentId, s.joinedAt.getTime()]))

export function contactsOf({ acts, students, weeks }: PresenceRecord, now: Date) {
  const starts = weeks.map(w => w.startsAt.getTime())
  return readPresence(
    acts,
    students.map(s => s.enrolmentId),
    {
      weeks:
        starts.length > 0
          ? [...starts, Math.max(weeks.at(-1)!.endsAt.getTime(), now.getTime())]
          : [now.getTime(), now.getTime() + 1],
      now: now.getTime(),
      joined: joinedOf(students),
    },
  )
}

const KIND_WHY: Readonly<Record<Act['kind'], string>> = {
  reply: '',
  comment: 'a comment on their work',
  answer: 'their question was answered',
  letter: 'a letter returned to them',
  message: 'written to them alone',
}
/** Why an act counts, or why not. */
export const whyOf = (act: Act): string => {
  if (act.kind !== 'reply') return KIND_WHY[act.kind]
  if (counts(act)) return `a reply of ${act.words} words`
  return `a reply of ${act.words} words: fewer than ${SUBSTANTIVE_WORDS}`
}

/** What was said to one student, newest first. */
export async function readPresenceActs(
  db: Db,
  actor: Actor,
  query: PresenceQuery & { readonly student: string },
  now: Date,
): Promise<PresenceActs> {
  const record = await presenceRecord(db, actor, query, now)
  if (!record.students.some(s => s.enrolmentId === query.student)) throw nothingHere()
  const nameOf = new Map(record.teachers.map(t => [t.id, t.name]))
  return {
    acts: record.acts
      .filter(a => a.studentId === query.student)
      .reverse()
      .map(a => ({
        at: new Date(a.at).toISOString(),
        kind: a.kind,
        words: a.words,
        counts: counts(a),
        why: whyOf(a),
        by: nameOf.get(a.teacherId) ?? '',
        activity:
          a.activityId && record.titles.has(a.activityId)
            ? { id: a.activityId, title: record.titles.get(a.activityId)! }
            : null,
      })),
  }
}
