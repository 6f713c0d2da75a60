<script setup lang="ts">
import type { MyWeek } from '#shared/planning/myWeek'
import { listed } from '#core/language'
import { points } from '~/composables/marking/points'
import KindTag from './KindTag.vue'

const props = defineProps<{ week: MyWeek; current: number; weeks: number }>()
const counted = computed(() => props.week.categories.filter(c => c.points !== null))
const share = computed(() => counted.value.reduce((n, c) => n + c.weightPercent, 0))
/** Weighted mean of the categories with points, their weights renormalised. */
const soFar = computed(() =>
  Math.round(
    (counted.value.reduce((n, c) => n + (c.weightPercent * c.points!) / c.max!, 0) / share.value) * 100,
  ),
)
const most = computed(() => Math.max(1, ...props.week.days.map(d => d.words)))
const total = computed(() => props.week.days.reduce((n, d) => n + d.words, 0))
const dayCount = computed(() => props.week.days.reduce((n, d) => n + d.written.filter(Boolean).length, 0))
</script>

<template>
  <aside class="right" aria-label="Your term so far">
    <h2>
      Your term so far <span>{{ current }} of {{ weeks }} weeks</span>
    </h2>
    <table>
      <thead>
        <tr>
          <th scope="col">category</th>
          <th scope="col" class="n">counts</th>
          <th scope="col" class="n">points so far</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in week.categories" :key="c.title">
          <td>
            <KindTag v-if="c.kind" :kind="c.kind" /><span v-else class="plain">{{ c.title }}</span>
          </td>
          <td class="n">{{ c.weightPercent }} %</td>
          <td class="n">
            <b v-if="c.points !== null">{{ points(c.points) }} of {{ points(c.max!) }}</b
            ><span v-else class="muted">nothing back yet</span>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-if="counted.length > 0">
      <p class="est">
        If it all went on like this: <b>{{ soFar }} of 100</b>.
      </p>
      <p class="why">
        It rests on {{ listed(counted.map(c => c.title.toLowerCase())) }}, {{ share }} % of what counts;
        everything else is still to come.
      </p>
    </template>
    <p v-else class="why pad">Points appear here when the first letter comes back.</p>
    <div class="days">
      <div class="hd">
        <span>week</span
        ><span class="grid" aria-hidden="true"
          ><i v-for="(d, i) in 'MTWTFSS'" :key="i">{{ d }}</i></span
        ><span>words</span>
      </div>
      <div v-for="d in week.days" :key="d.week" class="weekrow num" :class="{ now: d.week === current }">
        <span>{{ d.week }}</span>
        <span
          class="grid"
          role="img"
          :aria-label="`Week ${d.week}: wrote on ${d.written.filter(Boolean).length} days, ${d.words} words`"
          ><i v-for="(w, i) in d.written" :key="i" :class="{ w }"
        /></span>
        <span class="bar"><u :style="{ width: `${(d.words / most) * 70}%` }" />{{ d.words || '' }}</span>
      </div>
    </div>
    <p class="why">You wrote on {{ dayCount }} days, {{ total.toLocaleString('en') }} words in all.</p>
  </aside>
</template>

<style scoped>
.right {
  background: var(--sheet);
  border-left: 1px solid var(--line);
  padding: 16px 20px 24px 24px;
  overflow-y: auto;
}
h2 {
  font: 600 1.125rem/1.25 var(--read);
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
h2 span {
  font: 500 0.78125rem/1 var(--ui);
  color: var(--ink-3);
}
table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 7px;
  font-size: 0.8125rem;
}
th {
  font: 500 0.75rem/1 var(--ui);
  color: var(--ink-3);
  text-align: left;
  padding: 4px 0 5px;
}
td {
  padding: 0;
  height: 30px;
  border-top: 1px solid var(--line-soft);
  white-space: nowrap;
}
.n {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.plain {
  color: var(--ink-2);
  padding-left: 11px;
}
.est {
  font: 400 1rem/1.5 var(--read);
  margin-top: 12px;
  padding-top: 11px;
  border-top: 1px solid var(--line);
}
.why {
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
  margin-top: 4px;
}
.pad {
  padding-top: 11px;
}
.days {
  margin-top: 13px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
  font-size: 0.75rem;
  color: var(--ink-2);
  display: grid;
  gap: 6px;
}
.hd,
.weekrow {
  display: grid;
  grid-template-columns: 38px 150px 1fr;
  align-items: center;
  gap: 0 12px;
  height: 17px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  justify-items: center;
  align-items: center;
}
.grid i {
  font-style: normal;
}
.weekrow .grid i {
  width: 5px;
  height: 5px;
  border-radius: 50%;
  background: var(--spine);
}
.weekrow .grid i.w {
  width: 11px;
  height: 11px;
  background: var(--harbour);
}
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
}
.bar u {
  height: 10px;
  border-radius: 2px;
  background: var(--harbour);
}
.now {
  color: var(--ink);
  font-weight: 650;
}
.now .bar u {
  background: var(--ember);
}
</style>
