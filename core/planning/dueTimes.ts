import type { ExpectationRule } from './expectations/rule'
import { ownDueAt, type Extension, type Phase } from './schedule'

/** When the work of an activity is due, and for whom later. */
export interface DueTimes {
  readonly phases: readonly Phase[]
  readonly closesAt: Date
  readonly extensions: ReadonlyMap<string, Extension> // by enrolment
}

/** When one person's work for a rule is due: the end of its phase, moved by their extension. */
export function dueAtOf(times: DueTimes, rule: ExpectationRule, enrolmentId: string): Date {
  const phase = times.phases.find(p => p.name === rule.due)
  return ownDueAt(phase?.endsAt ?? times.closesAt, times.extensions.get(enrolmentId) ?? null)
}

/** When the activity closes for one person. */
export const closesFor = (times: DueTimes, enrolmentId: string): Date =>
  ownDueAt(times.closesAt, times.extensions.get(enrolmentId) ?? null)

/** When the first of what is asked of somebody is due, in milliseconds; Infinity where nothing is. */
export const firstDueOf = (
  plan: DueTimes & { readonly expectations: ReadonlyArray<{ readonly rule: ExpectationRule }> },
  enrolmentId: string,
): number => Math.min(...plan.expectations.map(e => dueAtOf(plan, e.rule, enrolmentId).getTime()))
