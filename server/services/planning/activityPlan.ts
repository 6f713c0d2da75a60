import { asc, inArray } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { expectations, extensions, phases } from '#server/database/schema'
import { closesAt, ownDueAt, type Extension, type Phase } from '#core/planning/schedule'
import type { ExpectationRule } from '#core/planning/expectations/rule'

export interface PlannedExpectation { readonly id: string, readonly rule: ExpectationRule, readonly needed: boolean }

/** An activity with all that its dates and expectations say. */
export interface ActivityPlan {
  readonly activity: ActivityRow
  readonly phases: readonly Phase[]
  readonly closesAt: Date
  readonly expectations: readonly PlannedExpectation[]
  readonly extensions: ReadonlyMap<string, Extension & { readonly reason: string }> // by enrolment
}

/** Plans of several activities in four queries, however many there are. */
export async function loadPlans(db: Db, rows: readonly ActivityRow[]): Promise<ActivityPlan[]> {
  if (rows.length === 0) return []
  const ids = rows.map(a => a.id)
  const [allPhases, allRules, allExtensions] = await Promise.all([
    db.select().from(phases).where(inArray(phases.activityId, ids)).orderBy(asc(phases.position)),
    db.select().from(expectations).where(inArray(expectations.activityId, ids)).orderBy(asc(expectations.position)),
    db.select().from(extensions).where(inArray(extensions.activityId, ids)),
  ])
  return rows.map((activity) => {
    const own = allPhases.filter(p => p.activityId === activity.id)
    return {
      activity,
      phases: own,
      closesAt: closesAt({ opensAt: activity.opensAt, phases: own }),
      expectations: allRules.filter(e => e.activityId === activity.id),
      extensions: new Map(allExtensions.filter(e => e.activityId === activity.id).map(e => [e.enrolmentId, e])),
    }
  })
}

export async function loadPlan(db: Db, activity: ActivityRow): Promise<ActivityPlan> {
  const [plan] = await loadPlans(db, [activity])
  return plan!
}

/** When one person's work for a rule is due: the end of its phase, moved by their extension. */
export function dueAtOf(plan: ActivityPlan, rule: ExpectationRule, enrolmentId: string): Date {
  const phase = plan.phases.find(p => p.name === rule.due)
  return ownDueAt(phase?.endsAt ?? plan.closesAt, plan.extensions.get(enrolmentId) ?? null)
}

export const closesFor = (plan: ActivityPlan, enrolmentId: string): Date =>
  ownDueAt(plan.closesAt, plan.extensions.get(enrolmentId) ?? null)

