import { clockAt } from './localTime'
import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { ExpectationRule } from './expectations/rule'
import type { WeekLoad } from './loadByWeek'
import { isWorkingPhase, type Phase, type PhaseName } from './schedule'
import { localDay, weekOf, type Term } from './week'

/** An activity as the plan checks see it. */
export interface CheckedActivity {
  readonly id: string
  readonly kind: ActivityKind
  readonly title: string
  readonly state: 'draft' | 'scheduled' | 'published'
  readonly opensAt: Date
  readonly phases: readonly Phase[]
  readonly rules: readonly ExpectationRule[]
  readonly briefText: string
  readonly hasStarter: boolean
  readonly points: number | null // hundredths
  readonly rubricPoints: number | null // hundredths, sum of the criteria; null without a rubric
  readonly counted: boolean // marked, and not practice
  readonly hasCategory: boolean
  readonly asksReaders: boolean // of a peer review: it has a rubric or a question, so that a review says something
  readonly people: number // who is meant
  readonly restWeeks: readonly number[]
  readonly promptsAt: readonly Date[] // when its prompts are shown
  readonly seminar: string | null // code of the seminar it belongs to, of another one; null: the one that is planned
}

/** Something to look at before publishing. Codes and figures; the words are the reader's business. */
export type PlanRemark =
  | {
      readonly code:
        | 'nothingAsked'
        | 'nothingReviewed'
        | 'noStarter'
        | 'noBrief'
        | 'vagueBrief'
        | 'nobodyMeant'
        | 'noCategory'
      readonly level: Level
    }
  | { readonly code: 'oneEntryBlog'; readonly level: Level; readonly rule: number }
  | {
      readonly code: 'unusualTime' | 'past' | 'afterTerm'
      readonly level: Level
      readonly phases: readonly PhaseName[]
    }
  | {
      readonly code: 'inBreak'
      readonly level: Level
      readonly phases: readonly PhaseName[]
      readonly title: string // of the first break that a due time falls into
    }
  | { readonly code: 'latePrompts'; readonly level: Level; readonly prompts: number }
  | {
      readonly code: 'pointsApart'
      readonly level: Level
      readonly points: number
      readonly rubricPoints: number
    }
  | {
      readonly code: 'shortNotice'
      readonly level: Level
      readonly days: number
      readonly earlierDays: number
      readonly earlier: Earlier
    }
  | {
      readonly code: 'fewerReplies'
      readonly level: Level
      readonly need: number
      readonly earlierNeed: number
      readonly earlier: Earlier
      readonly rule: number
    }
/** What is compared with. */
export interface Earlier {
  readonly title: string
  readonly seminar: string | null // the other seminar it belongs to; null: the same one
}
/** What is wrong, or what may be meant so. */
export type Level = 'fault' | 'advice'

export interface CheckContext {
  readonly timeZone: string
  readonly usualDueTime: string // HH:MM
  readonly term: Term
  readonly now: Date
  readonly earlier: readonly CheckedActivity[] // of the same instructor, of any kind
}

const VAGUE_WORDS = 25

/** What is still to be looked at once students see it: what is said of it before would come too late. */
const AFTER_PUBLISHING: ReadonlySet<PlanRemark['code']> = new Set([
  'nothingAsked',
  'nothingReviewed',
  'noBrief',
  'nobodyMeant',
  'pointsApart',
  'noCategory',
  'inBreak',
  'afterTerm',
  'latePrompts',
])

/** What to look at in one activity, in order of weight. Empty when all is well. */
export function checkActivity(a: CheckedActivity, context: CheckContext): PlanRemark[] {
  const remarks = allRemarks(a, context)
  if (a.state !== 'published') return remarks
  const isOver = a.phases.every(p => !isWorkingPhase(p.name) || p.endsAt < context.now)
  return remarks.filter(r => AFTER_PUBLISHING.has(r.code) && !(isOver && WHILE_OPEN.has(r.code)))
}

/** What students miss while they work, and nobody afterwards. */
const WHILE_OPEN: ReadonlySet<PlanRemark['code']> = new Set(['nothingAsked', 'noBrief'])

function allRemarks(a: CheckedActivity, context: CheckContext): PlanRemark[] {
  const remarks: PlanRemark[] = []
  const words = a.briefText.split(/\s+/).filter(Boolean).length
  if (a.rules.length === 0) remarks.push({ code: 'nothingAsked', level: 'fault' })
  if (KINDS[a.kind].markedBy === 'peers' && !a.asksReaders)
    remarks.push({ code: 'nothingReviewed', level: 'fault' })
  if (words === 0) remarks.push({ code: 'noBrief', level: 'fault' })
  else if (!a.briefText.includes('?') && words < VAGUE_WORDS)
    remarks.push({ code: 'vagueBrief', level: 'advice' })
  if (a.people === 0) remarks.push({ code: 'nobodyMeant', level: 'fault' })
  if (!a.hasStarter && KINDS[a.kind].wantsStarter) remarks.push({ code: 'noStarter', level: 'advice' })
  if (a.points !== null && a.rubricPoints !== null && a.points !== a.rubricPoints)
    remarks.push({ code: 'pointsApart', level: 'fault', points: a.points, rubricPoints: a.rubricPoints })
  if (a.counted && !a.hasCategory) remarks.push({ code: 'noCategory', level: 'fault' })
  const single = KINDS[a.kind].goesOn ? a.rules.findIndex(r => r.kind === 'entries' && r.need === 1) : -1
  if (single >= 0) remarks.push({ code: 'oneEntryBlog', level: 'advice', rule: single })
  const unusual = a.phases
    .filter(
      p =>
        KINDS[a.kind].dueAsUsual &&
        isWorkingPhase(p.name) &&
        clockAt(p.endsAt, context.timeZone) !== context.usualDueTime,
    )
    .map(p => p.name)
  if (unusual.length > 0) remarks.push({ code: 'unusualTime', level: 'advice', phases: unusual })
  remarks.push(...checkDates(a, context))
  remarks.push(...compareWithEarlier(a, context))
  return remarks
}

