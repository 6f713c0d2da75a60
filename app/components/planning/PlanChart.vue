<script setup lang="ts">
import type { Grip } from '#core/planning/moveSchedule'
import type { SeminarShell } from '#shared/people/seminar'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { percent, spanOf } from '../../composables/planGeometry'
import { STANDING_WORDS } from '../../composables/kindWords'
import { useTimes } from '../../composables/useTimes'
import FillMark from '../marking/FillMark.vue'
import KindTag from './KindTag.vue'
import PlanBar from './PlanBar.vue'

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
const emit = defineEmits<{ hold: [id: string, grip: Grip, days: number], drop: [id: string], cancel: [id: string], order: [id: string, unitId: string | null, beforeId: string | null] }>()
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
  else if (rows.value[r + by]) emit('order', a.id, unitOf(r + by)!, by > 0 ? rows.value[r + by]!.items[0]?.id ?? null : null)
}
const { day, date } = useTimes()
const term = computed(() => ({ startsAt: props.shell.weeks[0]!.startsAt, endsAt: props.shell.weeks.at(-1)!.endsAt }))
const today = computed(() => spanOf(props.shell.now, props.shell.now, term.value).from)
const rows = computed(() => [...props.plan.units.map((unit, i) => ({ unitId: unit.id as string | null, title: `Unit ${i + 1} · ${unit.title}`, note: `weeks ${label(unit.fromWeek)}–${label(unit.toWeek)}`, items: props.activities.filter(a => a.unitId === unit.id) })),
  { unitId: null, title: 'All term', note: 'across the units', items: props.activities.filter(a => a.unitId === null) }].filter(row => row.items.length > 0 || (props.movable && row.unitId !== null)))
const label = (week: number) => props.shell.weeks[week - 1]?.label ?? week
const span = (a: PlanActivity) => spanOf(a.phases[0]!.startsAt, (a.phases.filter(p => p.name !== 'return').at(-1) ?? a.phases[0]!).endsAt, term.value)
function after(a: PlanActivity): { strong: string, rest: string } {
  if (a.counts && a.state === 'published') {
    const { ready, held, returned, underWay } = a.counts
    const rest = [held && `${held} held`, returned && `${returned} returned`, underWay && `${underWay} under way`].filter(Boolean).join(' · ')
    return { strong: ready > 0 ? `${ready} ready to mark` : '', rest: ready > 0 && rest ? ` · ${rest}` : rest }
  }
  if (a.state === 'draft') return { strong: '', rest: `would open ${date(a.opensAt)}${a.planning && !a.planning.hasStarter ? ' · no starter yet' : ''}` }
  if (a.opensAt > props.shell.now) return { strong: '', rest: `opens ${day(a.opensAt)}` }
  return { strong: '', rest: a.standing ? STANDING_WORDS[a.standing] : '' }
}
</script>

