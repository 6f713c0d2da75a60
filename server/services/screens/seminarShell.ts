import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import { weekOf, weeksOf } from '#core/planning/week'
import { isWorkingPhase } from '#core/planning/schedule'
import { isMarked } from '#core/marking/showMark'
import { isStaff, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, marks, messageThreads, notices } from '#server/database/schema'
import { countedStudents } from '#server/services/people'
import { isFresh, threadsOf } from '#server/services/messaging'
import { loadPlans, takesPartIn } from '#server/services/planning'
import type { SeminarShell } from '#shared/people/seminar'
import { readStandings, standingsIn } from '#server/services/standing'

/** The frame of every page of a seminar. */
export async function seminarShell(db: Db, actor: Actor, now: Date): Promise<SeminarShell> {
  const { seminar, enrolment } = actor
  const staff = isStaff(enrolment)
  const rows = await db
    .select()
    .from(activities)
    .where(and(takesPartIn(db, seminar.id), eq(activities.isTemplate, false)))
    .orderBy(activities.position)
  const all = await loadPlans(
    db,
    rows.filter(a => staff || a.state !== 'draft'),
  )
  const plans =
    staff || enrolment.role !== 'student' || enrolment.state === 'practice'
      ? all
      : all.filter(p =>
          p.isMeant({
            enrolmentId: enrolment.id,
            seminarId: enrolment.seminarId,
            sectionId: enrolment.sectionId,
            joinedAt: enrolment.joinedAt,
          }),
        )
  const weeks = weeksOf(seminar).map(week => ({
    number: week.number,
    label: week.teaching,
    title: week.title,
    startsAt: week.startsAt.toISOString(),
    endsAt: week.endsAt.toISOString(),
    kinds: [
      ...new Set(
        plans
          .filter(p =>
            p.phases.some(
              x => isWorkingPhase(x.name) && x.startsAt < week.endsAt && x.endsAt > week.startsAt,
            ),
          )
          .map(p => p.activity.kind),
      ),
    ],
  }))
  return {
    id: seminar.id,
    title: seminar.title,
    code: seminar.code,
    college: seminar.college,
    timeZone: seminar.timeZone,
    role: enrolment.role,
    archived: seminar.state === 'archived',
    silentSince: staff ? (seminar.silentSince?.toISOString() ?? null) : null,
    studentsEye: actor.studentsEye,
    usualDueTime: seminar.usualDueTime,
    usualDueWeekday: seminar.usualDueWeekday,
    now: now.toISOString(),
    week: weekOf(now, seminar),
    weeks,
    readyToMark: staff ? await countReady(db, actor, plans, now) : 0,
    lettersBack: staff ? 0 : await countLetters(db, enrolment.id),
    messages: await messagesOf(db, actor),
    unseen: await db.$count(notices, and(eq(notices.enrolmentId, enrolment.id), isNull(notices.seenAt))),
  }
}

async function messagesOf(db: Db, actor: Actor): Promise<SeminarShell['messages']> {
  if (actor.enrolment.role === 'observer') return { any: false, fresh: 0 }
  const [row] = await db
    .select({
      all: sql<number>`count(*)::int`,
      fresh: sql<number>`count(*) filter (where ${isFresh(actor)})::int`,
    })
    .from(messageThreads)
    .where(threadsOf(actor))
  return { any: row!.all > 0, fresh: row!.fresh }
}

async function countReady(
  db: Db,
  actor: Actor,
  plans: Awaited<ReturnType<typeof loadPlans>>,
  now: Date,
): Promise<number> {
  const marked = plans.filter(p => p.activity.state === 'published' && isMarked(p.activity))
  const students = await countedStudents(db, actor.seminar.id)
  const standings = await readStandings(db, marked, students, now)
  return marked.flatMap(p => standingsIn(p, standings, students)).filter(s => s.standing === 'ready').length
}

async function countLetters(db: Db, enrolmentId: string): Promise<number> {
  const [row] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(marks)
    .where(and(eq(marks.enrolmentId, enrolmentId), isNotNull(marks.returned)))
  return row?.n ?? 0
}
