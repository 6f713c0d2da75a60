import { expectedLoad, type Pace } from './load'
import type { ExpectationRule } from './expectations/rule'
import { isWorkingPhase, type Phase } from './schedule'
import { weekOf, weeksOf, type Term } from './week'

export interface LoadOfActivity {
  readonly phases: readonly Phase[]
  readonly rules: readonly ExpectationRule[]
  readonly classReads: boolean
  readonly marked: boolean
  readonly people: number // who takes part
  readonly restWeeks?: readonly number[] // weeks of the term in which nothing is asked for
}
export interface WeekLoad {
  readonly week: number
  readonly studentMinutes: number
  readonly markingMinutes: number
}

/**
 * Minutes a plan asks for in each week of the term, shape [term.weeks].
 *
 * A student's minutes fall in the week in which their work is due, or, where a rule asks for something every week, in
 * each week of its phase but those of rest. The marker's are spread evenly over the weeks in which marking is planned.
 * Source: calculations, "Load".
 */
export function loadByWeek(activities: readonly LoadOfActivity[], term: Term, pace: Pace): WeekLoad[] {
  const load = Array.from({ length: term.weeks }, (_, i) => ({
    week: i + 1,
    studentMinutes: 0,
    markingMinutes: 0,
  }))
  const add = (week: number, field: 'studentMinutes' | 'markingMinutes', minutes: number) => {
    const entry = load[week - 1]
    if (entry) entry[field] += minutes
  }
  for (const activity of activities) {
    const working = activity.phases.filter(p => isWorkingPhase(p.name))
    for (const rule of activity.rules) {
      const { writing, reading } = expectedLoad([rule], activity.people, activity.classReads, pace)
      const phase = activity.phases.find(p => p.name === rule.due) ?? working.at(-1)
      if (!phase) continue
      const weeks =
        rule.kind === 'weeklyEntries'
          ? weeksOfPhase(phase, term, activity.restWeeks ?? [])
          : [weekOf(phase.endsAt, term)]
      for (const week of weeks) add(week, 'studentMinutes', writing + reading)
    }
    const marking = activity.phases.find(p => p.name === 'mark')
    if (!marking || !activity.marked) continue
    const inAll = activity.rules.map(rule => {
      const phase = activity.phases.find(p => p.name === rule.due)
      return rule.kind === 'weeklyEntries' && phase
        ? { ...rule, need: rule.need * weeksOfPhase(phase, term, activity.restWeeks ?? []).length }
        : rule
    })
    const { marking: minutes } = expectedLoad(inAll, activity.people, activity.classReads, pace)
    const from = weekOf(marking.startsAt, term)
    const to = Math.max(from, weekOf(new Date(marking.endsAt.getTime() - 1), term))
    for (let week = from; week <= to; week++) add(week, 'markingMinutes', minutes / (to - from + 1))
  }
  return load
}

/** Weeks of the term in which a phase asks for something: those it touches, without breaks and rests. */
export function weeksOfPhase(phase: Phase, term: Term, restWeeks: readonly number[]): number[] {
  return weeksOf(term)
    .filter(
      w =>
        w.teaching !== null &&
        w.startsAt < phase.endsAt &&
        w.endsAt > phase.startsAt &&
        !restWeeks.includes(w.number),
    )
    .map(w => w.number)
}
