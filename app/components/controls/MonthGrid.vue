<script setup lang="ts">
import { dateFormat } from '#core/language/dateFormat'
import { weeksOfMonth } from '#core/planning/readDay'
import { dayAfter } from '#core/planning/week'

/** A month to choose a day from. Arrows go by days and weeks, Page Up and Page Down by months (ARIA practices, date grid). */
const props = defineProps<{ day: string; today: string }>()
const emit = defineEmits<{ choose: [day: string] }>()
const at = ref(props.day) // where the keyboard is
const weeks = computed(() => weeksOfMonth(at.value))
const words = (options: Intl.DateTimeFormatOptions) => {
  const format = dateFormat('en-GB', { timeZone: 'UTC', ...options })
  return (day: string) => format.format(new Date(day)).replaceAll(',', '')
}
const monthWords = words({ month: 'long', year: 'numeric' })
const dayWords = words({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
const weekdayWords = words({ weekday: 'short' })
const grid = ref<HTMLElement | null>(null)

/** The same day of another month, or its last. */
function turned(months: number): string {
  const [year, month, day] = at.value.split('-').map(Number) as [number, number, number]
  const last = new Date(Date.UTC(year, month + months, 0)).getUTCDate()
  return new Date(Date.UTC(year, month - 1 + months, Math.min(day, last))).toISOString().slice(0, 10)
}
async function go(to: string) {
  at.value = to
  await nextTick()
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
function onKey(event: KeyboardEvent) {
  const weekday = (new Date(at.value).getUTCDay() + 6) % 7
  const to = {
    ArrowLeft: dayAfter(at.value, -1),
    ArrowRight: dayAfter(at.value, 1),
    ArrowUp: dayAfter(at.value, -7),
    ArrowDown: dayAfter(at.value, 7),
    Home: dayAfter(at.value, -weekday),
    End: dayAfter(at.value, 6 - weekday),
    PageUp: turned(-1),
    PageDown: turned(1),
  }[event.key]
  if (!to) return
  event.preventDefault()
  event.stopPropagation()
  void go(to)
}
defineExpose({ focus: () => go(props.day) })
</script>

<template>
  <div class="month">
    <p>
      <button type="button" aria-label="The month before" @click="at = turned(-1)">‹</button>
      <b aria-live="polite">{{ monthWords(at) }}</b>
      <button type="button" aria-label="The next month" @click="at = turned(1)">›</button>
    </p>
    <table ref="grid" role="grid" :aria-label="monthWords(at)" @keydown="onKey">
      <thead>
        <tr>
          <th v-for="d in weeks[0]" :key="d" scope="col">{{ weekdayWords(d).slice(0, 2) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="week in weeks" :key="week[0]">
          <td v-for="d in week" :key="d" role="gridcell" :aria-selected="d === day">
            <button
              type="button"
              class="num"
              :class="{ out: d.slice(0, 7) !== at.slice(0, 7), on: d === day, today: d === today }"
              :tabindex="d === at ? 0 : -1"
              :data-begin="d === at || undefined"
              :aria-label="`${dayWords(d)}${d === today ? ', today' : ''}`"
              @click="emit('choose', d)"
            >
              {{ Number(d.slice(8)) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
p {
  display: flex;
  align-items: center;
  justify-content: space-between;
  font: 600 0.875rem/1.2 var(--read);
  margin-bottom: 4px;
}
table {
  border-collapse: collapse;
}
th {
  font: 500 0.6875rem/1 var(--ui);
  color: var(--ink-3);
  padding: 4px 0;
}
td {
  padding: 0;
}
button {
  width: 32px;
  height: 30px;
  border: 0;
  border-radius: 4px;
  background: none;
  font: 500 0.8125rem/1 var(--ui);
  color: var(--ink);
  cursor: pointer;
}
button:hover {
  background: var(--sunken);
}
.out {
  color: var(--ink-3);
}
.today {
  box-shadow: inset 0 -2px 0 var(--ember);
}
.on {
  background: var(--harbour);
  color: var(--on-harbour);
  font-weight: 650;
}
.on:hover {
  background: var(--harbour);
}
@media (forced-colors: active) {
  .on {
    background: Highlight;
    color: HighlightText;
    forced-color-adjust: none;
  }
}
</style>
