import { and, asc, eq, inArray } from 'drizzle-orm'
import type { MissingWork } from '#core/messaging/draft'
import { toGoWords } from '#core/planning/expectationWords'
import type { Db } from '#server/database/client'
import { activities, excuses } from '#server/database/schema'
import type { Student } from '#server/services/people'
import { type ActivityPlan, loadPlans, takesPartIn } from '#server/services/planning'
import { closesFor, dueAtOf } from '#core/planning/dueTimes'
import { readChecked, type CheckedStandings } from '#server/services/standing/readStandings'

const SOON = 3 * 86_400_000 // what is due within this is asked about; what is not due for longer is not missing yet

/** Plans of what is published and open, in the order of opening. */
export async function openPlans(db: Db, seminarId: string, now: Date): Promise<ActivityPlan[]> {
  const rows = await db
    .select()
    .from(activities)
    .where(
      and(takesPartIn(db, seminarId), eq(activities.isTemplate, false), eq(activities.state, 'published')),
    )
    .orderBy(asc(activities.opensAt), asc(activities.position))
  return (await loadPlans(db, rows)).filter(p => p.activity.opensAt <= now)
}

/** When somebody’s next work of an activity is due, or its last was. */
export function nextDue(plan: ActivityPlan, enrolmentId: string, now: Date): Date {
  const dues = plan.expectations.map(e => dueAtOf(plan, e.rule, enrolmentId).getTime()).sort((a, b) => a - b)
  return new Date(dues.find(d => d >= now.getTime()) ?? dues.at(-1) ?? closesFor(plan, enrolmentId).getTime())
}

/** What some students have done, and what they need not do. */
export interface Work {
  readonly standings: CheckedStandings
  readonly excused: ReadonlySet<string>
}

export async function loadWork(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Student[],
  now: Date,
): Promise<Work> {
  const [standings, excused] = await Promise.all([
    readChecked(db, plans, students, now),
    excusedFrom(
      db,
      plans.map(p => p.activity.id),
    ),
  ])
  return { standings, excused }
}

/** What a student has missing of what is asked for up to now; what has come back marked is not asked for any more. */
export function missingOf(
  { standings, excused }: Work,
  plans: readonly ActivityPlan[],
  student: Student,
  now: Date,
  onlySoon: boolean,
): MissingWork[] {
  const id = student.enrolmentId
  return plans
    .filter(p => p.isMeant(student))
    .flatMap((plan): MissingWork[] => {
      const { hasLetter, checks } = standings.get(plan.activity.id)!.get(id)!
      if (hasLetter || excused.has(`${plan.activity.id}:${id}`)) return []
      if (!checks.some(c => !c.met && c.toGoNow > 0)) return []
      const closed = closesFor(plan, id) < now
      if (onlySoon && !closed && nextDue(plan, id, now).getTime() > now.getTime() + SOON) return []
      return [
        {
          title: plan.activity.title,
          toGo: toGoWords(plan.expectations, checks, plan.activity.kind),
          closed,
        },
      ]
    })
}

/** The same of several students. */
export async function missingWork(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Student[],
  now: Date,
  onlySoon: boolean,
): Promise<Map<string, MissingWork[]>> {
  const work = await loadWork(db, plans, students, now)
  return new Map(students.map(s => [s.enrolmentId, missingOf(work, plans, s, now, onlySoon)]))
}

/** Who need not do what, as `activity:enrolment`. */
async function excusedFrom(db: Db, activityIds: readonly string[]): Promise<ReadonlySet<string>> {
  const rows =
    activityIds.length === 0
      ? []
      : await db
          .select({ activityId: excuses.activityId, enrolmentId: excuses.enrolmentId })
          .from(excuses)
          .where(inArray(excuses.activityId, [...activityIds]))
  return new Set(rows.map(r => `${r.activityId}:${r.enrolmentId}`))
}