<template>
  <div class="chart">
    <div class="cols" aria-hidden="true" :style="{ '--weeks': shell.weeks.length }"><i v-for="week in shell.weeks" :key="week.number" :class="{ now: week.number === shell.week, pause: week.label === null }" /></div>
    <p class="today" :style="{ left: percent(today) }"><b>today, {{ day(shell.now).split(' ').slice(0, 2).join(' ') }}</b></p>
    <section v-for="row in rows" :key="row.title" :class="{ target: over === row.title }" @dragover.prevent="carried && (over = row.title)" @drop.prevent="putBefore(row.unitId, null)">
      <h2>{{ row.title }} <span>{{ row.note }}</span></h2>
      <ul>
        <li v-for="a in row.items" :key="a.id" v-memo="[a, row.unitId, heldId === a.id, movable, shell, over === a.id, plan]" :class="{ flipped: span(a).from < 0.3, target: over === a.id }" @dragover.prevent.stop="carried && (over = a.id)" @drop.prevent.stop="putBefore(row.unitId, a.id)">
          <PlanBar :activity="a" :term="term" :weeks="shell.weeks.length" :movable="movable && !a.planning?.locked" :held="heldId === a.id" @hold="(grip, days) => emit('hold', a.id, grip, days)" @drop="emit('drop', a.id)" @cancel="emit('cancel', a.id)" @order="step(a, $event)" />
          <p class="name" :draggable="movable" :title="movable ? 'Drag to another place or unit' : undefined" @dragstart="carried = a.id" @dragend="carried = over = null" :style="span(a).from < 0.3 ? { left: percent(span(a).to) } : { right: percent(1 - span(a).from) }">
            <span class="tags"><em v-if="a.state !== 'published'">{{ a.state }}</em><KindTag :kind="a.kind" /></span>
            <NuxtLink v-if="addressOf(a)" :to="addressOf(a)!" draggable="false">{{ a.title }}</NuxtLink>
            <span v-else class="plain">{{ a.title }}</span>
            <span v-if="span(a).from < 0.3" class="beside"><FillMark v-if="a.standing" :standing="a.standing" :named="false" /><b>{{ after(a).strong }}</b>{{ after(a).rest }}</span>
          </p>
          <p v-if="span(a).from >= 0.3" class="after" :class="{ under: span(a).to > 0.86 }" :style="span(a).to > 0.86 ? {} : { left: percent(span(a).to) }"><FillMark v-if="a.standing" :standing="a.standing" :named="false" /><b>{{ after(a).strong }}</b>{{ after(a).rest }}</p>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.chart { position: relative; margin: 0 20px; padding-bottom: 14px; min-width: 860px; flex: 1; }
.cols { position: absolute; inset: 0; display: grid; grid-template-columns: repeat(var(--weeks), minmax(0, 1fr)); pointer-events: none; }
.cols i { border-left: 1px solid var(--line-soft); }
.cols i:last-child { border-right: 1px solid var(--line-soft); }
section.target h2 { color: var(--ember); }
li.target { box-shadow: 0 -2px 0 var(--ember); }
.cols .pause { background: repeating-linear-gradient(135deg, transparent 0 7px, var(--line-soft) 7px 8px); }
.cols .now { background: var(--sheet); }
.today { position: absolute; top: 0; bottom: 0; border-left: 2px solid var(--ember); pointer-events: none; z-index: 2; }
.today b { position: absolute; left: 5px; top: 3px; white-space: nowrap; font: 650 0.75rem/1.2 var(--ui); color: var(--ember); }
section { position: relative; border-bottom: 1px solid var(--line); padding: 9px 0 10px; }
section:last-of-type { border-bottom: 0; }
h2 { font: 600 0.875rem/1.2 var(--read); position: relative; }
h2 span { font: 500 0.75rem/1 var(--ui); color: var(--ink-3); margin-left: 4px; }
ul { list-style: none; margin-top: 2px; }
li { position: relative; height: 37px; }
.name { position: absolute; top: 1px; text-align: right; padding: 0 9px; white-space: nowrap; font: 600 0.8125rem/1.2 var(--ui); z-index: 3; }
.flipped .name { text-align: left; }
.name a { color: var(--ink); text-decoration-color: transparent; }
.name a:hover { text-decoration-color: currentcolor; }
.plain { color: var(--ink-2); }
.tags { display: block; height: 16px; line-height: 14px; }
.tags :deep(.kind) { font-size: 0.6875rem; padding: 0 0 0 6px; }
.tags em { margin-right: 7px; font: 600 0.6875rem/12px var(--ui); font-style: normal; color: var(--ink-2); border: 1px dashed var(--ink-3); border-radius: 3px; padding: 0 4px; display: inline-block; }
.after, .beside { font: 500 0.75rem/1.2 var(--ui); color: var(--ink-2); white-space: nowrap; }
.after { position: absolute; top: 11px; padding: 0 9px; }
.after.under { right: 0; top: 28px; padding: 0; }
.beside { margin-left: 10px; }
.after b, .beside b { color: var(--ember); font-weight: 650; }
.after .fill, .beside .fill { vertical-align: -2px; margin-right: 6px; }
</style>
