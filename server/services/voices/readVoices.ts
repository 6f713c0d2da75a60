import { dateFormat } from '#core/language/dateFormat'
import { and, eq, inArray, ne, notInArray, or, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { dayAfter, localDay, localInstant } from '#core/planning/week'
import { readPresence } from '#core/voices/presence'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments } from '#server/database/schema'
import { initialsOf } from '#core/people/names'
import { firstDueOf } from '#core/planning/dueTimes'
import type { VoicesQuery, VoicesView } from '#shared/voices/voices'
import { analyse } from './inThread'
import { loadActs } from './presence'
import { quietDeeds } from './quiet'
import { loadTalkEntries } from './talkEntries'
import { NOT_TALK } from './textMeasures'
import { voicesFilterOf, type VoicesFilter } from './voicesFilter'
import { readChecked } from '#server/services/standing'

const MOST_LISTED = 5
const FIRST_WORDS = 140 // characters

/** Who speaks, how much, to whom and when; who is silent; whom the one who looks has neglected. For staff. */
export async function readVoices(db: Db, actor: Actor, query: VoicesQuery, now: Date): Promise<VoicesView> {
  return (await analysisFor(db, actor, query, now)).view
}

/** The same with what it was made from, for who goes on with it. */
export async function analysisFor(db: Db, actor: Actor, query: VoicesQuery, now: Date) {
  const { seminar, enrolment } = actor
  const filter = await voicesFilterOf(db, actor, query, now)
  const ids = filter.activities.map(p => p.activity.id)
  const people = filter.students.map(s => s.enrolmentId)
  const span = filter.to.getTime() - filter.from.getTime()
  const [talkEntries, before, staff] = await Promise.all([
    loadTalkEntries(db, ids, filter),
    filter.from.getTime() === 0
      ? []
      : loadTalkEntries(db, ids, {
          from: new Date(filter.from.getTime() - span),
          to: filter.from,
        }),
    staffOf(db, seminar.id),
  ])
  const out = await analyse({
    talkEntries,
    before,
    people,
    staff: staff.map(s => s.id),
    timeZone: seminar.timeZone,
    days: filter.days,
    due: duesOf(filter),
    answeredElsewhere: await answeredOutside(db, ids, filter, [...people, ...staff.map(s => s.id)]),
    most: MOST_LISTED,
  })
  const dayName = (at: Date) =>
    dateFormat('en-GB', {
      timeZone: seminar.timeZone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
    }).format(at)
  const weekStarts = Array.from({ length: filter.weeks[1] - filter.weeks[0] + 2 }, (_, i) =>
    localInstant(
      dayAfter(seminar.firstDay, 7 * (filter.weeks[0] - 1 + i)),
      '00:00',
      seminar.timeZone,
    ).getTime(),
  )
  const [quiet, acts, checks, words] = await Promise.all([
    quietDeeds(db, out.all.silent, ids, dayName),
    loadActs(
      db,
      seminar.id,
      [enrolment.id],
      people,
      filter.plans.map(p => p.activity.id),
    ),
    checksOf(db, filter, now),
    firstWords(db, [...out.mostAnswered.map(e => e.id), ...out.unanswered]),
  ])
  // whom one has neglected is a question of the whole term, whatever span is looked at
  const termStart = localInstant(seminar.firstDay, '00:00', seminar.timeZone).getTime()
  const contacts = readPresence(acts, people, {
    weeks: [Math.min(termStart, now.getTime()), Math.max(termStart + 1, now.getTime())],
    now: now.getTime(),
    joined: new Map(filter.students.map(s => [s.enrolmentId, s.joinedAt.getTime()])),
  })
  const byWeek = readPresence(acts, people, { weeks: weekStarts, now: now.getTime() })
  const spoke = new Set(talkEntries.map(s => s.authorId))
  const view: VoicesView = {
    activity: filter.chosen && {
      id: filter.chosen.activity.id,
      title: filter.chosen.activity.title,
      kind: filter.chosen.activity.kind,
      from: filter.chosen.activity.opensAt.toISOString(),
      to: filter.chosen.closesAt.toISOString(),
    },
    activities: filter.plans.map(({ activity: { id, title, kind } }) => ({ id, title, kind })),
    sections: [...filter.sections],
    groups: [...filter.groups],
    from: filter.weeks[0],
    to: filter.weeks[1],
    all: { ...out.all, spoke: out.all.spoke },
    people: filter.students.map((s, i) => {
      const { personId, ...voice } = out.all.voices[i]!
      const [contact, check] = [contacts[i]!, checks.get(personId) ?? { met: 0, asked: 0 }]
      return {
        id: personId,
        name: s.name,
        givenName: s.givenName,
        familyName: s.familyName,
        initials: initialsOf(s),
        ...voice,
        before: { ...out.before[i]! },
        between: out.network.betweenness.get(personId) ?? 0,
        community: out.network.communities.get(personId) ?? 0,
        ...check,
        quiet: quiet.get(personId) ?? null,
        fromMe: {
          acts: contact.acts,
          lastAt: contact.lastAt === null ? null : new Date(contact.lastAt).toISOString(),
          gapDays: contact.gapDays,
          longestGapDays: contact.longestGapDays,
          weeks: [...byWeek[i]!.weeks],
        },
      }
    }),
    staff: staff
      .filter(s => s.id === enrolment.id || spoke.has(s.id))
      .map(s => ({ id: s.id, name: s.name, initials: initialsOf(s), isMe: s.id === enrolment.id })),
    edges: [...out.network.edges],
    days: out.rhythm.map(d => ({ ...d, hours: [...d.hours] })),
    dues: filter.chosen
      ? filter.chosen.phases.map(p => ({ day: localDay(p.endsAt, seminar.timeZone), label: p.name }))
      : [],
    mostAnswered: out.mostAnswered.flatMap(e =>
      words.has(e.id) ? [{ ...words.get(e.id)!, answers: e.answers, people: e.people }] : [],
    ),
    unanswered: out.unanswered.flatMap(id => words.get(id) ?? []),
    gapLimit: seminar.presenceGapDays,
  }
  return { view, filter, talkEntries, staff }
}

