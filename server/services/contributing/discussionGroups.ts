import { asc, eq, inArray } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, groupMembers, groups, sections } from '#server/database/schema'
import { seminarsOf } from '#server/services/planning'

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
  const { apart } = talkOf(activity.settings)
  const { audience } = activity
  if (apart === 'groups' && audience.kind === 'groups') {
    const [named, members] = await Promise.all([
      db
        .select({ id: groups.id, title: groups.title })
        .from(groups)
        .where(eq(groups.groupPlanId, audience.groupPlanId))
        .orderBy(asc(groups.position)),
      db
        .select({ group: groupMembers.groupId, enrolmentId: groupMembers.enrolmentId })
        .from(groupMembers)
        .where(eq(groupMembers.groupPlanId, audience.groupPlanId)),
    ])
    const meant = named.filter(g => audience.groupIds.length === 0 || audience.groupIds.includes(g.id))
    return {
      titles: new Map(meant.map(g => [g.id, g.title])),
      ofPerson: new Map(members.map(m => [m.enrolmentId, m.group])),
    }
  }
  if (apart !== 'sections') return null
  const seminarIds = await seminarsOf(db, activity)
  const [named, members] = await Promise.all([
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(inArray(sections.seminarId, seminarIds))
      .orderBy(asc(sections.position)),
    db
      .select({ group: enrolments.sectionId, enrolmentId: enrolments.id })
      .from(enrolments)
      .where(inArray(enrolments.seminarId, seminarIds)),
  ])
  const meant = named.filter(s => audience.kind !== 'sections' || audience.sectionIds.includes(s.id))
  return {
    titles: new Map(meant.map(s => [s.id, s.title])),
    ofPerson: new Map(members.flatMap(m => (m.group ? [[m.enrolmentId, m.group] as const] : []))),
  }
}
