import { asc, eq } from 'drizzle-orm'
import { makeGroups, type BrokenRule, type GroupRules } from '#core/people/makeGroups'
import { type Actor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { groupPlans, groups } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { countedStudents, type Student } from '#server/services/people/students'
import { withIdempotency } from '#server/services/idempotency'
import type { GroupPlanMake } from '#shared/people/groups'
import { setMembers, dropEmpty, requirePlan } from './groups'

/** Makes a plan and deals people and topics into it; by hand, the groups are made empty. */
export function makeGroupPlan(
  db: Database,
  actor: Actor,
  write: GroupPlanMake,
  now: Date,
): Promise<{ id: string }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
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
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
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
    return `This cannot be done in ${groupsWords(rules)}: ${words[0]}. Change it, or the groups.`
  return `These contradict each other: ${words.join('; ')}. Take one of them off.`
}

function groupsWords({ by, count, upTo }: GroupRules): string {
  if (by !== 'size') return `${count} groups`
  return upTo && upTo > count ? `groups of ${count} to ${upTo}` : `groups of ${count}`
}
