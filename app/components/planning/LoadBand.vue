<script setup lang="ts">
import type { TermPlan } from '#shared/planning/plan'

const props = defineProps<{
  load: TermPlan['load']
  current: number
  /** Minutes a week above which it is said to be much. */
  limits: { readonly studentMinutes: number; readonly markingMinutes: number }
}>()
const hours = (minutes: number): string => {
  if (minutes < 1) return '–'
  if (minutes < 60) return `${Math.max(5, Math.round(minutes / 5) * 5)} min`
  const tens = Math.round(minutes / 10) * 10
  return `${Math.floor(tens / 60)} h${tens % 60 ? ` ${tens % 60}` : ''}`
}
const over = (minutes: number, limit: number) => Math.round(minutes) > limit
const most = computed(() => Math.max(60, ...props.load.flatMap(w => [w.studentMinutes, w.markingMinutes])))
const width = (minutes: number) => `${((minutes / most.value) * 82).toFixed(1)}%`
const columns = computed(() => props.load.length)
const marking = computed(() => props.load.reduce((sum, week) => sum + week.markingMinutes, 0))
</script>

<template>
  <section class="load" aria-label="Hours this plan asks for">
    <h2>
      Students’ hours
      <span>asked of each student; your limit is {{ hours(limits.studentMinutes) }} a week</span>
    </h2>
    <ol class="num">
      <li
        v-for="week in load"
        :key="week.week"
        :class="{
          past: week.week < current,
          now: week.week === current,
          over: over(week.studentMinutes, limits.studentMinutes),
        }"
      >
        <span class="visually-hidden">Week {{ week.week }}: </span>{{ hours(week.studentMinutes)
        }}<em v-if="over(week.studentMinutes, limits.studentMinutes)"> · much</em
        ><u :style="{ width: width(week.studentMinutes) }" />
      </li>
    </ol>
    <h2>
      Your marking hours <span>{{ hours(marking) }} over the term</span>
    </h2>
    <ol class="num mine">
      <li
        v-for="week in load"
        :key="week.week"
        :class="{
          past: week.week < current,
          now: week.week === current,
          over: over(week.markingMinutes, limits.markingMinutes),
        }"
      >
        <span class="visually-hidden">Week {{ week.week }}: </span>{{ hours(week.markingMinutes)
        }}<em v-if="over(week.markingMinutes, limits.markingMinutes)"> · much</em
        ><u :style="{ width: width(week.markingMinutes) }" />
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
  padding: 0 20px 5px;
  background: var(--sunken);
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
}
h2 {
  font: 600 0.75rem/1 var(--ui);
  padding-top: 8px;
  letter-spacing: 0;
}
h2 span {
  font-weight: 500;
  color: var(--ink-2);
}
ol {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(v-bind(columns), minmax(0, 1fr));
  font-size: 0.75rem;
  color: var(--ink-2);
  height: 29px;
}
li {
  padding: 4px 8px 0;
  border-left: 1px solid var(--line);
  height: 25px;
  line-height: 15px;
  white-space: nowrap;
}
u {
  display: block;
  height: 5px;
  border-radius: 2px;
  background: color-mix(in srgb, var(--harbour) 65%, var(--sunken));
  margin-top: 2px;
}
.mine u {
  background: color-mix(in srgb, var(--ember) 70%, var(--sunken));
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
@media (forced-colors: active) {
  u {
    forced-color-adjust: none;
  }
}
</style>
