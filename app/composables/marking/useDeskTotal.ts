import { calculateMark } from '#core/marking/calculateMark'
import type { RubricView } from '#shared/contributing/activity'
import type { Step } from '#shared/marking/desk'
import { useDeskStore } from '~/stores/desk'

interface OnDesk {
  readonly rubric: Readonly<Ref<RubricView | null>>
  readonly steps: Readonly<Ref<readonly Step[]>>
  /** Whether a second marking is being made: what was set or taken off belongs to the first. */
  readonly isSecond: () => boolean
}

/** The total as the steps stand on the desk; the server calculates it the same way and has the last word. */
export function useDeskTotal({ rubric, steps, isSecond }: OnDesk) {
  const store = useDeskStore()
  const max = computed(() => store.desk?.worth ?? 0)
  const total = computed(() => {
    const r = store.record
    if (!r || !rubric.value || max.value === 0)
      return { points: 0, left: 0, max: max.value, before: 0, set: false }
    const out = new Set(r.mark.excusedFrom.map(e => e.criterionId))
    const t = calculateMark(
      {
        criteria: rubric.value.criteria
          .filter(c => !out.has(c.id))
          .map(c => ({
            criterionId: c.id,
            weight: c.weight,
            max: c.max,
            scope: c.scope,
            points: steps.value.find(s => s.criterionId === c.id)?.points ?? null,
          })),
        combine: null,
        factor: r.mark.factor === null ? null : r.mark.factor / 100,
        reviewing:
          r.mark.reviewing === null
            ? null
            : { share: r.mark.reviewing / 10_000, percent: store.desk!.reviewingPercent },
        late: { lateness: null, rule: { kind: 'none' }, waived: false },
        override: isSecond() ? null : (r.mark.override?.points ?? null),
      },
      { max: max.value, step: store.activity!.pointStep },
    )
    const isLate =
      r.late !== null &&
      !r.mark.lateWaived &&
      r.mark.override === null &&
      store.state === 'saved' &&
      !isSecond()
    return {
      points: isLate ? r.mark.points : (t.points ?? 0),
      left: t.left,
      max: max.value,
      before: t.before ?? 0,
      set: !isSecond() && r.mark.override !== null,
    }
  })
  return { max, total }
}
