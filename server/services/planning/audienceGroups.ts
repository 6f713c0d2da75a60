import { and, asc, eq, inArray } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, groupMembers, groups } from '#server/database/schema'

export interface AudienceGroup {
  readonly id: string
  readonly title: string
  readonly memberIds: readonly string[]
}

/** Groups of the plan an activity is for; none where it is not for groups. */
export async function groupsOf(db: Db, activity: ActivityRow): Promise<AudienceGroup[]> {
  const found = await groupsOfEach(db, [activity])
  return found.get(activity.id)!
}

/** The same of several activities, by activity. */
export async function groupsOfEach(
  db: Db,
  activities: readonly ActivityRow[],
): Promise<Map<string, AudienceGroup[]>> {
  const planIds = activities.flatMap(({ audience }) =>
    audience.kind === 'groups' ? [audience.groupPlanId] : [],
  )
  if (planIds.length === 0) return new Map(activities.map(a => [a.id, []]))
  const [named, members] = await Promise.all([
    db
      .select({ id: groups.id, title: groups.title, planId: groups.groupPlanId })
      .from(groups)
      .where(inArray(groups.groupPlanId, planIds))
      .orderBy(asc(groups.position)),
    db
      .select({ groupId: groupMembers.groupId, id: groupMembers.enrolmentId })
      .from(groupMembers)
      .innerJoin(enrolments, eq(enrolments.id, groupMembers.enrolmentId))
      .where(and(inArray(groupMembers.groupPlanId, planIds), eq(enrolments.state, 'active')))
      .orderBy(asc(groupMembers.enrolmentId)),
  ])
  const meantIn = ({ audience }: ActivityRow): AudienceGroup[] => {
    if (audience.kind !== 'groups') return []
    return named
      .filter(g => g.planId === audience.groupPlanId)
      .filter(g => audience.groupIds.length === 0 || audience.groupIds.includes(g.id))
      .map(({ id, title }) => ({
        id,
        title,
        memberIds: members.filter(m => m.groupId === id).map(m => m.id),
      }))
  }
  return new Map(activities.map(a => [a.id, meantIn(a)]))
}
