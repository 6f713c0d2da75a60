import type { ContributionType } from '../contributing/contribution'
import { closesFor, dueAtOf, type DueTimes } from '../planning/dueTimes'
import { checkExpectation } from '../planning/expectations/checkExpectation'
import type { CountedContribution, ExpectationRule } from '../planning/expectations/rule'
import { reviewsAskedOf } from '../kinds/review/reviewCount'
import { standingOf, type Standing } from './standing'

export interface Span {
  readonly startsAt: Date
  readonly endsAt: Date
}

/** What an activity asks for, as far as somebody's work is checked against it. */
export interface AskedFor extends DueTimes {
  readonly entryType: ContributionType
  readonly answerType: ContributionType | null
  readonly timeZone: string
  readonly expectations: ReadonlyArray<{
    readonly id: string
    readonly rule: ExpectationRule
    readonly needed: boolean
  }>
  readonly weeks: ReadonlyArray<readonly Span[]> // that a weekly expectation asks about, by the expectation's place
  readonly prompts: ReadonlyArray<{ readonly id: string; readonly releaseAt: Date }>
  readonly questions: readonly string[] // threads that staff have opened for all to answer
}

/** What one student has in one activity, as figures. */
export interface WorkDone {
  readonly shown: readonly CountedContribution[]
  readonly drafts: number
  readonly mark: 'none' | 'held' | 'returned'
  readonly reviewsAssigned: number // of others' work or of teammates
  readonly joinedAt: Date // weeks that were over before are not asked of them
}

/** One expectation checked. */
export interface Check {
  readonly expectationId: string
  readonly have: number
  readonly need: number
  readonly met: boolean
  readonly metAt: string | null // ISO 8601
  readonly late: boolean // met after the person's own due time
  readonly toGoNow: number // missing of what is asked for up to now: of a weekly rule, this week's and earlier ones
  readonly bestWords: number // of the longest contribution of the type asked for
}

export interface Judged {
  readonly standing: Standing
  readonly checks: Check[]
}

/** Checks one student's work against what is asked for, and says where they stand. */
export function judgeRecord(asked: AskedFor, work: WorkDone, enrolmentId: string, now: Date): Judged {
  const released = asked.prompts.filter(p => p.releaseAt <= now).map(p => p.id)
  const prompts = [...released, ...asked.questions]
  const context = {
    personId: enrolmentId,
    timeZone: asked.timeZone,
    entryType: asked.entryType,
    prompts,
  }
  const checks = asked.expectations.map((expectation, i): Check => {
    const { id } = expectation
    const rule = ruleFor(expectation.rule, work)
    const weeks = (asked.weeks[i] ?? []).filter(w => w.endsAt > work.joinedAt)
    const isWeekly = rule.kind === 'weeklyEntries'
    // a rule about prompts of which none is out yet, or a weekly rule whose phase holds no week of teaching asks for nothing yet
    const asksNothing = (isWeekly && weeks.length === 0) || (rule.kind === 'prompts' && prompts.length === 0)
    const result = asksNothing
      ? { have: 0, need: rule.need, met: false, metAt: null }
      : checkExpectation(rule, work.shown, { ...context, weeks })
    const begun = weeks.filter(w => w.startsAt <= now)
    const byNow =
      isWeekly && begun.length > 0 ? checkExpectation(rule, work.shown, { ...context, weeks: begun }) : null
    const wanted = rule.kind === 'replies' ? asked.answerType : asked.entryType
    return {
      expectationId: id,
      have: result.have,
      need: result.need,
      met: result.met,
      metAt: result.metAt?.toISOString() ?? null,
      late: result.metAt !== null && result.metAt > dueAtOf(asked, rule, enrolmentId),
      toGoNow: isWeekly ? (byNow?.missing ?? 0) : result.need - result.have,
      bestWords: Math.max(0, ...work.shown.filter(c => c.type === wanted).map(c => c.words)),
    }
  })
  const needed = checks.filter((_, i) => asked.expectations[i]!.needed)
  return {
    checks,
    standing: standingOf({
      mark: work.mark,
      shown: work.shown.length,
      drafts: work.drafts,
      closed: now > closesFor(asked, enrolmentId),
      neededMet: needed.length > 0 && needed.every(c => c.met),
    }),
  }
}

/** A rule as it is asked of one person: as many reviews as are assigned to them. */
const ruleFor = (rule: ExpectationRule, work: WorkDone): ExpectationRule =>
  rule.kind === 'reviews' ? { ...rule, need: reviewsAskedOf(rule, work.reviewsAssigned) } : rule

/**
 * How long a judgement holds if nothing is written and the plan stays: until a prompt is released, a week begins or the
 * activity closes for this person.
 *
 * @returns the span around `now`: `from` belongs to it, `until` does not; null where it has no end on that side
 */
export function judgementHolds(
  asked: AskedFor,
  enrolmentId: string,
  now: Date,
): { readonly from: Date | null; readonly until: Date | null } {
  const turns = [
    ...asked.prompts.map(p => p.releaseAt.getTime()),
    ...asked.weeks.flatMap(weeks => weeks.map(w => w.startsAt.getTime())),
    closesFor(asked, enrolmentId).getTime() + 1, // at the very instant of closing it is still open
  ]
  const [past, coming] = [turns.filter(t => t <= now.getTime()), turns.filter(t => t > now.getTime())]
  return {
    from: past.length > 0 ? new Date(Math.max(...past)) : null,
    until: coming.length > 0 ? new Date(Math.min(...coming)) : null,
  }
}
