import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { makeGroups, type BrokenRule, type GroupRules } from '#core/people/makeGroups'
import { nothingHere, notYours, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  contributions,
  enrolments,
  groupMembers,
  groupPlans,
  groups,
  sections,
  wikiPages,
} from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { countedStudents, type Student } from '#server/services/contributing/records'
import { once } from '#server/services/receipt'
import type { GroupPlanMake, GroupPlanView, GroupPlanWrite, GroupsView } from '#shared/people/groups'
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

const usedBy = (db: Db, plan: { readonly id: string; readonly seminarId: string }) =>
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

/** Makes a plan and deals people and topics into it; by hand, the groups are made empty. */
export function makeGroupPlan(
  db: Database,
  actor: Actor,
  write: GroupPlanMake,
  now: Date,
): Promise<{ id: string }> {
  return once(db, actor.enrolment, write.key, async tx => {
    const students = await countedStudents(tx, actor.seminar.id)
    const dealt =
      write.rules.by === 'hand' || write.selfJoin
        ? Array.from(
            {
              length: Math.max(
                write.rules.by === 'size'
                  ? Math.ceil(students.length / write.rules.count)
                  : write.rules.count,
                write.topics.length,
              ),
            },
            () => [] as string[],
          )
        : dealOut(students, write.rules)
    const [plan] = await tx
      .insert(groupPlans)
      .values({
        seminarId: actor.seminar.id,
        title: write.title,
        rules: write.rules,
        selfJoin: write.selfJoin,
        most: write.most,
        madeAt: now,
        position: await tx.$count(groupPlans, eq(groupPlans.seminarId, actor.seminar.id)),
      })
      .returning()
    const made = await tx
      .insert(groups)
      .values(
        dealt.map((_, position) => ({
          seminarId: actor.seminar.id,
          groupPlanId: plan!.id,
          title: topicOf(write.topics, position),
          position,
        })),
      )
      .returning()
    await setMembers(
      tx,
      plan!,
      made.map((g, i) => ({ id: g.id, memberIds: dealt[i]! })),
      now,
    )
    return { id: plan!.id }
  })
}

/** A topic is dealt to each group in turn; with more groups than topics they come round again, numbered. */
function topicOf(topics: readonly string[], position: number): string {
  if (topics.length === 0) return `Group ${position + 1}`
  const round = Math.floor(position / topics.length)
  return `${topics[position % topics.length]}${round > 0 ? ` ${round + 1}` : ''}`
}

/** Deals people anew into the groups a plan has, by its rules; refused when the rules contradict each other. */
export function dealAgain(
  db: Database,
  actor: Actor,
  planId: string,
  write: { readonly key: string; readonly baseVersion: number; readonly rules: GroupRules },
  now: Date,
): Promise<{ id: string }> {
  return once(db, actor.enrolment, write.key, async tx => {
    const plan = await requirePlan(tx, actor, planId, write.baseVersion)
    const dealt = dealOut(await countedStudents(tx, actor.seminar.id), write.rules)
    const rows = await tx
      .select()
      .from(groups)
      .where(eq(groups.groupPlanId, planId))
      .orderBy(asc(groups.position))
    const extra =
      dealt.length > rows.length
        ? await tx
            .insert(groups)
            .values(
              dealt.slice(rows.length).map((_, i) => ({
                seminarId: actor.seminar.id,
                groupPlanId: planId,
                title: `Group ${rows.length + i + 1}`,
                position: rows.length + i,
              })),
            )
            .returning()
        : []
    await setMembers(
      tx,
      plan,
      [...rows, ...extra].map((g, i) => ({ id: g.id, memberIds: dealt[i] ?? [] })),
      now,
    )
    await dropEmpty(
      tx,
      actor,
      plan,
      rows.slice(dealt.length).map(g => g.id),
    )
    await tx
      .update(groupPlans)
      .set({ rules: write.rules, version: plan.version + 1 })
      .where(eq(groupPlans.id, planId))
    return { id: planId }
  })
}

function dealOut(students: readonly Student[], rules: GroupRules): ReadonlyArray<readonly string[]> {
  const result = makeGroups(
    students.map(s => ({ id: s.enrolmentId, sectionId: s.sectionId })),
    rules,
  )
  if (result.kind === 'made') return result.groups
  if (result.kind === 'tooTangled')
    throw refusedField(
      'rules',
      'tooTangled',
      'These rules are so entangled that no way was found in good time, and none was ruled out. Take one of them off.',
    )
  const names = new Map(students.map(s => [s.enrolmentId, s.name]))
  throw new Problem(422, 'contradiction', contradictionSentence(result.rules, rules, names), {
    fields: { rules: contradictionSentence(result.rules, rules, names) },
    theirs: { rules: result.rules },
  })
}

/** Names the smallest set of rules that cannot all be kept. */
export function contradictionSentence(
  broken: readonly BrokenRule[],
  rules: GroupRules,
  names: ReadonlyMap<string, string>,
): string {
  const list = (ids: readonly string[]) =>
    ids
      .map(id => names.get(id) ?? 'somebody')
      .join(', ')
      .replace(/, ([^,]*)$/, ' and $1')
  const words = broken.map(b =>
    b.kind === 'together'
      ? `keep ${list(rules.together[b.index]!)} together`
      : `keep ${list(rules.apart[b.index]!)} apart`,
  )
  if (words.length === 1)
    return `This cannot be done in ${rules.by === 'size' ? `groups of ${rules.count}` : `${rules.count} groups`}: ${words[0]}. Change it, or the groups.`
  return `These contradict each other: ${words.join('; ')}. Take one of them off.`
}

/** Saves a plan as it stands after dragging: names, members, whether students choose. Nothing anyone wrote is touched. */
export function saveGroupPlan(
  db: Database,
  actor: Actor,
  planId: string,
  write: GroupPlanWrite,
  now: Date,
): Promise<{ id: string }> {
  return once(db, actor.enrolment, write.key, async tx => {
    const plan = await requirePlan(tx, actor, planId, write.baseVersion)
    const placed = write.groups.flatMap(g => g.memberIds)
    if (new Set(placed).size < placed.length)
      throw refusedField(
        'groups',
        'twice',
        'Somebody stands in two groups of this plan. Take them out of one.',
      )
    const students = new Set((await countedStudents(tx, actor.seminar.id)).map(s => s.enrolmentId))
    if (placed.some(id => !students.has(id)))
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
    for (const [position, g] of write.groups.entries()) {
      await tx
        .insert(groups)
        .values({ id: g.id, seminarId: actor.seminar.id, groupPlanId: planId, title: g.title, position })
        .onConflictDoUpdate({ target: groups.id, set: { title: g.title, position } })
    }
    await setMembers(tx, plan, write.groups, now)
    await dropEmpty(
      tx,
      actor,
      plan,
      rows.filter(r => !write.groups.some(g => g.id === r.id)).map(r => r.id),
    )
    await tx
      .update(groupPlans)
      .set({ title: write.title, selfJoin: write.selfJoin, most: write.most, version: plan.version + 1 })
      .where(eq(groupPlans.id, planId))
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: 'changed a group plan',
      subjectId: planId,
    })
    return { id: planId }
  })
}

/** Members as given; those who stay where they were keep the time since when. */
async function setMembers(
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
  for (let i = 0; i < values.length; i += 1000)
    await tx.insert(groupMembers).values(values.slice(i, i + 1000))
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

async function dropEmpty(
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
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: 'removed a group plan',
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
async function requirePlan(tx: Db, actor: Actor, planId: string, baseVersion: number | null) {
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
