<script setup lang="ts">
import type { SeminarShell } from '#shared/people/seminar'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { remarkWords, type Remedy } from '~/composables/planning/planRemarks'
import type { PlanLine } from '~/composables/planning/planLines'
import FoldedLines from './FoldedLines.vue'

/** What to look at in the plan: advice in words, each with a remedy where there is one. Nothing is blocked. */
const props = defineProps<{ plan: TermPlan; shell: SeminarShell; busy: boolean }>()
const emit = defineEmits<{
  remedy: [activityId: string, index: number]
  go: [activityId: string]
  rest: [activityId: string, week: number]
}>()
const hours = (minutes: number) => {
  const tens = Math.round(minutes / 10) * 10
  return `${Math.floor(tens / 60)} h${tens % 60 ? ` ${tens % 60}` : ''}`
}
const asked = (r: { readonly minutes: number; readonly least: number }) =>
  hours(r.minutes) === hours(r.least)
    ? `${hours(r.minutes)} of each student`
    : `up to ${hours(r.minutes)} of a student`
const titleOf = (id: string): PlanActivity | undefined => props.plan.activities.find(a => a.id === id)
const label = (week: number) =>
  props.shell.weeks[week - 1]?.label ??
  (week > props.shell.weeks.length ? `${week - props.shell.weeks.length} after the term` : week)
/** What resting one activity would do for a week that asks too much. */
function restWords(r: { minutes: number; rest: { activityId: string; minutes: number } | null }) {
  if (!r.rest) return null
  return `Resting “${titleOf(r.rest.activityId)?.title}” there brings it to ${hours(r.minutes - r.rest.minutes)}.`
}
const lines = computed<PlanLine[]>(() => {
  const staff = props.plan.staff
  if (!staff) return []
  const wide = staff.planRemarks.map((r): PlanLine => {
    switch (r.code) {
      case 'weights':
        return {
          key: 'weights',
          words: [`The categories make ${r.sum} % together.`],
          act: staff.mayManage ? { label: 'Look at them', to: `/seminars/${props.shell.id}/settings` } : null,
        }
      case 'heavyWeek':
        return {
          key: `heavy${r.week}`,
          words: [[`Week ${label(r.week)} asks ${asked(r)}.`, restWords(r)].filter(Boolean).join(' ')],
          act:
            r.rest && staff.mayManage
              ? { label: 'Rest it', run: () => emit('rest', r.rest!.activityId, r.week) }
              : null,
        }
      case 'heavyMarking':
        return {
          key: `marking${r.week}`,
          words: [
            `Week ${label(r.week)} has ${hours(r.minutes)} of marking; your limit is ${hours(r.limit)}.`,
          ],
          act: null,
        }
    }
  })
  const single = staff.remarks.map(({ activityId, remark }, i): PlanLine => {
    const words = remarkWords(remark, null, props.shell)
    const run = (remedy: Remedy) =>
      typeof remedy.change === 'string' ? emit('go', activityId) : emit('remedy', activityId, i)
    return {
      key: `${activityId}${remark.code}`,
      words: [{ title: titleOf(activityId)?.title ?? '' }, `: ${words.text}`],
      act:
        words.remedy && staff.mayManage ? { label: words.remedy.label, run: () => run(words.remedy!) } : null,
    }
  })
  return [...single, ...wide]
})
</script>

<template>
  <FoldedLines
    class="checks"
    title="Plan checks"
    note="advice, nothing is blocked"
    :lines="lines"
    calm="Nothing to look at: due times, loads and weights are as you set them."
    :busy="busy"
  />
</template>
