import { and, eq, inArray, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { nothingHere, notYours, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, groupMembers, groupPlans, groups, wikiPages } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'
import { Problem, refusedField } from '#server/http/problem'
import { countedStudents } from '#server/services/people/students'
import { withIdempotency } from '#server/services/idempotency'
import type { GroupPlanWrite } from '#shared/people/groups'
import { usedBy } from './groupsView'

/** Saves a plan as it stands after dragging: names, members, whether students choose. Nothing anyone wrote is touched. */
export function saveGroupPlan(
  db: Database,
  actor: Actor,
  planId: string,
  write: GroupPlanWrite,
  now: Date,
): Promise<{ id: string }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const plan = await requirePlan(tx, actor, planId, write.baseVersion)
    const grouped = write.groups.flatMap(g => g.memberIds)
    if (new Set(grouped).size < grouped.length)
      throw refusedField(
        'groups',
        'twice',
        'Somebody stands in two groups of this plan. Remove them from one.',
      )
    const students = new Set((await countedStudents(tx, actor.seminar.id)).map(s => s.enrolmentId))
    if (grouped.some(id => !students.has(id)))
      throw refusedField(
        'groups',
        'gone',
        'Somebody in these groups has left the seminar meanwhile. Reload the page.',
      )
    const rows = await tx.select().from(groups).where(eq(groups.groupPlanId, planId))
    const foreign =
      write.groups.length > 0
        ? await tx
            .select({ id: groups.id, planId: groups.groupPlanId })
            .from(groups)
            .where(
              inArray(
                groups.id,
                write.groups.map(g => g.id),
              ),
            )
        : []
    if (foreign.some(g => g.planId !== planId)) throw nothingHere()
    const inPlan = { seminarId: actor.seminar.id, groupPlanId: planId }
    const listed = write.groups.map(({ id, title }, position) => ({ id, ...inPlan, title, position }))
    for (const some of slicesOf(listed))
      await tx
        .insert(groups)
        .values(some)
        .onConflictDoUpdate({
          target: groups.id,
          set: { title: sql`excluded.title`, position: sql`excluded.position` },
        })
    await setMembers(tx, plan, write.groups, now)
    await dropEmpty(
      tx,
      actor,
      plan,
      rows.filter(r => !write.groups.some(g => g.id === r.id)).map(r => r.id),
    )
    await tx
      .update(groupPlans)
      .set({
        title: write.title,
        selfJoin: write.selfJoin,
        most: write.most,
        rules: { ...plan.rules, ...write.rules },
        version: plan.version + 1,
      })
      .where(eq(groupPlans.id, planId))
    await noteActs(tx, actor, now, {
      act: 'groupPlanChanged',
      subjectId: planId,
    })
    return { id: planId }
  })
}

/** Members as given; those who stay where they were keep the time since when. */
export async function setMembers(
  tx: Db,
  plan: { readonly id: string; readonly seminarId: string },
  list: ReadonlyArray<{ readonly id: string; readonly memberIds: readonly string[] }>,
  now: Date,
): Promise<void> {
  const before = await tx.select().from(groupMembers).where(eq(groupMembers.groupPlanId, plan.id))
  const since = new Map(before.map(m => [`${m.groupId}:${m.enrolmentId}`, m.since]))
  await tx.delete(groupMembers).where(eq(groupMembers.groupPlanId, plan.id))
  const values = list.flatMap(g =>
    g.memberIds.map(enrolmentId => ({
      seminarId: plan.seminarId,
      groupPlanId: plan.id,
      groupId: g.id,
      enrolmentId,
      since: since.get(`${g.id}:${enrolmentId}`) ?? now,
    })),
  )
  for (const rows of slicesOf(values)) await tx.insert(groupMembers).values(rows)
}

/** A group that has begun a wiki stays, with what it wrote. */
async function requireNoPages(tx: Db, groupIds: readonly string[]): Promise<void> {
  if (groupIds.length === 0) return
  const [used] = await tx
    .select({ group: groups.title, wiki: activities.title })
    .from(wikiPages)
    .innerJoin(groups, eq(groups.id, wikiPages.groupId))
    .innerJoin(activities, eq(activities.id, wikiPages.activityId))
    .where(inArray(wikiPages.groupId, [...groupIds]))
    .limit(1)
  if (used)
    throw refusedField(
      'groups',
      'hasPages',
      `“${used.group}” has pages in “${used.wiki}”. It stays, with what it wrote; its people can be moved.`,
    )
}

