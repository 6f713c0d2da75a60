import { and, asc, desc, eq, inArray, isNull, lte } from 'drizzle-orm'
import { v7 } from 'uuid'
import {
  fill,
  firstDraft,
  missingSentence,
  wordsIn,
  type MissingWork,
  type Particulars,
} from '#core/messaging/draft'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, messages, messageThreads } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { type Student, countedStudents, isRunning } from '#server/services/people'
import { localTime } from '#core/planning/localTime'
import type { ActivityPlan } from '#server/services/planning'
import { closesFor } from '#core/planning/dueTimes'
import { withIdempotency } from '#server/services/idempotency'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { MessageDraft, SendMessages } from '#shared/messaging/messages'
import { missingWork, nextDue, openPlans } from '#server/services/standing'
import { tell } from './notices'

/** How long what was sent can be taken back: its students are told after it. */
export const GRACE = 60_000 // milliseconds

/** The draft one begins from, and what differs in it from one student to the next. */
export async function draftFor(
  db: Db,
  actor: Actor,
  ids: readonly string[],
  activityId: string | undefined,
  now: Date,
): Promise<MessageDraft> {
  const [plans, everyone] = await Promise.all([
    openPlans(db, actor.seminar.id, now),
    countedStudents(db, actor.seminar.id),
  ])
  const plan = activityId ? plans.find(p => p.activity.id === activityId) : null
  if (plan === undefined) throw nothingHere()
  const students = ids.length > 0 ? everyone.filter(s => ids.includes(s.enrolmentId)) : []
  const missing = await missingWork(db, plan ? [plan] : plans, students, now, !plan)
  const people = students.map(s => ({
    id: s.enrolmentId,
    fullName: s.name,
    ...particulars(s, plan, missing.get(s.enrolmentId)!, actor.seminar.timeZone, now),
  }))
  return {
    ...firstDraft({
      activity: plan?.activity.title ?? null,
      anyMissing: people.some(p => p.missing !== ''),
      closed: plan ? plan.closesAt < now : false,
      from: actor.person.name,
    }),
    about: plan ? { id: plan.activity.id, title: plan.activity.title, kind: plan.activity.kind } : null,
    people,
  }
}

/** What stands in a message's places for one student. */
export function particulars(
  s: Student,
  plan: ActivityPlan | null,
  missing: readonly MissingWork[],
  timeZone: string,
  now: Date,
): Particulars {
  return {
    name: s.givenName,
    missing: plan ? (missing[0]?.toGo ?? '') : missingSentence(missing),
    activity: plan ? `“${plan.activity.title}”` : '',
    due: plan
      ? localTime(
          plan.closesAt < now ? closesFor(plan, s.enrolmentId) : nextDue(plan, s.enrolmentId, now),
          timeZone,
        )
      : '',
  }
}

/**
 * Writes to each of some students, one by one. Words written for one alone are between the two; the same words to several
 * are a broadcast, which is contact with nobody in particular.
 */
export function sendMessages(
  db: Database,
  actor: Actor,
  write: SendMessages,
  now: Date,
): Promise<{ sendingId: string; sent: number }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const ids = [...new Set(write.people.map(p => p.id))]
    const draft = await draftFor(tx, actor, ids, write.activityId ?? undefined, now)
    if (draft.people.length < ids.length)
      throw refusedField(
        'people',
        'gone',
        'One of these students is not in the seminar any more. Look at the list again; your words are kept here.',
      )
    const own = new Map(write.people.map(p => [p.id, p.text]))
    const sendingId = v7()
    await insertThreads(
      tx,
      draft.people.map(p => {
        const personal = own.get(p.id) ?? null
        const text = fill(personal ?? write.text, p)
        if (text === '')
          throw refusedField(
            'text',
            'empty',
            'Nothing would be left of this for at least one student. Write a line more.',
          )
        return {
          studentId: p.id,
          text,
          direct: ids.length === 1 || (personal !== null && fill(write.text, p) !== text),
          subject: fill(write.subject, p) || write.subject,
        }
      }),
      {
        seminarId: actor.seminar.id,
        startedBy: actor.enrolment.id,
        activityId: write.activityId,
        sendingId,
        ruleId: null,
      },
      now,
    )
    return { sendingId, sent: draft.people.length }
  })
}

