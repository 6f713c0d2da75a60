import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { fill } from '#core/messaging/draft'
import { isTimeFor, reminderAt } from '#core/messaging/reminder'
import { nothingHere, type Actor, type Seminar } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  enrolments,
  messageRules,
  messageThreads,
  seminars,
} from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { type Student, countedStudents, isRunning } from '#server/services/people'
import { type ActivityPlan, loadPlans, takesPartIn } from '#server/services/planning'
import { firstDueOf } from '#core/planning/dueTimes'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { RuleList, RuleWrite } from '#shared/messaging/messages'
import { type Work, loadWork, missingOf } from '#server/services/standing'
import { insertThreads, particulars } from './writeTo'

type Rule = typeof messageRules.$inferSelect
const COMING = 4 // occasions shown ahead

const firstDue = (plan: ActivityPlan, enrolmentId: string): Date => new Date(firstDueOf(plan, enrolmentId))

async function plansOf(db: Db, seminarId: string): Promise<ActivityPlan[]> {
  const rows = await db
    .select()
    .from(activities)
    .where(
      and(
        takesPartIn(db, seminarId),
        eq(activities.isTemplate, false),
        inArray(activities.state, ['published', 'scheduled']),
      ),
    )
    .orderBy(asc(activities.opensAt))
  return (await loadPlans(db, rows)).filter(p => p.expectations.length > 0)
}

/** All rules with what each would do next: when, about what, and who would be written to if it were that time now. */
export async function listRules(db: Db, actor: Actor, now: Date): Promise<RuleList> {
  const [rules, plans, students] = await Promise.all([
    db
      .select({
        rule: messageRules,
        by: enrolments.name,
        sent: sql<number>`(select count(*)::int from message_threads t where t.rule_id = ${messageRules.id})`,
      })
      .from(messageRules)
      .innerJoin(enrolments, eq(enrolments.id, messageRules.madeBy))
      .where(eq(messageRules.seminarId, actor.seminar.id))
      .orderBy(asc(messageRules.madeAt)),
    plansOf(db, actor.seminar.id),
    countedStudents(db, actor.seminar.id),
  ])
  const work = await loadWork(db, plans, students, now)
  const soon = new Map<string, RuleList['rules'][number]['coming']>()
  for (const { rule } of rules) {
    const coming = plans
      .filter(p => rule.activityId === null || p.activity.id === rule.activityId)
      .map(plan => ({ plan, at: reminderAt(rule, firstDue(plan, ''), actor.seminar.timeZone) }))
      .filter(o => o.at > now)
      .sort((a, b) => a.at.getTime() - b.at.getTime())
      .slice(0, COMING)
    soon.set(
      rule.id,
      coming.map(({ plan, at }) => {
        const without = plan.activity.opensAt > now ? [] : silentIn(plan, students, work)
        const example = without[0] ?? students.find(plan.isMeant)
        const missing = example ? missingOf(work, [plan], example, now, false) : []
        return {
          activityId: plan.activity.id,
          title: plan.activity.title,
          kind: plan.activity.kind,
          at: at.toISOString(),
          dueAt: firstDue(plan, '').toISOString(),
          now: without.length,
          names: without.slice(0, 8).map(s => s.name),
          example: example
            ? fill(rule.text, particulars(example, plan, missing, actor.seminar.timeZone, now))
            : '',
        }
      }),
    )
  }
  return {
    rules: rules.map(({ rule, by, sent }) => ({
      id: rule.id,
      activityId: rule.activityId,
      daysBefore: rule.daysBefore,
      atTime: rule.atTime,
      subject: rule.subject,
      text: rule.text,
      on: rule.on,
      about: plans.find(p => p.activity.id === rule.activityId)?.activity.title ?? null,
      by,
      sent,
      version: rule.version,
      coming: soon.get(rule.id)!,
    })),
    activities: plans.map(p => ({ id: p.activity.id, title: p.activity.title })),
    mayManage: actor.enrolment.role === 'instructor' && actor.seminar.state === 'active',
  }
}

const silentIn = (
  plan: ActivityPlan,
  students: readonly Student[],
  { standings, excused }: Work,
): Student[] =>
  students.filter(s => {
    const { shown, standing } = standings.get(plan.activity.id)!.get(s.enrolmentId)!
    return (
      plan.isMeant(s) &&
      shown === 0 &&
      standing !== 'held' &&
      standing !== 'returned' &&
      !excused.has(`${plan.activity.id}:${s.enrolmentId}`)
    )
  })

export async function makeRule(db: Database, actor: Actor, write: RuleWrite): Promise<{ id: string }> {
  await requireActivityOf(db, actor, write.activityId)
  const [row] = await db
    .insert(messageRules)
    .values({ ...write, seminarId: actor.seminar.id, madeBy: actor.enrolment.id })
    .returning({ id: messageRules.id })
  return { id: row!.id }
}

