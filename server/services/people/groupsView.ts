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
import { initialsOf } from './nameView'

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
    plans: await Promise.all(plans.map(p => planView(db, p, staff))),
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

async function planView(
  db: Db,
  plan: typeof groupPlans.$inferSelect,
  staff: boolean,
): Promise<GroupPlanView> {
  const [groupRows, members, used] = await Promise.all([
    db.select().from(groups).where(eq(groups.groupPlanId, plan.id)).orderBy(asc(groups.position)),
    db
      .select({ groupId: groupMembers.groupId, enrolmentId: groupMembers.enrolmentId })
      .from(groupMembers)
      .innerJoin(enrolments, eq(enrolments.id, groupMembers.enrolmentId))
      .where(and(eq(groupMembers.groupPlanId, plan.id), eq(enrolments.state, 'active')))
      .orderBy(asc(groupMembers.since), asc(groupMembers.enrolmentId)),
    usedBy(db, plan),
  ])
  const work =
    staff && used.length > 0
      ? await db
          .select({
            enrolmentId: contributions.authorId,
            activityId: contributions.activityId,
            n: sql<number>`count(*)::int`,
          })
          .from(contributions)
          .where(
            and(
              inArray(
                contributions.activityId,
                used.map(a => a.id),
              ),
              inArray(contributions.state, ['shown', 'draft']),
            ),
          )
          .groupBy(contributions.authorId, contributions.activityId)
          .orderBy(contributions.authorId, contributions.activityId)
      : []
  return {
    id: plan.id,
    title: plan.title,
    version: plan.version,
    rules: staff ? copyRules(plan.rules) : { ...copyRules(plan.rules), together: [], apart: [] },
    selfJoin: plan.selfJoin,
    most: plan.most,
    groups: groupRows.map(g => ({
      id: g.id,
      title: g.title,
      memberIds: members.filter(m => m.groupId === g.id).map(m => m.enrolmentId),
    })),
    usedBy: staff ? used : [],
    work: work.map(w => ({
      enrolmentId: w.enrolmentId,
      activity: used.find(a => a.id === w.activityId)!.title,
      contributions: w.n,
    })),
  }
}

export const usedBy = (db: Db, plan: { readonly id: string; readonly seminarId: string }) =>
  db
    .select({ id: activities.id, title: activities.title })
    .from(activities)
    .where(
      and(
        eq(activities.seminarId, plan.seminarId),
        sql`${activities.audience} ->> 'groupPlanId' = ${plan.id}`,
      ),
    )

const copyRules = (r: GroupRules) => ({
  ...r,
  together: r.together.map(s => [...s]),
  apart: r.apart.map(s => [...s]),
})
