import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  contributions,
  enrolments,
  expectations,
  extensions,
  groupMembers,
  groups,
  jointSeminars,
  phases,
  prompts,
  seminars,
} from '#server/database/schema'
import type { Participant } from '#server/services/people'
import { isMeant } from '#core/planning/audience'
import type { Term } from '#core/planning/week'
import { weeklySpans, type WeeklySpan } from '#core/planning/weeklySpans'
import { closesAt, type Extension, type Phase } from '#core/planning/schedule'
import type { ExpectationRule } from '#core/planning/expectations/rule'

export interface PlannedExpectation {
  readonly id: string
  readonly rule: ExpectationRule
  readonly needed: boolean
}

/** An activity with all that its dates and expectations say. */
export interface ActivityPlan {
  readonly activity: ActivityRow
  readonly phases: readonly Phase[]
  readonly closesAt: Date
  readonly timeZone: string // of the seminar it is at home in
  readonly expectations: readonly PlannedExpectation[]
  readonly extensions: ReadonlyMap<string, Extension & { readonly reason: string }> // by enrolment
  /** Weeks that a weekly expectation asks about, by the expectation's place. */
  readonly weeks: ReadonlyArray<ReadonlyArray<{ readonly startsAt: Date; readonly endsAt: Date }>>
  readonly joint: readonly string[] // other seminars that take part
  readonly questions: readonly string[] // threads staff have opened for all to answer, in a discussion of that style
  readonly prompts: ReadonlyArray<{ readonly id: string; readonly releaseAt: Date }>
  /** Whether a student takes part. */
  readonly isMeant: (student: Participant) => boolean
  /** The group of the audience's group plan a student is in; null without one. */
  readonly groupOf: (enrolmentId: string) => string | null
}

/** Plans of several activities in a few queries, however many there are. */
export async function loadPlans(db: Db, rows: readonly ActivityRow[]): Promise<ActivityPlan[]> {
  if (rows.length === 0) return []
  const ids = rows.map(a => a.id)
  const planIds = [
    ...new Set(rows.flatMap(a => (a.audience.kind === 'groups' ? [a.audience.groupPlanId] : []))),
  ]
  const [allPhases, allRules, allExtensions, terms, joint, allPrompts, allQuestions, members, allGroups] =
    await Promise.all([
      db.select().from(phases).where(inArray(phases.activityId, ids)).orderBy(asc(phases.position)),
      db
        .select()
        .from(expectations)
        .where(inArray(expectations.activityId, ids))
        .orderBy(asc(expectations.position)),
      db.select().from(extensions).where(inArray(extensions.activityId, ids)),
      db
        .select()
        .from(seminars)
        .where(inArray(seminars.id, [...new Set(rows.map(a => a.seminarId))])),
      db.select().from(jointSeminars).where(inArray(jointSeminars.activityId, ids)),
      db
        .select({ id: prompts.id, activityId: prompts.activityId, releaseAt: prompts.releaseAt })
        .from(prompts)
        .where(inArray(prompts.activityId, ids))
        .orderBy(asc(prompts.releaseAt), asc(prompts.position)),
      questionsOf(db, rows),
      planIds.length > 0
        ? db.select().from(groupMembers).where(inArray(groupMembers.groupPlanId, planIds))
        : [],
      planIds.length > 0
        ? db
            .select({ id: groups.id, planId: groups.groupPlanId })
            .from(groups)
            .where(inArray(groups.groupPlanId, planIds))
        : [],
    ])
  const groupsOfPlan = new Map<string, ReadonlyMap<string, string>>()
  return rows.map(activity => {
    const own = allPhases.filter(p => p.activityId === activity.id)
    const rules = allRules.filter(e => e.activityId === activity.id)
    const term = terms.find(t => t.id === activity.seminarId)!
    return {
      activity,
      phases: own,
      closesAt: closesAt({ opensAt: activity.opensAt, phases: own }),
      timeZone: term.timeZone,
      expectations: rules,
      extensions: new Map(
        allExtensions.filter(e => e.activityId === activity.id).map(e => [e.enrolmentId, e]),
      ),
      weeks: rules.map(({ rule }) => weeksAsked(rule, own, term, activity.settings.rests ?? [])),
      joint: joint.filter(j => j.activityId === activity.id).map(j => j.seminarId),
      questions: allQuestions.filter(q => q.activityId === activity.id).map(q => q.id),
      prompts: allPrompts.filter(p => p.activityId === activity.id),
      isMeant: meantBy(activity),
      groupOf: id => groupsOf(activity).get(id) ?? null,
    }
  })

  // a joint seminar takes part as a whole; sections, groups and people are the home's own
  function meantBy(activity: ActivityRow): ActivityPlan['isMeant'] {
    const guests = new Set(joint.filter(j => j.activityId === activity.id).map(j => j.seminarId))
    const atHome = meantAtHome(activity)
    return student =>
      student.seminarId === activity.seminarId ? atHome(student) : guests.has(student.seminarId)
  }

  /** Who is in which group of an activity's group plan. */
  function groupsOf({ audience }: Pick<ActivityRow, 'audience'>): ReadonlyMap<string, string> {
    if (audience.kind !== 'groups') return new Map()
    const known = groupsOfPlan.get(audience.groupPlanId)
    if (known) return known
    const own = members.filter(m => m.groupPlanId === audience.groupPlanId)
    const made = new Map(own.map(m => [m.enrolmentId, m.groupId]))
    groupsOfPlan.set(audience.groupPlanId, made)
    return made
  }

  function meantAtHome({ audience }: ActivityRow): ActivityPlan['isMeant'] {
    if (audience.kind !== 'groups') return student => isMeant(audience, { ...student, groupIds: [] }, [])
    const planGroups = allGroups.filter(g => g.planId === audience.groupPlanId).map(g => g.id)
    const groupOf = groupsOf({ audience })
    return student =>
      isMeant(
        audience,
        { ...student, groupIds: groupOf.has(student.enrolmentId) ? [groupOf.get(student.enrolmentId)!] : [] },
        planGroups,
      )
  }
}

/** Spans of the weeks in which a weekly rule asks for something. */
export function weeksAsked(
  rule: ExpectationRule,
  own: readonly Phase[],
  term: Term,
  rests: readonly number[],
): WeeklySpan[] {
  const phase = rule.kind === 'weeklyEntries' ? own.find(p => p.name === rule.due) : undefined
  return phase ? weeklySpans(phase, term, rests) : []
}

/** Questions of discussions in which staff open the threads. */
async function questionsOf(
  db: Db,
  rows: readonly ActivityRow[],
): Promise<Array<{ id: string; activityId: string }>> {
  const ids = rows.filter(a => a.settings.threads === 'staff').map(a => a.id)
  if (ids.length === 0) return []
  return db
    .select({ id: contributions.id, activityId: contributions.activityId })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .where(
      and(
        inArray(contributions.activityId, ids),
        isNull(contributions.parentId),
        eq(contributions.state, 'shown'),
        inArray(enrolments.role, ['instructor', 'assistant']),
      ),
    )
    .orderBy(asc(contributions.seq))
}

export async function loadPlan(db: Db, activity: ActivityRow): Promise<ActivityPlan> {
  const [plan] = await loadPlans(db, [activity])
  return plan!
}
