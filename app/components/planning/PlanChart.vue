<script setup lang="ts">
import type { Grip } from '#core/planning/moveSchedule'
import type { SeminarShell } from '#shared/people/seminar'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { percent, spanOf } from '~/composables/planning/planGeometry'
import { useTimes } from '~/composables/planning/useTimes'
import PlanRow from './PlanRow.vue'

const props = defineProps<{
  plan: TermPlan
  activities: readonly PlanActivity[] // those to draw: all, or those of the chosen week
  shell: SeminarShell
  /** Address of an activity's page, or null while it has none to show. */
  addressOf: (activity: PlanActivity) => string | null
  /** Who plans can drag; the one in hand is drawn where it would be. */
  movable: boolean
  heldId: string | null
}>()
const emit = defineEmits<{
  hold: [id: string, grip: Grip, days: number]
  drop: [id: string]
  cancel: [id: string]
  order: [id: string, unitId: string | null, beforeId: string | null]
}>()
const USUAL_WIDTH = 1240 // until it is measured
const carried = ref<string | null>(null) // an activity being carried by its name, to another place or unit
const over = ref<string | null>(null)
function putBefore(unitId: string | null, beforeId: string | null) {
  if (carried.value && carried.value !== beforeId) emit('order', carried.value, unitId, beforeId)
  carried.value = over.value = null
}
/** One place up or down, into the next unit at its ends. */
function step(a: PlanActivity, by: number) {
  const r = rows.value.findIndex(row => row.items.includes(a))
  const items = rows.value[r]!.items
  const i = items.indexOf(a)
  const unitOf = (at: number) => rows.value[at]?.unitId
  if (by < 0 && i > 0) emit('order', a.id, unitOf(r)!, items[i - 1]!.id)
  else if (by > 0 && i < items.length - 1) emit('order', a.id, unitOf(r)!, items[i + 2]?.id ?? null)
  else if (rows.value[r + by])
    emit('order', a.id, unitOf(r + by)!, by > 0 ? (rows.value[r + by]!.items[0]?.id ?? null) : null)
}
// -- walking: the tabulator comes to one bar, arrows go to the next
const chart = ref<HTMLElement | null>(null)
const reachedId = ref<string | null>(null)
const reached = computed(() => {
  const drawn = rows.value.flatMap(row => row.items)
  const current = drawn.find(a => a.id === reachedId.value)
  return (current ?? drawn.find(a => !a.planning?.locked))?.id ?? null
})
function walk(event: KeyboardEvent) {
  if (event.altKey || event.ctrlKey || event.metaKey || !(event.target instanceof Element)) return
  const bars = [...chart.value!.querySelectorAll<HTMLElement>('.bar[tabindex]')]
  const at = bars.indexOf(event.target.closest<HTMLElement>('.bar')!)
  if (at < 0) return
  const next = {
    ArrowUp: bars[Math.max(0, at - 1)],
    ArrowDown: bars[Math.min(bars.length - 1, at + 1)],
    Home: bars[0],
    End: bars.at(-1),
  }[event.key]
  if (!next) return
  event.preventDefault()
  next.focus()
}
function remember(event: FocusEvent) {
  const row = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-activity]') : null
  if (row) reachedId.value = row.dataset.activity!
}

// -- names stand by the width there is
const width = ref(USUAL_WIDTH)
let resizes: ResizeObserver | undefined
onMounted(() => {
  resizes = new ResizeObserver(([entry]) => (width.value = Math.round(entry!.contentRect.width)))
  resizes.observe(chart.value!)
})
onBeforeUnmount(() => resizes?.disconnect())

const { day } = useTimes()
const term = computed(() => ({
  startsAt: props.shell.weeks[0]!.startsAt,
  endsAt: props.shell.weeks.at(-1)!.endsAt,
}))
const today = computed(() => spanOf(props.shell.now, props.shell.now, term.value).from)
const rows = computed(() =>
  [
    ...props.plan.units.map((unit, i) => ({
      unitId: unit.id as string | null,
      title: `Unit ${i + 1} · ${unit.title}`,
      note: `weeks ${label(unit.fromWeek)}–${label(unit.toWeek)}`,
      items: props.activities.filter(a => a.unitId === unit.id),
    })),
    {
      unitId: null,
      title: 'All term',
      note: 'across the units',
      items: props.activities.filter(a => a.unitId === null),
    },
  ].filter(row => row.items.length > 0 || (props.movable && row.unitId !== null)),
)
const label = (week: number) => props.shell.weeks[week - 1]?.label ?? week
</script>