interface NewThread {
  readonly studentId: string
  readonly text: string
  readonly subject: string
  readonly direct: boolean
}
interface Sending {
  readonly seminarId: string
  readonly startedBy: string
  readonly activityId: string | null
  readonly sendingId: string
  readonly ruleId: string | null
}

/** @returns how many were new: a rule writes to a student about an activity once, whoever tries again */
export async function insertThreads(
  db: Db,
  list: readonly NewThread[],
  sending: Sending,
  now: Date,
): Promise<number> {
  if (list.length === 0) return 0
  const rows = list.map(l => ({
    id: v7(),
    ...sending,
    studentId: l.studentId,
    subject: l.subject,
    lastAt: now,
    staffSeenAt: now,
    madeAt: now,
  }))
  const made = new Set(
    (
      await db.insert(messageThreads).values(rows).onConflictDoNothing().returning({ id: messageThreads.id })
    ).map(r => r.id),
  )
  const written = rows.flatMap((r, i) =>
    made.has(r.id)
      ? [
          {
            seminarId: sending.seminarId,
            threadId: r.id,
            authorId: sending.startedBy,
            text: list[i]!.text,
            words: wordsIn(list[i]!.text),
            direct: list[i]!.direct,
            at: now,
          },
        ]
      : [],
  )
  if (written.length > 0) await db.insert(messages).values(written)
  return made.size
}

/** Takes back what nobody has been told of yet. */
export function recallMessages(
  db: Database,
  actor: Actor,
  sendingId: string,
): Promise<{ takenBack: number }> {
  return db.transaction(async tx => {
    const mine = await tx
      .select({ id: messageThreads.id, toldAt: messageThreads.toldAt })
      .from(messageThreads)
      .where(
        and(
          eq(messageThreads.sendingId, sendingId),
          eq(messageThreads.seminarId, actor.seminar.id),
          eq(messageThreads.startedBy, actor.enrolment.id),
        ),
      )
      .for('update')
    if (mine.length === 0) throw nothingHere()
    if (mine.some(t => t.toldAt !== null))
      throw new Problem(
        409,
        'told',
        'This has been sent already, which cannot be undone. Write another line below it.',
      )
    await tx.delete(messages).where(
      inArray(
        messages.threadId,
        mine.map(t => t.id),
      ),
    )
    await tx.delete(messageThreads).where(
      inArray(
        messageThreads.id,
        mine.map(t => t.id),
      ),
    )
    return { takenBack: mine.length }
  })
}

/** Tells students of what was written to them, once the time for taking back is over. @returns how many were told */
export async function notifyOfMessages(db: Database, now: Date): Promise<number> {
  const isDue = and(
    isNull(messageThreads.toldAt),
    lte(messageThreads.madeAt, new Date(now.getTime() - GRACE)),
    isRunning(messageThreads.seminarId),
    mayBeTried('tellOfMessage', messageThreads.id, now),
  )
  const due = await db
    .select({ id: messageThreads.id, seminarId: messageThreads.seminarId })
    .from(messageThreads)
    .where(isDue)
    .orderBy(asc(messageThreads.madeAt))
    .limit(500)
  return doEach(db, 'tellOfMessage', due, now, async (tx, { id }) => {
    const [found] = await tx
      .select({ thread: messageThreads, by: enrolments.name })
      .from(messageThreads)
      .innerJoin(enrolments, eq(enrolments.id, messageThreads.startedBy))
      .where(and(eq(messageThreads.id, id), isDue))
      .for('update', { of: messageThreads, skipLocked: true })
    if (!found) return 0
    const { thread, by } = found
    const [last] = await tx
      .select({ text: messages.text })
      .from(messages)
      .where(eq(messages.threadId, id))
      .orderBy(desc(messages.at))
      .limit(1)
    await tell(
      tx,
      [thread.studentId],
      {
        kind: 'message',
        activityId: null,
        text: `${by} wrote to you: ${thread.subject}`,
        detail: last?.text ?? '',
      },
      seminarId => `/seminars/${seminarId}/messages?thread=${id}`,
      now,
    )
    await tx.update(messageThreads).set({ toldAt: now }).where(eq(messageThreads.id, id))
    return 1
  })
}