/** A rule that is changed is switched off: what it does now is looked at before it is switched on again. */
export async function changeRule(
  db: Database,
  actor: Actor,
  ruleId: string,
  write: RuleWrite,
): Promise<{ id: string }> {
  await requireActivityOf(db, actor, write.activityId)
  const [row] = await db
    .update(messageRules)
    .set({ ...write, on: false, onSince: null, version: sql`${messageRules.version} + 1` })
    .where(and(eq(messageRules.id, ruleId), eq(messageRules.seminarId, actor.seminar.id)))
    .returning({ id: messageRules.id })
  if (!row) throw nothingHere()
  return row
}

export function switchRule(
  db: Database,
  actor: Actor,
  ruleId: string,
  write: { readonly on: boolean; readonly version: number },
  now: Date,
): Promise<{ id: string }> {
  return db.transaction(async tx => {
    const [rule] = await tx
      .select()
      .from(messageRules)
      .where(and(eq(messageRules.id, ruleId), eq(messageRules.seminarId, actor.seminar.id)))
      .for('update')
    if (!rule) throw nothingHere()
    if (rule.version !== write.version)
      throw new Problem(409, 'changed', 'Somebody has changed this rule meanwhile. Look at what it says now.')
    await tx
      .update(messageRules)
      .set({
        on: write.on,
        onSince: write.on ? now : null,
        madeBy: actor.enrolment.id,
        version: rule.version + 1,
      })
      .where(eq(messageRules.id, ruleId))
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      act: write.on ? 'messageRuleOn' : 'messageRuleOff',
      subjectId: ruleId,
      detail: {},
      at: now,
    })
    return { id: ruleId }
  })
}

/** A rule nobody was written to by goes; one that has sent is kept for its record and stays off. */
export function removeRule(db: Database, actor: Actor, ruleId: string): Promise<{ id: string }> {
  return db.transaction(async tx => {
    const [rule] = await tx
      .select()
      .from(messageRules)
      .where(and(eq(messageRules.id, ruleId), eq(messageRules.seminarId, actor.seminar.id)))
      .for('update')
    if (!rule) throw nothingHere()
    if ((await tx.$count(messageThreads, eq(messageThreads.ruleId, ruleId))) > 0)
      throw new Problem(
        409,
        'used',
        'Students have been written to by this rule, so it stays in the record. Switch it off instead.',
      )
    await tx.delete(messageRules).where(eq(messageRules.id, ruleId))
    return { id: ruleId }
  })
}

async function requireActivityOf(db: Db, actor: Actor, activityId: string | null): Promise<void> {
  if (activityId !== null && !(await plansOf(db, actor.seminar.id)).some(p => p.activity.id === activityId))
    throw refusedField(
      'activityId',
      'activity',
      'This activity asks for nothing, or is not one of this seminar. Choose another.',
    )
}

/** Writes what standing rules have to write by now. @returns to how many students */
export async function sendByRules(db: Database, now: Date): Promise<number> {
  const rules = await db
    .select({ id: messageRules.id, seminarId: messageRules.seminarId, rule: messageRules, seminar: seminars })
    .from(messageRules)
    .innerJoin(seminars, eq(seminars.id, messageRules.seminarId))
    .where(
      and(
        eq(messageRules.on, true),
        isRunning(messageRules.seminarId),
        mayBeTried('writeByRule', messageRules.id, now),
      ),
    )
  return doEach(db, 'writeByRule', rules, now, (tx, { rule, seminar }) => sendByRule(tx, rule, seminar, now))
}

async function sendByRule(db: Db, rule: Rule, seminar: Seminar, now: Date): Promise<number> {
  const plans = (await plansOf(db, seminar.id)).filter(
    p =>
      (rule.activityId === null || p.activity.id === rule.activityId) &&
      p.activity.state === 'published' &&
      p.activity.opensAt <= now,
  )
  const students = await countedStudents(db, seminar.id)
  const timely = plans
    .map(plan => ({
      plan,
      students: students.filter(s => {
        const due = firstDue(plan, s.enrolmentId)
        return isTimeFor(reminderAt(rule, due, seminar.timeZone), due, rule.onSince!, now)
      }),
    }))
    .filter(t => t.students.length > 0)
  if (timely.length === 0) return 0
  const [work, written] = await Promise.all([
    loadWork(
      db,
      timely.map(t => t.plan),
      students,
      now,
    ),
    db
      .select({ activityId: messageThreads.activityId, studentId: messageThreads.studentId })
      .from(messageThreads)
      .where(eq(messageThreads.ruleId, rule.id)),
  ])
  let sent = 0
  for (const { plan, students: asked } of timely) {
    const silent = silentIn(plan, asked, work).filter(
      s => !written.some(w => w.activityId === plan.activity.id && w.studentId === s.enrolmentId),
    )
    if (silent.length === 0) continue
    sent += await insertThreads(
      db,
      silent.map(s => {
        const part = particulars(s, plan, missingOf(work, [plan], s, now, false), seminar.timeZone, now)
        return {
          studentId: s.enrolmentId,
          text: fill(rule.text, part),
          subject: fill(rule.subject, part) || plan.activity.title,
          direct: false,
        }
      }),
      {
        seminarId: seminar.id,
        startedBy: rule.madeBy,
        activityId: plan.activity.id,
        sendingId: v7(),
        ruleId: rule.id,
      },
      now,
    )
  }
  return sent
}