<template>
  <div ref="chart" class="chart" @keydown="walk" @focusin="remember">
    <div class="cols" aria-hidden="true" :style="{ '--weeks': shell.weeks.length }">
      <i
        v-for="week in shell.weeks"
        :key="week.number"
        :class="{ now: week.number === shell.week, pause: week.label === null }"
      />
    </div>
    <i class="today" aria-hidden="true" :style="{ left: percent(today) }" />
    <p class="todayName" :class="{ low: today < 0.2 }" :style="{ left: percent(today) }">
      <b :class="{ left: today > 0.9 }">today, {{ day(shell.now).split(' ').slice(0, 2).join(' ') }}</b>
    </p>
    <section
      v-for="row in rows"
      :key="row.title"
      :class="{ target: over === row.title }"
      @dragover.prevent="carried && (over = row.title)"
      @drop.prevent="putBefore(row.unitId, null)"
    >
      <h2>
        {{ row.title }} <span>{{ row.note }}</span>
      </h2>
      <ul>
        <PlanRow
          v-for="a in row.items"
          :key="a.id"
          :activity="a"
          :term="term"
          :weeks="shell.weeks.length"
          :width="width"
          :data-activity="a.id"
          :reached="reached === a.id"
          :now="shell.now"
          :address="addressOf(a)"
          :base="`/seminars/${shell.id}`"
          :movable="movable"
          :held="heldId === a.id"
          :target="over === a.id"
          @hold="(grip, days) => emit('hold', a.id, grip, days)"
          @drop="emit('drop', a.id)"
          @cancel="emit('cancel', a.id)"
          @order="step(a, $event)"
          @carry="carried = $event ? a.id : null"
          @over="carried && (over = a.id)"
          @put="putBefore(row.unitId, a.id)"
        />
      </ul>
    </section>
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  margin: 0 20px;
  padding-bottom: 14px;
  min-width: 860px;
  flex: 1;
}
.cols {
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: repeat(var(--weeks), minmax(0, 1fr));
  pointer-events: none;
}
.cols i {
  border-left: 1px solid var(--line-soft);
}
.cols i:last-child {
  border-right: 1px solid var(--line-soft);
}
section.target h2 {
  color: var(--ember);
}
.cols .pause {
  background: repeating-linear-gradient(135deg, transparent 0 7px, var(--line-soft) 7px 8px);
}
.cols .now {
  background: var(--sheet);
}
.today,
.todayName {
  position: absolute;
  top: 0;
  bottom: 0;
  pointer-events: none;
}
.today {
  border-left: 2px solid var(--ember);
  z-index: 2;
}
.todayName {
  margin-left: 2px;
  z-index: 4;
}
.todayName b {
  position: sticky;
  top: 0;
  display: block;
  width: max-content;
  padding: 2px 5px;
  font: 650 0.75rem/1.2 var(--ui);
  color: var(--ember);
  background: var(--paper);
}
/* where the units' names stand */
.todayName.low {
  display: flex;
  align-items: flex-end;
}
.todayName.low b {
  top: auto;
  bottom: 0;
}
.todayName b.left {
  transform: translateX(calc(-100% - 4px));
}
section {
  position: relative;
  border-bottom: 1px solid var(--line);
  padding: 7px 0 6px;
}
section:last-of-type {
  border-bottom: 0;
}
h2 {
  font: 600 0.875rem/1.1 var(--read);
  position: sticky;
  left: 0;
  width: max-content;
  max-width: 100%;
}
h2 span {
  font: 500 0.75rem/1 var(--ui);
  color: var(--ink-3);
  margin-inline-start: 4px;
}
ul {
  list-style: none;
}
@media (max-width: 900px) {
  .chart {
    padding-top: 14px;
  }
  h2 {
    left: 12px;
    z-index: 3;
    background: color-mix(in srgb, var(--paper) 86%, transparent);
  }
}
</style>
