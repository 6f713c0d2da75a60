<script setup lang="ts">
import type { SeminarShell } from '#shared/people/seminar'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { remarkWords, type Remedy } from '~/composables/planning/planRemarks'
import { inWords } from '#core/language'

/** What to look at in the plan: advice in words, each with a remedy where there is one. Nothing is blocked. */
const props = defineProps<{ plan: TermPlan; shell: SeminarShell; busy: boolean }>()
const emit = defineEmits<{
  remedy: [activityId: string, index: number]
  go: [activityId: string]
  rest: [activityId: string, week: number]
}>()
const all = ref(false)
const MOST = 3
const hours = (minutes: number) => {
  const tens = Math.round(minutes / 10) * 10
  return `${Math.floor(tens / 60)} h${tens % 60 ? ` ${tens % 60}` : ''}`
}
const titleOf = (id: string): PlanActivity | undefined => props.plan.activities.find(a => a.id === id)
const label = (week: number) => props.shell.weeks[week - 1]?.label ?? week
interface Line {
  readonly key: string
  readonly title: string | null
  readonly text: string
  readonly act: { readonly label: string; readonly run: () => void } | null
}
const lines = computed<Line[]>(() => {
  const staff = props.plan.staff
  if (!staff) return []
  const wide = staff.planRemarks.map((r): Line => {
    switch (r.code) {
      case 'weights':
        return {
          key: 'weights',
          title: null,
          text: `The categories make ${r.sum} % together.`,
          act: { label: 'Look at them', run: () => void navigateTo(`/seminars/${props.shell.id}/settings`) },
        }
      case 'heavyWeek':
        return {
          key: `heavy${r.week}`,
          title: null,
          text: `Week ${label(r.week)} asks ${hours(r.minutes)} of each student.${r.rest ? ` Resting “${titleOf(r.rest.activityId)?.title}” there brings it to ${hours(r.minutes - r.rest.minutes)}.` : ''}`,
          act: r.rest ? { label: 'Rest it', run: () => emit('rest', r.rest!.activityId, r.week) } : null,
        }
      case 'heavyMarking':
        return {
          key: `marking${r.week}`,
          title: null,
          text: `Week ${label(r.week)} has ${hours(r.minutes)} of marking; your limit is ${hours(r.limit)}.`,
          act: null,
        }
    }
  })
  const single = staff.remarks.map(({ activityId, remark }, i): Line => {
    const words = remarkWords(remark, null, props.shell)
    const run = (remedy: Remedy) =>
      typeof remedy.change === 'string' ? emit('go', activityId) : emit('remedy', activityId, i)
    return {
      key: `${activityId}${remark.code}`,
      title: titleOf(activityId)?.title ?? '',
      text: words.text,
      act: words.remedy ? { label: words.remedy.label, run: () => run(words.remedy!) } : null,
    }
  })
  return [...single, ...wide]
})
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, MOST)))
</script>

<template>
  <section class="checks">
    <h2>Plan checks <span>advice, nothing is blocked</span></h2>
    <p v-for="line in shown" :key="line.key" class="say">
      <span
        ><template v-if="line.title"
          ><i>{{ line.title }}</i
          >: </template
        >{{ line.text }}</span
      ><button
        v-if="line.act && plan.staff?.mayManage"
        class="link"
        type="button"
        :disabled="busy"
        @click="line.act.run()"
      >
        {{ line.act.label }}
      </button>
    </p>
    <p v-if="lines.length === 0" class="say">
      Nothing to look at: due times, loads and weights are as you set them.
    </p>
    <button v-if="lines.length > MOST" class="link small more" type="button" @click="all = !all">
      {{ all ? 'fewer' : `and ${inWords(lines.length - MOST)} more` }}
    </button>
  </section>
</template>

<style scoped>
.checks {
  padding: 12px 20px 0;
}
h2 {
  font: 600 0.9375rem/1.2 var(--read);
  margin-bottom: 5px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
h2 span {
  font: 500 0.75rem/1 var(--ui);
  color: var(--ink-3);
}
.say {
  display: flex;
  gap: 14px;
  align-items: baseline;
  justify-content: space-between;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
  font: 400 0.875rem/1.4 var(--read);
}
.say:first-of-type {
  border-top: 0;
}
.say .link {
  font: 600 0.8125rem/1.3 var(--ui);
  white-space: nowrap;
}
.more {
  margin-top: 4px;
}
</style>
