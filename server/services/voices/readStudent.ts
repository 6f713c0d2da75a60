import { and, desc, eq, inArray, isNotNull, notInArray, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { showMark } from '#core/marking/showMark'
import { weeksOf } from '#core/planning/week'
import { voiceByWeek } from '#core/voices/byWeek'
import { readPresence } from '#core/voices/presence'
import { median } from '#core/voices/share'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments, marks, messageThreads, sections } from '#server/database/schema'
import { loadWork, openPlans } from '#server/services/standing'
import { dueAtOf } from '#core/planning/dueTimes'
import { TYPICAL, type OneVoice } from '#shared/voices/student'
import { loadActs } from './presence'
import { analysisFor } from './readVoices'
import { NOT_TALK } from './textMeasures'

const LATEST = 12

/** One student through the term: what they said beside what is usual, to whom, what they have done of what was asked. For staff. */
export async function readStudent(db: Db, actor: Actor, enrolmentId: string, now: Date): Promise<OneVoice> {
  const { seminar } = actor
  const { view, filter, talkEntries, staff } = await analysisFor(db, actor, {}, now)
  const index = view.people.findIndex(p => p.id === enrolmentId)
  if (index < 0) throw nothingHere()
  const voice = view.people[index]!
  const plans = await openPlans(db, seminar.id, now)
  const student = filter.students.find(s => s.enrolmentId === enrolmentId)!
  const joined = new Map([[enrolmentId, student.joinedAt.getTime()]])
  const own = plans.filter(p => p.isMeant(student))
  const ids = own.map(p => p.activity.id)
  const talk = filter.activities.map(p => p.activity.id)
  const answersTo = alias(contributions, 'answers_to')
  const [{ standings, excused }, written, returned, latest, section, acts, messageCount] = await Promise.all([
    loadWork(db, own, [student], now),
    ids.length === 0
      ? []
      : db
          .select({
            activityId: contributions.activityId,
            n: sql<number>`count(*)::int`,
            words: sql<number>`sum(${contributions.words})::int`,
          })
          .from(contributions)
          .where(
            and(
              eq(contributions.authorId, enrolmentId),
              eq(contributions.state, 'shown'),
              inArray(contributions.activityId, ids),
            ),
          )
          .groupBy(contributions.activityId),
    db
      .select({ activityId: marks.activityId, returned: marks.returned })
      .from(marks)
      .where(and(eq(marks.enrolmentId, enrolmentId), isNotNull(marks.returned))),
    talk.length === 0
      ? []
      : db
          .select({
            id: contributions.id,
            activityId: contributions.activityId,
            at: contributions.shownAt,
            words: sql<string>`left(${contributions.text}, 150)`,
            to: enrolments.name,
          })
          .from(contributions)
          .leftJoin(answersTo, eq(answersTo.id, contributions.parentId))
          .leftJoin(enrolments, eq(enrolments.id, answersTo.authorId))
          .where(
            and(
              eq(contributions.authorId, enrolmentId),
              eq(contributions.state, 'shown'),
              notInArray(contributions.type, [...NOT_TALK]),
              inArray(contributions.activityId, talk),
            ),
          )
          .orderBy(desc(contributions.shownAt))
          .limit(LATEST),
    student.sectionId
      ? db.select({ title: sections.title }).from(sections).where(eq(sections.id, student.sectionId))
      : [],
    loadActs(
      db,
      seminar.id,
      [actor.enrolment.id],
      [enrolmentId],
      plans.map(p => p.activity.id),
    ),
    db.$count(
      messageThreads,
      and(eq(messageThreads.studentId, enrolmentId), eq(messageThreads.seminarId, seminar.id)),
    ),
  ])
  const weeks = weeksOf(seminar).filter(w => w.startsAt <= now)
  const starts = [
    ...weeks.map(w => w.startsAt.getTime()),
    ...(weeks.length > 0 ? [weeks.at(-1)!.endsAt.getTime()] : []),
  ]
  const byWeek =
    weeks.length > 0
      ? voiceByWeek(
          talkEntries,
          enrolmentId,
          view.people.map(p => p.id),
          starts,
        )
      : []
  const [contact] =
    weeks.length > 0 ? readPresence(acts, [enrolmentId], { weeks: starts, now: now.getTime(), joined }) : []
  const names = new Map<string, { readonly name: string; readonly isStaff: boolean }>([
    ...view.people.map(p => [p.id, { name: p.name, isStaff: false }] as const),
    ...staff.map(s => [s.id, { name: s.name, isStaff: true }] as const),
  ])
  const others = (pairs: ReadonlyArray<readonly [string, number]>) =>
    pairs
      .flatMap(([id, times]) => (names.has(id) ? [{ id, ...names.get(id)!, times }] : []))
      .sort((a, b) => b.times - a.times || (a.name < b.name ? -1 : 1))
  const marked = new Map(returned.map(r => [r.activityId, r.returned!]))
  return {
    voice,
    section: section[0]?.title ?? null,
    typical: Object.fromEntries(
      TYPICAL.map(key => [key, median(view.people.flatMap(p => p[key] ?? []))]),
    ) as OneVoice['typical'],
    weeks: weeks.map((w, i) => ({
      number: w.number,
      label: w.teaching,
      ...byWeek[i]!,
      contact: contact?.weeks[i] ?? 0,
    })),
    answered: others(
      view.edges.filter(e => e.from === enrolmentId && e.to !== enrolmentId).map(e => [e.to, e.times]),
    ),
    answeredBy: others(
      view.edges.filter(e => e.to === enrolmentId && e.from !== enrolmentId).map(e => [e.from, e.times]),
    ),
    activities: own.map(plan => {
      const { standing, checks } = standings.get(plan.activity.id)!.get(enrolmentId)!
      const [mine, mark] = [
        written.find(w => w.activityId === plan.activity.id),
        marked.get(plan.activity.id),
      ]
      return {
        id: plan.activity.id,
        title: plan.activity.title,
        kind: plan.activity.kind,
        contributions: mine?.n ?? 0,
        words: mine?.words ?? 0,
        checks,
        standing,
        excused: excused.has(`${plan.activity.id}:${enrolmentId}`),
        expectations: plan.expectations.map(e => ({
          id: e.id,
          rule: e.rule,
          dueAt: dueAtOf(plan, e.rule, enrolmentId).toISOString(),
        })),
        shown: mark
          ? showMark({
              points: mark.points,
              max: mark.max,
              scale: mark.scale ?? 'points',
              letter: mark.letter ?? null,
            })
          : null,
      }
    }),
    latest: latest.map(l => ({ ...l, at: l.at!.toISOString() })),
    gapLimit: seminar.presenceGapDays,
    messages: messageCount,
    neighbours: { before: view.people[index - 1]?.id ?? null, after: view.people[index + 1]?.id ?? null },
  }
}
