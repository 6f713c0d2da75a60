import { and, asc, eq } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, groupMembers, groups } from '#server/database/schema'

export interface AudienceGroup {
  readonly id: string
  readonly title: string
  readonly memberIds: readonly string[]
}

/** Groups of the plan an activity is for; none where it is not for groups. */
export async function groupsOf(db: Db, { audience }: ActivityRow): Promise<AudienceGroup[]> {
  if (audience.kind !== 'groups') return []
  const [named, members] = await Promise.all([
    db
      .select({ id: groups.id, title: groups.title })
      .from(groups)
      .where(eq(groups.groupPlanId, audience.groupPlanId))
      .orderBy(asc(groups.position)),
    db
      .select({ groupId: groupMembers.groupId, id: groupMembers.enrolmentId })
      .from(groupMembers)
      .innerJoin(enrolments, eq(enrolments.id, groupMembers.enrolmentId))
      .where(and(eq(groupMembers.groupPlanId, audience.groupPlanId), eq(enrolments.state, 'active')))
      .orderBy(asc(groupMembers.enrolmentId)),
  ])
  return named
    .filter(g => audience.groupIds.length === 0 || audience.groupIds.includes(g.id))
    .map(g => ({ ...g, memberIds: members.filter(m => m.groupId === g.id).map(m => m.id) }))
}
