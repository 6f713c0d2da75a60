import { asc, inArray } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, groupMembers, groups, sections } from '#server/database/schema'
import { seminarsOfEach } from '#server/services/planning'

/** Who talks with whom where each section, or each group, talks by itself. */
export interface DiscussionGroups {
  readonly titles: ReadonlyMap<string, string> // by section or group, in their order
  readonly ofPerson: ReadonlyMap<string, string> // by enrolment
}

/** The group somebody talks in; those who are in no section or group talk among themselves. */
export const discussionGroupOf = (groups: DiscussionGroups | null, enrolmentId: string): string | null =>
  groups?.ofPerson.get(enrolmentId) ?? null

/** The discussion groups of an activity, or null where all talk together. Groups are those of the plan the activity is for. */
export async function discussionGroupsOf(db: Db, activity: ActivityRow): Promise<DiscussionGroups | null> {
  const found = await discussionGroupsOfEach(db, [activity])
  return found.get(activity.id) ?? null
}

/** The discussion groups of those activities in which not all talk together. */
export async function discussionGroupsOfEach(
  db: Db,
  activities: readonly ActivityRow[],
): Promise<Map<string, DiscussionGroups>> {
  const [byGroups, bySections] = await Promise.all([
    talkingInGroups(db, activities),
    talkingInSections(
      db,
      activities.filter(a => talkOf(a.settings).apart === 'sections'),
    ),
  ])
  return new Map([...byGroups, ...bySections])
}

async function talkingInGroups(
  db: Db,
  activities: readonly ActivityRow[],
): Promise<Array<[string, DiscussionGroups]>> {
  const apart = activities.flatMap(({ id, settings, audience }) =>
    talkOf(settings).apart === 'groups' && audience.kind === 'groups' ? [{ id, ...audience }] : [],
  )
  if (apart.length === 0) return []
  const planIds = apart.map(a => a.groupPlanId)
  const [named, members] = await Promise.all([
    db
      .select({ id: groups.id, title: groups.title, planId: groups.groupPlanId })
      .from(groups)
      .where(inArray(groups.groupPlanId, planIds))
      .orderBy(asc(groups.position)),
    db
      .select({
        group: groupMembers.groupId,
        enrolmentId: groupMembers.enrolmentId,
        planId: groupMembers.groupPlanId,
      })
      .from(groupMembers)
      .where(inArray(groupMembers.groupPlanId, planIds)),
  ])
  return apart.map(({ id, groupPlanId, groupIds }) => {
    const meant = named.filter(
      g => g.planId === groupPlanId && (groupIds.length === 0 || groupIds.includes(g.id)),
    )
    const own = members.filter(m => m.planId === groupPlanId)
    return [
      id,
      {
        titles: new Map(meant.map(g => [g.id, g.title])),
        ofPerson: new Map(own.map(m => [m.enrolmentId, m.group])),
      },
    ]
  })
}

async function talkingInSections(
  db: Db,
  activities: readonly ActivityRow[],
): Promise<Array<[string, DiscussionGroups]>> {
  if (activities.length === 0) return []
  const seminarsById = await seminarsOfEach(db, activities)
  const seminarIds = [...new Set([...seminarsById.values()].flat())]
  const [named, members] = await Promise.all([
    db
      .select({ id: sections.id, title: sections.title, seminarId: sections.seminarId })
      .from(sections)
      .where(inArray(sections.seminarId, seminarIds))
      .orderBy(asc(sections.position)),
    db
      .select({ group: enrolments.sectionId, enrolmentId: enrolments.id, seminarId: enrolments.seminarId })
      .from(enrolments)
      .where(inArray(enrolments.seminarId, seminarIds)),
  ])
  return activities.map(({ id, audience }) => {
    const isIn = new Set(seminarsById.get(id))
    const meant = named.filter(
      s => isIn.has(s.seminarId) && (audience.kind !== 'sections' || audience.sectionIds.includes(s.id)),
    )
    const own = members.filter(m => isIn.has(m.seminarId))
    return [
      id,
      {
        titles: new Map(meant.map(s => [s.id, s.title])),
        ofPerson: new Map(own.flatMap(m => (m.group ? [[m.enrolmentId, m.group] as const] : []))),
      },
    ]
  })
}
