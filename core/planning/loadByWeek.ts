import type { ExpectationRule } from './expectations/rule'
import { wordsToRead, wordsToWrite, type Pace, type TakingPart } from './load'
import { isWorkingPhase, type Phase } from './schedule'
import { weekOf, type Term } from './week'
import { weeklySpans } from './weeklySpans'

export interface LoadOfActivity {
  readonly phases: readonly Phase[]
  readonly rules: readonly ExpectationRule[]
  readonly marked: boolean
  readonly parts: readonly TakingPart[] // who takes part, by sort
  readonly restWeeks?: readonly number[] // weeks of the term in which nothing is asked for
}

/** Minutes of one activity by week, the first week at 0; as long as there is something, also beyond the term. */
export interface WeeklyMinutes {
  readonly students: ReadonlyMap<number, readonly number[]> // of one student of each sort
  readonly marking: readonly number[] // of whoever marks, for all students
}

export interface WeekLoad {
  readonly week: number // 1 for the first; weeks after the term are counted on
  readonly studentMinutes: number // of those students who have most to do
  readonly leastMinutes: number // of those who have least
  readonly markingMinutes: number
}

/**
 * Minutes an activity asks for in each week.
 *
 * A student's minutes fall in the week in which their work is due, or, where a rule asks for something every week, in
 * each week in which that is due. The marker's are spread evenly over the weeks in which marking is planned, or fall in the
 * week after the work is in. What comes before the term falls in its first week.
 * Source: calculations, "Load".
 */
export function minutesByWeek(activity: LoadOfActivity, term: Term, pace: Pace): WeeklyMinutes {
  const students = new Map<number, number[]>()
  const marking: number[] = []
  const weeksOfRule = activity.rules.map(rule => weeksOf(rule, activity, term))
  for (const part of activity.parts) {
    const own: number[] = []
    for (const [i, rule] of activity.rules.entries()) {
      const minutes =
        wordsToWrite(rule, part) / pace.writingWordsPerMinute +
        wordsToRead(rule, activity.rules, part) / pace.readingWordsPerMinute
      for (const week of weeksOfRule[i]!) add(own, week, minutes)
    }
    students.set(part.sort, own)
    if (!activity.marked) continue
    const words = activity.rules.reduce(
      (sum, rule, i) => sum + wordsToWrite(rule, part) * weeksOfRule[i]!.length,
      0,
    )
    const all = part.people * (pace.markingMinutesPerStudent + words / pace.readingWordsPerMinute)
    const weeks = markingWeeks(activity, term)
    for (const week of weeks) add(marking, week, all / weeks.length)
  }
  return { students, marking }
}

/**
 * Minutes a plan asks for in each week of the term, shape [term.weeks or more]: weeks after the term follow where there is
 * anything in them.
 *
 * @param sorts how many sorts of students there are, ≥ 1
 */
export function sumByWeek(all: readonly WeeklyMinutes[], sorts: number, term: Term): WeekLoad[] {
  const last = Math.max(
    term.weeks,
    ...all.flatMap(a => [a.marking.length, ...[...a.students.values()].map(own => own.length)]),
  )
  return Array.from({ length: last }, (_, i) => {
    const bySort = Array.from({ length: sorts }, (_s, sort) =>
      all.reduce((sum, a) => sum + (a.students.get(sort)?.[i] ?? 0), 0),
    )
    return {
      week: i + 1,
      studentMinutes: Math.max(0, ...bySort),
      leastMinutes: Math.min(...bySort),
      markingMinutes: all.reduce((sum, a) => sum + (a.marking[i] ?? 0), 0),
    }
  })
}

export const loadByWeek = (
  activities: readonly LoadOfActivity[],
  sorts: number,
  term: Term,
  pace: Pace,
): WeekLoad[] =>
  sumByWeek(
    activities.map(a => minutesByWeek(a, term, pace)),
    sorts,
    term,
  )

/** What an activity asks for in all: of one student, from the least to the most, and to mark. */
export function loadInAll(
  activity: LoadOfActivity,
  term: Term,
  pace: Pace,
): { readonly least: number; readonly most: number; readonly marking: number } {
  const { students, marking } = minutesByWeek(activity, term, pace)
  const sum = (minutes: readonly number[]) => minutes.reduce((a, b) => a + (b ?? 0), 0)
  const each = [...students.values()].map(sum)
  return { least: each.length > 0 ? Math.min(...each) : 0, most: Math.max(0, ...each), marking: sum(marking) }
}

/** Adds minutes to a week; weeks without any are filled up with zero. */
function add(minutes: number[], week: number, more: number): void {
  const i = Math.max(1, week) - 1
  while (minutes.length <= i) minutes.push(0)
  minutes[i]! += more
}

/** The weeks in which a rule asks for something. */
function weeksOf(rule: ExpectationRule, { phases, restWeeks }: LoadOfActivity, term: Term): number[] {
  const working = phases.filter(p => isWorkingPhase(p.name))
  const phase = phases.find(p => p.name === rule.due) ?? working.at(-1)
  if (!phase) return []
  if (rule.kind === 'weeklyEntries') return weeklySpans(phase, term, restWeeks ?? []).map(s => s.week)
  return [weekOf(phase.endsAt, term)]
}

function markingWeeks({ phases }: LoadOfActivity, term: Term): number[] {
  const marking = phases.find(p => p.name === 'mark')
  if (!marking) {
    const ends = phases.filter(p => isWorkingPhase(p.name)).map(p => p.endsAt.getTime())
    return [weekOf(new Date(Math.max(...ends)), term) + 1]
  }
  const from = weekOf(marking.startsAt, term)
  const to = Math.max(from, weekOf(new Date(marking.endsAt.getTime() - 1), term))
  return Array.from({ length: to - from + 1 }, (_, i) => from + i)
}
