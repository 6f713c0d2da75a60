import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { type GroupRules } from '#core/people/makeGroups'
import { type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  contributions,
  enrolments,
  groupMembers,
  groupPlans,
  groups,
  sections,
} from '#server/database/schema'
import { countedStudents } from '#server/services/people/students'
import type { GroupPlanView, GroupsView } from '#shared/people/groups'
import { initialsOf } from '#core/people/names'

/** Group plans with their groups. Staff see who is where and what they have written; students see the plans, too. */
export async function groupsView(db: Db, actor: Actor): Promise<GroupsView> {
  const { seminar, enrolment } = actor
  const [students, plans, sectionRows] = await Promise.all([
    countedStudents(db, seminar.id),
    db
      .select()
      .from(groupPlans)
      .where(eq(groupPlans.seminarId, seminar.id))
      .orderBy(asc(groupPlans.position), asc(groupPlans.madeAt)),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position), asc(sections.title)),
  ])
  const staff = enrolment.role === 'instructor' || enrolment.role === 'assistant'
  return {
    plans: await planViews(db, plans, staff),
    people: students.map(s => ({
      id: s.enrolmentId,
      name: s.name,
      givenName: s.givenName,
      familyName: s.familyName,
      initials: initialsOf(s),
      sectionId: s.sectionId,
    })),
    sections: sectionRows,
    mayManage: enrolment.role === 'instructor',
    me: enrolment.id,
  }
}

/** All that is shown of group plans, in four queries however many there are. */
async function planViews(
  db: Db,
  plans: ReadonlyArray<typeof groupPlans.$inferSelect>,
  staff: boolean,
): Promise<GroupPlanView[]> {
  if (plans.length === 0) return []
  const ids = plans.map(p => p.id)
  const [groupRows, members, used] = await Promise.all([
    db.select().from(groups).where(inArray(groups.groupPlanId, ids)).orderBy(asc(groups.position)),
    db
      .select({ groupId: groupMembers.groupId, enrolmentId: groupMembers.enrolmentId })
      .from(groupMembers)
      .innerJoin(enrolments, eq(enrolments.id, groupMembers.enrolmentId))
      .where(and(inArray(groupMembers.groupPlanId, ids), eq(enrolments.state, 'active')))
      .orderBy(asc(groupMembers.since), asc(groupMembers.enrolmentId)),
    db
      .select({ id: activities.id, title: activities.title, planId: activities.groupPlanId })
      .from(activities)
      .where(and(eq(activities.seminarId, plans[0]!.seminarId), inArray(activities.groupPlanId, ids))),
  ])
  const work = staff
    ? await workIn(
        db,
        used.map(a => a.id),
      )
    : []
  return plans.map(plan => {
    const usedHere = used.filter(a => a.planId === plan.id)
    const titles = new Map(usedHere.map(a => [a.id, a.title]))
    return {
      id: plan.id,
      title: plan.title,
      version: plan.version,
      rules: staff ? copyRules(plan.rules) : { ...copyRules(plan.rules), together: [], apart: [] },
      selfJoin: plan.selfJoin,
      most: plan.most,
      groups: groupRows
        .filter(g => g.groupPlanId === plan.id)
        .map(g => ({
          id: g.id,
          title: g.title,
          memberIds: members.filter(m => m.groupId === g.id).map(m => m.enrolmentId),
        })),
      usedBy: staff ? usedHere.map(({ id, title }) => ({ id, title })) : [],
      work: work
        .filter(w => titles.has(w.activityId))
        .map(w => ({
          enrolmentId: w.enrolmentId,
          activity: titles.get(w.activityId)!,
          contributions: w.n,
        })),
    }
  })
}

/** How much each has written in these activities. */
async function workIn(db: Db, activityIds: readonly string[]) {
  if (activityIds.length === 0) return []
  return db
    .select({
      enrolmentId: contributions.authorId,
      activityId: contributions.activityId,
      n: sql<number>`count(*)::int`,
    })
    .from(contributions)
    .where(
      and(
        inArray(contributions.activityId, [...activityIds]),
        inArray(contributions.state, ['shown', 'draft']),
      ),
    )
    .groupBy(contributions.authorId, contributions.activityId)
    .orderBy(contributions.authorId, contributions.activityId)
}

export const usedBy = (db: Db, plan: { readonly id: string; readonly seminarId: string }) =>
  db
    .select({ id: activities.id, title: activities.title })
    .from(activities)
    .where(and(eq(activities.seminarId, plan.seminarId), eq(activities.groupPlanId, plan.id)))

const copyRules = (r: GroupRules) => ({
  ...r,
  together: r.together.map(s => [...s]),
  apart: r.apart.map(s => [...s]),
})
