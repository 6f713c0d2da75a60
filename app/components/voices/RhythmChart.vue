<script setup lang="ts">
import type { VoicesView } from '#shared/voices/voices'
import BarChart from '../shell/BarChart.vue'

/** When the talk is: by day, or by week over a long span, and beneath by the hours of the day. The figures stand as a table, too. */
const props = defineProps<{ view: VoicesView }>()
const LONG = 32 // days
const day = (iso: string, options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options }).format(new Date(`${iso}T12:00:00Z`))
const byWeek = computed(() => props.view.days.length > LONG)
interface Column {
  readonly label: string
  readonly count: number
  readonly hours: readonly number[]
}
const columns = computed<Column[]>(() => {
  if (!byWeek.value)
    return props.view.days.map(d => ({
      label: `${day(d.day, { weekday: 'narrow' })} ${day(d.day, { day: 'numeric' })}`,
      count: d.count,
      hours: d.hours,
    }))
  return Array.from({ length: Math.ceil(props.view.days.length / 7) }, (_, w): Column => {
    const days = props.view.days.slice(w * 7, w * 7 + 7)
    return {
      label: props.view.activity
        ? day(days[0]!.day, { day: 'numeric', month: 'short' })
        : `week ${props.view.from + w}`,
      count: days.reduce((s, d) => s + d.count, 0),
      hours: Array.from({ length: 24 }, (_h, h) => days.reduce((s, d) => s + d.hours[h]!, 0)),
    }
  })
})
const bars = computed(() => columns.value.map(c => ({ label: c.label, n: c.count })))
const BLOCKS = [0, 4, 8, 12, 16, 20] as const
const blocks = computed(() =>
  columns.value.map(c => BLOCKS.map(h => c.hours.slice(h, h + 4).reduce((a, b) => a + b, 0))),
)
const most = computed(() => Math.max(1, ...blocks.value.flat()))
const total = computed(() => props.view.days.reduce((s, d) => s + d.count, 0))
const dues = computed(() => props.view.dues.filter(d => props.view.days.some(x => x.day === d.day)))
const due = (i: number) =>
  byWeek.value ? null : (props.view.dues.find(d => d.day === props.view.days[i]!.day)?.label ?? null)
</script>

<template>
  <section aria-label="Rhythm">
    <div class="pt">
      <h2>Rhythm</h2>
      <span
        >{{ total.toLocaleString('en') }} contributions of students by {{ byWeek ? 'week' : 'day' }}; beneath,
        by the hour</span
      >
    </div>
    <BarChart
      :bars="bars"
      :height="112"
      unit="contributions"
      :label="`Contributions by ${byWeek ? 'week' : 'day'}`"
    />
    <table class="hours" :style="{ '--n': columns.length }">
      <caption class="visually-hidden">
        Contributions by
        {{
          byWeek ? 'week' : 'day'
        }}
        and time of day
      </caption>
      <thead class="visually-hidden">
        <tr>
          <th scope="col">time of day</th>
          <th v-for="(c, i) in columns" :key="i" scope="col">{{ c.label }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(h, b) in BLOCKS" :key="h">
          <th scope="row" class="num">
            {{ h % 8 === 0 ? `${h} h` : ''
            }}<span class="visually-hidden">from {{ h }} to {{ h + 4 }} o’clock</span>
          </th>
          <td
            v-for="(c, i) in columns"
            :key="i"
            :class="{ due: due(i) }"
            :title="`${c.label}, ${h} to ${h + 4} h: ${blocks[i]![b]}`"
            :style="{ '--tone': `${Math.round(Math.sqrt(blocks[i]![b]! / most) * 100)}%` }"
          >
            <span class="visually-hidden">{{ blocks[i]![b] }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="!byWeek && dues.length > 0" class="dues">
      <span v-for="d in dues" :key="d.label + d.day"
        >{{ d.label }} until {{ day(d.day, { weekday: 'short', day: 'numeric', month: 'short' }) }}</span
      >
    </p>
  </section>
</template>

<style scoped>
.pt {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  font-size: 0.78125rem;
  color: var(--ink-2);
  min-height: 20px;
}
h2 {
  font: 600 0.84375rem/1.4 var(--ui);
  color: var(--ink);
}
.hours {
  width: 100%;
  border-collapse: separate;
  border-spacing: 2px 1px;
  table-layout: fixed;
}
.hours th {
  width: 34px;
  font: 500 0.6875rem/8px var(--ui);
  color: var(--ink-2);
  text-align: right;
  padding-right: 5px;
}
.hours td {
  height: 8px;
  padding: 0;
  background: color-mix(in srgb, var(--k-discussion) var(--tone), var(--sunken));
  border-radius: 1px;
}
.hours td.due {
  box-shadow: 2px 0 0 var(--ember);
}
.dues {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 0.75rem;
  color: var(--ember);
  margin-top: 3px;
}
</style>
