import { dueAtOf, type DueTimes } from '../planning/dueTimes'
import type { ExpectationRule } from '../planning/expectations/rule'
import type { Check } from '../standing/judgeRecord'
import { latenessOf, type Lateness, type LateRule } from './lateness'

/**
 * How late a student's work in an activity is: the latest of what was asked, from their own due times.
 *
 * @param checks of the expectations, in their order
 * @returns null while the work itself is not there: unknown, not on time. Something else that is not met yet, like replies,
 *   is missing, not late.
 */
export function latenessOfRecord(
  plan: DueTimes & {
    readonly timeZone: string
    readonly expectations: ReadonlyArray<{ readonly rule: ExpectationRule }>
  },
  lateRule: LateRule,
  checks: readonly Check[],
  enrolmentId: string,
): Lateness | null {
  let worst: Lateness = { minutes: 0, startedDays: 0 }
  for (const [i, { rule }] of plan.expectations.entries()) {
    const { metAt } = checks[i]!
    const lateness = latenessOf(
      metAt ? new Date(metAt) : null,
      dueAtOf(plan, rule, enrolmentId),
      lateRule,
      plan.timeZone,
    )
    if (!lateness && rule.kind === 'entries') return null
    if (lateness && lateness.minutes > worst.minutes) worst = lateness
  }
  return worst
}