const staffOf = (db: Db, seminarId: string) =>
  db
    .select({
      id: enrolments.id,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
    })
    .from(enrolments)
    .where(
      and(
        eq(enrolments.seminarId, seminarId),
        or(eq(enrolments.role, 'instructor'), eq(enrolments.role, 'assistant')),
      ),
    )
    .orderBy(enrolments.familyName, enrolments.givenName, enrolments.id)

/** When everybody's first contribution was due: the earliest due time of what is asked, their extension counted. */
function duesOf({ activities, students }: VoicesFilter): Array<readonly [string, string, number]> {
  return activities.flatMap(plan =>
    plan.expectations.length === 0
      ? []
      : students.map(s => [plan.activity.id, s.enrolmentId, firstDueOf(plan, s.enrolmentId)] as const),
  )
}

/** Contributions of a span that were answered after it by somebody else of those who count. */
async function answeredOutside(
  db: Db,
  activityIds: readonly string[],
  { from, to }: Pick<VoicesFilter, 'from' | 'to'>,
  counted: readonly string[],
): Promise<string[]> {
  if (activityIds.length === 0 || counted.length === 0 || from.getTime() === 0) return []
  const answer = alias(contributions, 'answer')
  const rows = await db
    .selectDistinct({ id: contributions.id })
    .from(contributions)
    .innerJoin(answer, eq(answer.parentId, contributions.id))
    .where(
      and(
        inArray(contributions.activityId, [...activityIds]),
        eq(answer.state, 'shown'),
        notInArray(answer.type, [...NOT_TALK]),
        ne(answer.authorId, contributions.authorId),
        inArray(answer.authorId, [...counted]),
        sql`${contributions.shownAt} >= ${from.toISOString()}::timestamptz
          and ${contributions.shownAt} < ${to.toISOString()}::timestamptz and ${answer.shownAt} >= ${to.toISOString()}::timestamptz`,
      ),
    )
  return rows.map(r => r.id)
}

async function checksOf(
  db: Db,
  { chosen, students }: VoicesFilter,
  now: Date,
): Promise<ReadonlyMap<string, { met: number; asked: number }>> {
  if (!chosen) return new Map()
  const standings = (await readChecked(db, [chosen], students, now)).get(chosen.activity.id)!
  return new Map(
    students.map(s => {
      const { checks } = standings.get(s.enrolmentId)!
      return [s.enrolmentId, { met: checks.filter(c => c.met).length, asked: checks.length }]
    }),
  )
}

async function firstWords(db: Db, ids: readonly string[]) {
  const rows =
    ids.length === 0
      ? []
      : await db
          .select({
            id: contributions.id,
            activityId: contributions.activityId,
            authorId: contributions.authorId,
            text: sql<string>`left(${contributions.text}, ${FIRST_WORDS + 1})`,
            at: contributions.shownAt,
          })
          .from(contributions)
          .where(inArray(contributions.id, [...ids]))
  return new Map(
    rows.map(({ text, at, ...row }) => [
      row.id,
      {
        ...row,
        at: at!.toISOString(),
        words: text.length > FIRST_WORDS ? `${text.slice(0, FIRST_WORDS).replace(/\s+\S*$/, '')} …` : text,
      },
    ]),
  )
}