/** Due times that have passed, that fall into a break, or that come after the term; prompts that come too late. */
function checkDates(a: CheckedActivity, { term, now }: CheckContext): PlanRemark[] {
  const due = a.phases.filter(p => isWorkingPhase(p.name))
  const [over, coming] = [due.filter(p => p.endsAt < now), due.filter(p => p.endsAt >= now)]
  const breakOf = (p: Phase) => term.breaks?.find(b => b.week === weekOf(p.endsAt, term))
  const named = (phases: readonly Phase[]) => phases.map(p => p.name)
  const remarks: PlanRemark[] = []
  if (over.length > 0) remarks.push({ code: 'past', level: 'fault', phases: named(over) })
  const inBreak = coming.filter(breakOf)
  if (inBreak.length > 0)
    remarks.push({
      code: 'inBreak',
      level: 'advice',
      phases: named(inBreak),
      title: breakOf(inBreak[0]!)!.title,
    })
  const after = coming.filter(p => weekOf(p.endsAt, term) > term.weeks)
  if (after.length > 0) remarks.push({ code: 'afterTerm', level: 'fault', phases: named(after) })
  const last = Math.max(...due.map(p => p.endsAt.getTime()))
  const tooLate = a.promptsAt.filter(at => at.getTime() >= last).length
  if (tooLate > 0) remarks.push({ code: 'latePrompts', level: 'fault', prompts: tooLate })
  return remarks
}

/** What the same instructor's own latest activity of the kind did otherwise. */
function compareWithEarlier(a: CheckedActivity, { earlier, timeZone }: CheckContext): PlanRemark[] {
  const [last] = earlier
    .filter(e => e.id !== a.id && e.kind === a.kind && e.opensAt < a.opensAt && e.state === 'published')
    .sort((x, y) => y.opensAt.getTime() - x.opensAt.getTime())
  if (!last) return []
  const remarks: PlanRemark[] = []
  const named = { title: last.title, seminar: last.seminar }
  const [days, earlierDays] = [writingDays(a, timeZone), writingDays(last, timeZone)]
  if (days !== null && earlierDays !== null && days * 2 <= earlierDays)
    remarks.push({ code: 'shortNotice', level: 'advice', days, earlierDays, earlier: named })
  const rule = a.rules.findIndex(r => r.kind === 'replies')
  const earlierRule = last.rules.find(r => r.kind === 'replies')
  if (rule >= 0 && earlierRule && a.rules[rule]!.need < earlierRule.need)
    remarks.push({
      code: 'fewerReplies',
      level: 'advice',
      need: a.rules[rule]!.need,
      earlierNeed: earlierRule.need,
      earlier: named,
      rule,
    })
  return remarks
}

/** Days from opening to the end of the first working phase, both counted. */
function writingDays(a: CheckedActivity, timeZone: string): number | null {
  const first = a.phases.find(p => isWorkingPhase(p.name))
  if (!first) return null
  const day = (at: Date) => Date.parse(`${localDay(at, timeZone)}T12:00:00Z`)
  return Math.round((day(first.endsAt) - day(a.opensAt)) / 86_400_000) + 1
}

/** What to look at in the plan as a whole. */
export type PlanWideRemark =
  | { readonly code: 'weights'; readonly sum: number }
  | {
      readonly code: 'heavyWeek'
      readonly week: number
      readonly minutes: number // of those students who have most to do
      readonly least: number // of those who have least
      readonly limit: number
      readonly rest: { readonly activityId: string; readonly minutes: number } | null
    }
  | { readonly code: 'heavyMarking'; readonly week: number; readonly minutes: number; readonly limit: number }

/**
 * @param weeklyMinutes minutes a weekly activity asks for in one week, by activity: what resting it would save
 */
export function checkPlan(
  load: readonly WeekLoad[],
  weights: readonly number[],
  limits: { readonly studentMinutes: number; readonly markingMinutes: number },
  weekly: ReadonlyArray<{
    readonly activityId: string
    readonly minutes: number
    readonly weeks: readonly number[]
  }>,
): PlanWideRemark[] {
  const remarks: PlanWideRemark[] = []
  const sum = weights.reduce((a, b) => a + b, 0)
  if (weights.length > 0 && sum !== 100) remarks.push({ code: 'weights', sum })
  for (const week of load) {
    if (Math.round(week.studentMinutes) > limits.studentMinutes) {
      const rest = weekly.filter(w => w.weeks.includes(week.week)).sort((a, b) => b.minutes - a.minutes)[0]
      remarks.push({
        code: 'heavyWeek',
        week: week.week,
        minutes: week.studentMinutes,
        least: week.leastMinutes,
        limit: limits.studentMinutes,
        rest: rest ? { activityId: rest.activityId, minutes: rest.minutes } : null,
      })
    }
    if (Math.round(week.markingMinutes) > limits.markingMinutes)
      remarks.push({
        code: 'heavyMarking',
        week: week.week,
        minutes: week.markingMinutes,
        limit: limits.markingMinutes,
      })
  }
  return remarks
}