export async function dropEmpty(
  tx: Db,
  actor: Actor,
  plan: { readonly id: string; readonly seminarId: string },
  groupIds: readonly string[],
): Promise<void> {
  if (groupIds.length === 0) return
  const named = await tx
    .select({ title: activities.title, audience: activities.audience })
    .from(activities)
    .where(eq(activities.seminarId, actor.seminar.id))
  const user = named.find(
    a => a.audience.kind === 'groups' && a.audience.groupIds.some(id => groupIds.includes(id)),
  )
  if (user)
    throw refusedField(
      'groups',
      'used',
      `“${user.title}” is for one of the groups you took away. Change for whom it is first.`,
    )
  await requireNoPages(tx, groupIds)
  await tx.delete(groups).where(inArray(groups.id, [...groupIds]))
}

/** Takes a plan away, unless an activity is for its groups. */
export async function removeGroupPlan(db: Database, actor: Actor, planId: string, now: Date): Promise<void> {
  await db.transaction(async tx => {
    const plan = await requirePlan(tx, actor, planId, null)
    const [user] = await usedBy(tx, plan)
    if (user)
      throw new Problem(
        409,
        'used',
        `“${user.title}” is for the groups of this plan. Change for whom it is first; then the plan can go.`,
      )
    await requireNoPages(
      tx,
      (await tx.select({ id: groups.id }).from(groups).where(eq(groups.groupPlanId, planId))).map(g => g.id),
    )
    await tx.delete(groupMembers).where(eq(groupMembers.groupPlanId, planId))
    await tx.delete(groups).where(eq(groups.groupPlanId, planId))
    await tx.delete(groupPlans).where(eq(groupPlans.id, planId))
    await noteActs(tx, actor, now, {
      act: 'groupPlanRemoved',
      subjectId: planId,
      detail: { title: plan.title },
    })
  })
}

/** A student chooses a group, or leaves theirs. Of two who come for the last place one gets it. */
export async function chooseGroup(
  db: Database,
  actor: Actor,
  planId: string,
  groupId: string | null,
  now: Date,
): Promise<void> {
  if (actor.enrolment.role !== 'student')
    throw notYours('Students choose their groups; the instructor puts people into them on the groups page.')
  await db.transaction(async tx => {
    const plan = await requirePlan(tx, actor, planId, null)
    if (!plan.selfJoin) throw new Problem(403, 'notOpen', 'In this plan the instructor makes the groups.')
    if (groupId !== null) {
      const [group] = await tx
        .select()
        .from(groups)
        .where(and(eq(groups.id, groupId), eq(groups.groupPlanId, planId)))
      if (!group) throw nothingHere()
      const [{ n } = { n: 0 }] = await tx
        .select({ n: sql<number>`count(*)::int` })
        .from(groupMembers)
        .where(
          and(eq(groupMembers.groupId, groupId), sql`${groupMembers.enrolmentId} <> ${actor.enrolment.id}`),
        )
      if (plan.most !== null && n >= plan.most)
        throw new Problem(409, 'full', `“${group.title}” is full: ${plan.most} people. Choose another group.`)
    }
    await tx
      .delete(groupMembers)
      .where(and(eq(groupMembers.groupPlanId, planId), eq(groupMembers.enrolmentId, actor.enrolment.id)))
    if (groupId !== null)
      await tx.insert(groupMembers).values({
        seminarId: actor.seminar.id,
        groupPlanId: planId,
        groupId,
        enrolmentId: actor.enrolment.id,
        since: now,
      })
    await tx
      .update(groupPlans)
      .set({ version: plan.version + 1 })
      .where(eq(groupPlans.id, planId))
  })
}

/** The plan, locked for this change; refused when it has moved on since it was seen. */
export async function requirePlan(tx: Db, actor: Actor, planId: string, baseVersion: number | null) {
  const [plan] = await tx
    .select()
    .from(groupPlans)
    .where(and(eq(groupPlans.id, planId), eq(groupPlans.seminarId, actor.seminar.id)))
    .for('update')
  if (!plan) throw nothingHere()
  if (baseVersion !== null && plan.version !== baseVersion)
    throw new Problem(
      409,
      'changedMeanwhile',
      'These groups were changed by someone else meanwhile. They are shown as they are now; make your change again.',
    )
  return plan
}
