import { and, asc, eq, inArray } from 'drizzle-orm'
import { dayAfter, localDay, localInstant, weekOf } from '#core/planning/week'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions, groupMembers, groups, sections } from '#server/database/schema'
import { type Student, countedStudents } from '#server/services/people'
import { type ActivityPlan, loadPlans } from '#server/services/planning'
import type { VoicesQuery } from '#shared/voices/voices'

/** What is looked at: which activities, whom, and from when to when. */
export interface VoicesFilter {
  readonly chosen: ActivityPlan | null // one activity
  readonly plans: readonly ActivityPlan[] // all that have begun
  readonly activities: readonly ActivityPlan[]
  readonly students: readonly Student[]
  readonly from: Date
  readonly to: Date
  readonly weeks: readonly [from: number, to: number]
  readonly days: readonly string[]
  readonly sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
  readonly groups: ReadonlyArray<{ readonly id: string; readonly title: string }>
}

const MOST_DAYS = 500

/** @throws {Problem} when the activity, the section or the group is none of this seminar */
export async function voicesFilterOf(
  db: Db,
  { seminar }: Actor,
  query: VoicesQuery,
  now: Date,
): Promise<VoicesFilter> {
  const [rows, everyone, sectionRows, groupRows] = await Promise.all([
    db
      .select()
      .from(activities)
      .where(
        and(
          eq(activities.seminarId, seminar.id),
          eq(activities.isTemplate, false),
          eq(activities.state, 'published'),
        ),
      )
      .orderBy(asc(activities.opensAt), asc(activities.position)),
    countedStudents(db, seminar.id),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position)),
    db
      .select({ id: groups.id, title: groups.title, planId: groups.groupPlanId })
      .from(groups)
      .where(eq(groups.seminarId, seminar.id))
      .orderBy(asc(groups.position)),
  ])
  const plans = (await loadPlans(db, rows)).filter(p => p.activity.opensAt <= now)
  const chosen = query.activity ? (plans.find(p => p.activity.id === query.activity) ?? null) : null
  const foreign = (id: string | undefined, list: ReadonlyArray<{ readonly id: string }>) =>
    id !== undefined && !list.some(x => x.id === id)
  if (
    (query.activity && !chosen) ||
    query.among?.some(id => !plans.some(p => p.activity.id === id)) ||
    foreign(query.section, sectionRows) ||
    foreign(query.group, groupRows)
  )
    throw nothingHere()
  const members = query.group
    ? new Set(
        (
          await db
            .select({ id: groupMembers.enrolmentId })
            .from(groupMembers)
            .where(inArray(groupMembers.groupId, [query.group]))
        ).map(m => m.id),
      )
    : null
  const among = query.among ? plans.filter(p => query.among!.includes(p.activity.id)) : null
  const chosenStudents = everyone.filter(
    s =>
      (!query.section || s.sectionId === query.section) &&
      (!members || members.has(s.enrolmentId)) &&
      (!chosen || chosen.isMeant(s)) &&
      (!among || among.some(p => p.isMeant(s))),
  )

  const within = (week: number) => Math.min(seminar.weeks, Math.max(1, week))
  const thisWeek = within(weekOf(now, seminar))
  const last = chosen ? new Date(Math.min(now.getTime(), chosen.closesAt.getTime())) : now
  const [first, until] = [
    query.from ?? (chosen ? within(weekOf(chosen.activity.opensAt, seminar)) : 1),
    query.to ?? (chosen ? within(weekOf(last, seminar)) : thisWeek),
  ]
  const weeks = [Math.min(first, until), Math.max(first, until)] as const
  const dayOfWeek = (week: number) => dayAfter(seminar.firstDay, 7 * (week - 1))
  // one activity whole: what came before its week or after its close is of it all the same
  const whole = chosen !== null && query.from === undefined && query.to === undefined
  const from = whole ? new Date(0) : localInstant(dayOfWeek(weeks[0]), '00:00', seminar.timeZone)
  const to = whole
    ? new Date('9999-01-01T00:00:00Z')
    : localInstant(dayOfWeek(weeks[1] + 1), '00:00', seminar.timeZone)
  const [firstDay, lastDay] = whole
    ? [localDay(chosen.activity.opensAt, seminar.timeZone), localDay(last, seminar.timeZone)]
    : [
        dayOfWeek(weeks[0]),
        [dayAfter(dayOfWeek(weeks[1] + 1), -1), localDay(now, seminar.timeZone)].sort()[0]!,
      ]
  const days: string[] = []
  for (let day = firstDay; day <= lastDay && days.length < MOST_DAYS; day = dayAfter(day, 1)) days.push(day)
  // nobody is silent in what was over before they joined; whoever has written in it is heard all the same
  const over = chosen ? chosen.closesAt : to
  const later = chosenStudents.filter(s => s.joinedAt >= over).map(s => s.enrolmentId)
  const heard = later.length > 0 ? await whoWrote(db, later, chosen ? [chosen] : (among ?? plans)) : new Set()
  const students = chosenStudents.filter(s => s.joinedAt < over || heard.has(s.enrolmentId))
  return {
    chosen,
    plans,
    activities: chosen
      ? [chosen]
      : (among ?? (query.kind ? plans.filter(p => p.activity.kind === query.kind) : plans)),
    students,
    from,
    to,
    weeks,
    days,
    sections: sectionRows,
    groups: groupRows.map(({ id, title }) => ({ id, title })),
  }
}

/** Which of some students have written in activities. */
async function whoWrote(
  db: Db,
  enrolmentIds: readonly string[],
  plans: readonly ActivityPlan[],
): Promise<ReadonlySet<string>> {
  const rows = await db
    .selectDistinct({ authorId: contributions.authorId })
    .from(contributions)
    .where(
      and(
        inArray(contributions.authorId, [...enrolmentIds]),
        inArray(
          contributions.activityId,
          plans.map(p => p.activity.id),
        ),
        eq(contributions.state, 'shown'),
      ),
    )
  return new Set(rows.map(r => r.authorId))
}
