<script setup lang="ts">
import type { TermPlan } from '#shared/planning/plan'

/** Hours a week: what the plan asks of each student, and the marking it leaves. */
const props = defineProps<{
  load: TermPlan['load']
  /** Weeks of the term; what the load has after them is said beside it. */
  weeks: number
  current: number
  /** Minutes a week above which it is said to be much. */
  limits: { readonly studentMinutes: number; readonly markingMinutes: number }
}>()
const hours = (minutes: number): string => {
  if (minutes < 1) return '–'
  if (minutes < 20) return `${Math.round(minutes)} min` // two weeks of eight are not two of ten
  if (minutes < 60) return `${Math.round(minutes / 5) * 5} min`
  const tens = Math.round(minutes / 10) * 10
  return `${Math.floor(tens / 60)} h${tens % 60 ? ` ${tens % 60}` : ''}`
}
const range = (least: number, most: number): string => {
  const [from, to] = [hours(least), hours(most)]
  if (from === to) return to
  return `${least < 1 ? '0' : from.replace(to.endsWith('min') ? / min$/ : /$/, '')}–${to}`
}
const inTerm = computed(() => props.load.slice(0, props.weeks))
const after = computed(() => props.load.slice(props.weeks))
const sumAfter = (of: 'studentMinutes' | 'markingMinutes') => after.value.reduce((sum, w) => sum + w[of], 0)
const afterWords = (minutes: number) => (minutes >= 1 ? `, ${hours(minutes)} of it after the term` : '')
const most = computed(() => Math.max(60, ...inTerm.value.flatMap(w => [w.studentMinutes, w.markingMinutes])))
const LONGEST = 44 // of a bar, in pixels: its figure stands beside it
const columns = computed(() => inTerm.value.length)
const marking = computed(() => props.load.reduce((sum, week) => sum + week.markingMinutes, 0))
const lines = computed(() =>
  [
    {
      key: 'students',
      name: 'Students’ hours',
      note: `asked of each; your limit is ${hours(props.limits.studentMinutes)} a week${afterWords(sumAfter('studentMinutes'))}`,
      minutes: inTerm.value.map(w => w.studentMinutes),
      words: inTerm.value.map(w => range(w.leastMinutes, w.studentMinutes)),
      limit: props.limits.studentMinutes,
    },
    {
      key: 'marking',
      name: 'Your marking',
      note:
        marking.value < 1
          ? 'nothing to mark yet'
          : `${hours(marking.value)} in all${afterWords(sumAfter('markingMinutes'))}`,
      minutes: inTerm.value.map(w => w.markingMinutes),
      words: inTerm.value.map(w => hours(w.markingMinutes)),
      limit: props.limits.markingMinutes,
    },
  ].map(({ minutes, words, limit, ...line }) => ({
    ...line,
    weeks: minutes.map((m, i) => ({
      number: i + 1,
      words: words[i]!,
      isOver: Math.round(m) > limit,
      width: `${((m / most.value) * LONGEST).toFixed(1)}px`,
    })),
  })),
)
</script>

<template>
  <section class="load" aria-label="Hours this plan asks for">
    <template v-for="line in lines" :key="line.key">
      <h2 :class="line.key">
        {{ line.name }} <span>{{ line.note }}</span>
      </h2>
    </template>
    <ol v-for="line in lines" :key="line.key" class="num" :class="line.key" :aria-label="line.name">
      <li
        v-for="week in line.weeks"
        :key="week.number"
        :class="{ past: week.number < current, now: week.number === current, over: week.isOver }"
      >
        <u :style="{ width: week.width }" /><span class="visually-hidden">Week {{ week.number }}: </span
        >{{ week.words }}<em v-if="week.isOver">much</em>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.load {
  flex: none;
  position: sticky;
  bottom: 0;
  z-index: 5;
  min-width: 900px;
  padding: 3px 20px 4px;
  background: var(--sunken);
  border-top: 1px solid var(--line);
}
h2 {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  margin-inline-end: 22px;
  font: 600 0.6875rem/16px var(--ui);
  letter-spacing: 0;
}
h2::before {
  content: '';
  width: 12px;
  height: 5px;
  border-radius: 2px;
  background: var(--bar);
}
h2 span {
  font-weight: 500;
  color: var(--ink-2);
}
.students {
  --bar: color-mix(in srgb, var(--harbour) 65%, var(--sunken));
}
.marking {
  --bar: color-mix(in srgb, var(--ember) 70%, var(--sunken));
}
ol {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(v-bind(columns), minmax(0, 1fr));
  font-size: 0.75rem;
  color: var(--ink-2);
}
li {
  position: relative;
  display: flex;
  align-items: center;
  gap: 5px;
  height: 17px;
  padding-inline-start: 8px;
  border-inline-start: 1px solid var(--line);
  white-space: nowrap;
  overflow: hidden;
}
u {
  flex: 0 1 auto;
  min-width: 0;
  height: 5px;
  border-radius: 2px;
  background: var(--bar);
}
.past u {
  opacity: 0.5;
}
em {
  font-style: normal;
}
.over {
  color: var(--brick);
  font-weight: 600;
}
.over u {
  background: var(--brick);
}
.now {
  color: var(--ink);
  font-weight: 650;
}
.now.over {
  color: var(--brick);
}
@media (forced-colors: active) {
  u,
  h2::before {
    forced-color-adjust: none;
  }
}
</style>
