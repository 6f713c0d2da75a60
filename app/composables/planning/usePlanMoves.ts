import { minutesByWeek, sumByWeek, type WeeklyMinutes } from '#core/planning/loadByWeek'
import { moveSchedule, type Grip } from '#core/planning/moveSchedule'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { faultWords } from './scheduleWords'

type Times = Pick<PlanActivity, 'opensAt' | 'phases' | 'closesAt'>
export interface MoveInHand {
  readonly activityId: string
  readonly grip: Grip
  readonly days: number
  readonly refused: string | null
}

/** Moving activities on the plan: what is in hand is drawn moved at once, with its load, before anything is sent. */
export function usePlanMoves(plan: () => TermPlan | null) {
  const moved = shallowReactive(new Map<string, Times>()) // as drawn, where it differs from what is stored
  const inHand = shallowRef<MoveInHand | null>(null)
  const loadOfOne = new WeakMap<object, WeeklyMinutes>() // by the activity as drawn: only what moves is calculated anew

  const drawn = computed<PlanActivity[]>(() =>
    (plan()?.activities ?? []).map(a => {
      const times = moved.get(a.id)
      return times ? merged(a, times) : a
    }),
  )
  const mergedOnes = new WeakMap<Times, PlanActivity>()
  function merged(a: PlanActivity, times: Times): PlanActivity {
    const known = mergedOnes.get(times)
    if (known && known.version === a.version) return known
    const made = { ...a, ...times }
    mergedOnes.set(times, made)
    return made
  }

  const load = computed<TermPlan['load']>(() => {
    const p = plan()
    if (!p?.staff) return p?.load ?? []
    const { staff } = p
    return sumByWeek(
      drawn.value.flatMap(a => loadOf(a, staff) ?? []),
      staff.sorts,
      staff.term,
    )
  })
  function loadOf(a: PlanActivity, staff: NonNullable<TermPlan['staff']>): WeeklyMinutes | null {
    const known = loadOfOne.get(a)
    if (known || !a.planning) return known ?? null
    const { rules, marked, parts, restWeeks } = a.planning
    const made = minutesByWeek(
      { phases: toPhases(a), rules, marked, parts, restWeeks },
      staff.term,
      staff.pace,
    )
    loadOfOne.set(a, made)
    return made
  }

  /** Draws an activity moved by so many days from where it is stored. A move that contradicts itself is said and not drawn. */
  function hold(activityId: string, grip: Grip, days: number) {
    const p = plan()
    const a = p?.activities.find(x => x.id === activityId)
    if (!a || !p?.staff) return
    if (
      inHand.value?.activityId === activityId &&
      inHand.value.days === days &&
      sameGrip(inHand.value.grip, grip)
    )
      return
    const result =
      days === 0
        ? null
        : moveSchedule(
            { opensAt: new Date(a.opensAt), phases: toPhases(a) },
            grip,
            days,
            p.staff.term.timeZone,
          )
    if (result?.kind === 'moved') moved.set(activityId, timesOf(a, result.schedule))
    else if (!result) moved.delete(activityId)
    inHand.value = {
      activityId,
      grip,
      days: result?.kind === 'refused' ? (inHand.value?.days ?? 0) : days,
      refused: result?.kind === 'refused' ? faultWords(result.fault) : null,
    }
  }
  function letGo(activityId: string) {
    moved.delete(activityId)
    inHand.value = null
  }
  return { drawn, load, inHand, moved, hold, letGo }
}

const sameGrip = (a: Grip, b: Grip) =>
  a.kind === b.kind && (a.kind !== 'end' || (b.kind === 'end' && a.phase === b.phase))
export const toPhases = (a: Pick<PlanActivity, 'phases'>) =>
  a.phases.map(p => ({ name: p.name, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) }))

function timesOf(
  a: PlanActivity,
  schedule: {
    readonly opensAt: Date
    readonly phases: ReadonlyArray<{
      readonly name: PlanActivity['phases'][number]['name']
      readonly startsAt: Date
      readonly endsAt: Date
    }>
  },
): Times {
  return {
    opensAt: schedule.opensAt.toISOString(),
    closesAt: a.closesAt,
    phases: schedule.phases.map(p => ({
      name: p.name,
      startsAt: p.startsAt.toISOString(),
      endsAt: p.endsAt.toISOString(),
    })),
  }
}
