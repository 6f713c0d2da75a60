import { and, asc, desc, eq, inArray, isNotNull, sql, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { wordsIn } from '#core/messaging/draft'
import { isStaff, nothingHere, requireMayWrite, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, enrolments, messages, messageThreads } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { initialsOf } from '#core/people/names'
import { withIdempotency } from '#server/services/idempotency'
import type { MessageThread, ThreadList } from '#shared/messaging/messages'
import { tell } from './notices'

const AT_ONCE = 60
const student = alias(enrolments, 'student')
const starter = alias(enrolments, 'starter')

/** Staff read all of the seminar's; a student their own, once they have been told. Observers none. */
export function threadsOf({ seminar, enrolment }: Actor): SQL {
  if (isStaff(enrolment)) return eq(messageThreads.seminarId, seminar.id)
  return and(
    eq(messageThreads.seminarId, seminar.id),
    eq(messageThreads.studentId, enrolment.id),
    isNotNull(messageThreads.toldAt),
  )!
}
const seenAt = (actor: Actor) =>
  isStaff(actor.enrolment) ? messageThreads.staffSeenAt : messageThreads.studentSeenAt
export const isFresh = (actor: Actor): SQL =>
  sql`(${messageThreads.lastAt} > coalesce(${seenAt(actor)}, '-infinity'::timestamptz))`

const freshThreads = (db: Db, actor: Actor): Promise<number> =>
  db.$count(messageThreads, and(threadsOf(actor), isFresh(actor)))

function select(db: Db, actor: Actor) {
  return db
    .select({
      thread: messageThreads,
      activity: { id: activities.id, title: activities.title, kind: activities.kind },
      student: {
        name: student.name,
        givenName: student.givenName,
        familyName: student.familyName,
      },
      startedBy: starter.name,
      fresh: isFresh(actor).mapWith(Boolean),
    })
    .from(messageThreads)
    .leftJoin(activities, eq(activities.id, messageThreads.activityId))
    .innerJoin(student, eq(student.id, messageThreads.studentId))
    .innerJoin(starter, eq(starter.id, messageThreads.startedBy))
    .$dynamic()
}
const headOf = (r: Awaited<ReturnType<typeof select>>[number]) => ({
  id: r.thread.id,
  subject: r.thread.subject,
  about: r.activity,
  studentId: r.thread.studentId,
  student: r.student.name,
  initials: initialsOf(r.student),
  startedBy: r.startedBy,
  byRule: r.thread.ruleId !== null,
  lastAt: r.thread.lastAt.toISOString(),
  fresh: r.fresh,
  waits: r.thread.toldAt === null,
})

export async function listThreads(
  db: Db,
  actor: Actor,
  query: { readonly student?: string; readonly before?: string },
): Promise<ThreadList> {
  const rows = await select(db, actor)
    .where(
      and(
        threadsOf(actor),
        query.student ? eq(messageThreads.studentId, query.student) : undefined,
        query.before
          ? sql`(${messageThreads.lastAt}, ${messageThreads.id}) < (select b.last_at, b.id from message_threads b
            where b.id = ${query.before})`
          : undefined,
      ),
    )
    .orderBy(desc(messageThreads.lastAt), desc(messageThreads.id))
    .limit(AT_ONCE + 1)
  const shown = rows.slice(0, AT_ONCE)
  const said =
    shown.length === 0
      ? []
      : await db
          .selectDistinctOn([messages.threadId], {
            threadId: messages.threadId,
            authorId: messages.authorId,
            text: sql<string>`left(${messages.text}, 160)`,
            count: sql<number>`(select count(*)::int from messages m where m.thread_id = "messages"."thread_id")`,
          })
          .from(messages)
          .where(
            inArray(
              messages.threadId,
              shown.map(r => r.thread.id),
            ),
          )
          .orderBy(messages.threadId, desc(messages.at), desc(messages.id))
  const last = new Map(said.map(m => [m.threadId, m]))
  return {
    threads: shown.map(r => {
      const m = last.get(r.thread.id)
      return {
        ...headOf(r),
        lastWords: m?.text.replace(/\s+/g, ' ') ?? '',
        lastIsMine: m?.authorId === actor.enrolment.id,
        messages: m?.count ?? 0,
      }
    }),
    more: rows.length > AT_ONCE,
    fresh: await freshThreads(db, actor),
  }
}

/** One thread with all that was said; opening it is what makes it seen. */
export async function readMessages(
  db: Db,
  actor: Actor,
  threadId: string,
  now: Date,
): Promise<MessageThread> {
  const [row] = await select(db, actor).where(and(threadsOf(actor), eq(messageThreads.id, threadId)))
  if (!row) throw nothingHere()
  const said = await db
    .select({ message: messages, author: enrolments.name, role: enrolments.role })
    .from(messages)
    .innerJoin(enrolments, eq(enrolments.id, messages.authorId))
    .where(eq(messages.threadId, threadId))
    .orderBy(asc(messages.at), asc(messages.id))
  if (row.fresh && !actor.studentsEye)
    await db
      .update(messageThreads)
      .set(isStaff(actor.enrolment) ? { staffSeenAt: now } : { studentSeenAt: now })
      .where(eq(messageThreads.id, threadId))
  return {
    ...headOf(row),
    sendingId:
      row.thread.toldAt === null && row.thread.startedBy === actor.enrolment.id ? row.thread.sendingId : null,
    told: row.thread.toldAt !== null,
    messages: said.map(({ message: m, author, role }) => ({
      id: m.id,
      author,
      isMe: m.authorId === actor.enrolment.id,
      isStaff: role === 'instructor' || role === 'assistant',
      text: m.text,
      at: m.at.toISOString(),
    })),
  }
}

export function answerMessage(
  db: Database,
  actor: Actor,
  threadId: string,
  write: { readonly key: string; readonly text: string },
  now: Date,
): Promise<MessageThread> {
  requireMayWrite(actor)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [thread] = await tx
      .select()
      .from(messageThreads)
      .where(and(threadsOf(actor), eq(messageThreads.id, threadId)))
      .for('update')
    if (!thread) throw nothingHere()
    if (thread.toldAt === null)
      throw new Problem(
        409,
        'waits',
        'The first message has not gone out yet. Stop it to change it, or wait a minute.',
      )
    const staff = isStaff(actor.enrolment)
    await tx.insert(messages).values({
      seminarId: thread.seminarId,
      threadId,
      authorId: actor.enrolment.id,
      text: write.text,
      words: wordsIn(write.text),
      direct: true,
      at: now,
    })
    await tx
      .update(messageThreads)
      .set({
        lastAt: now,
        ...(staff ? { staffSeenAt: now, studentSeenAt: null } : { studentSeenAt: now, staffSeenAt: null }),
      })
      .where(eq(messageThreads.id, threadId))
    await tell(
      tx,
      [staff ? thread.studentId : thread.startedBy],
      {
        kind: 'message',
        activityId: null,
        text: `${actor.person.name} wrote back: ${thread.subject}`,
        detail: write.text,
      },
      seminarId => `/seminars/${seminarId}/messages?thread=${threadId}`,
      now,
    )
    return readMessages(tx, actor, threadId, now)
  })
}
