<script setup lang="ts">
import type { VoicesView } from '#shared/voices/voices'
import {
  CX,
  CY,
  H,
  RX,
  RY,
  labelAt,
  layOutLines,
  layOutSeats,
  seated,
  W,
  type Seat,
} from '~/composables/voices/tablePlanLayout'
import { plural } from '#core/language'
import TextButton from '~/components/controls/TextButton.vue'

/** Everybody round one table: who answered whom. Whoever is chosen has their lines drawn strong; the same stands below in words. */
const props = defineProps<{ view: VoicesView; chosen: string | null }>()
const emit = defineEmits<{ choose: [id: string | null] }>()
const me = computed(() => props.view.staff.find(s => s.isMe) ?? props.view.staff[0] ?? null)
const shown = computed(() => seated(props.view))
const hidden = computed(() => props.view.people.length - shown.value.length)
const seats = computed(() => layOutSeats(props.view, shown.value, me.value))
const seatOf = computed(() => new Map(seats.value.map(s => [s.id, s])))
const labelled = (s: Seat) =>
  seats.value.length <= 34 || s.id === props.chosen || s.contributions === 0 || s.staff
const lines = computed(() => layOutLines(props.view, seatOf.value, props.chosen))
const nameOf = computed(
  () =>
    new Map([
      ...props.view.people.map(p => [p.id, p.name] as const),
      ...props.view.staff.map(s => [s.id, s.isMe ? 'you' : s.name] as const),
    ]),
)
const list = (edges: VoicesView['edges'], other: 'from' | 'to') =>
  edges.map(e => `${nameOf.value.get(e[other]) ?? 'somebody'}${e.times > 1 ? ` (${e.times})` : ''}`)
const about = computed(() => {
  const id = props.chosen
  const p = props.view.people.find(x => x.id === id)
  if (!id || !nameOf.value.has(id)) return null
  const [to, by] = [props.view.edges.filter(e => e.from === id), props.view.edges.filter(e => e.to === id)]
  return {
    id,
    name: p?.name ?? me.value!.name,
    to: list(to, 'to'),
    by: list(by, 'from'),
    words: p
      ? `${p.contributions} ${plural(p.contributions, 'contribution')}, ${p.words.toLocaleString('en')} words`
      : '',
  }
})
function move(event: KeyboardEvent, i: number) {
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  if (!by) return
  event.preventDefault()
  const next = seats.value[(i + by + seats.value.length) % seats.value.length]!
  document.getElementById(`seat-${next.id}`)?.focus()
}
const focusable = computed(() =>
  props.chosen && seatOf.value.has(props.chosen) ? props.chosen : (seats.value[0]?.id ?? null),
)
/** Those who talk mostly among themselves (communities of the network), and who stands between them. */
const communities = computed(() => {
  const talking = new Set(props.view.edges.flatMap(e => [e.from, e.to]))
  const by = new Map<number, string[]>()
  for (const p of props.view.people)
    if (talking.has(p.id)) by.set(p.community, [...(by.get(p.community) ?? []), p.name])
  return [...by.values()].filter(names => names.length >= 3).sort((a, b) => b.length - a.length)
})
const bridge = computed(() => {
  const [first] = [...props.view.people].sort((a, b) => b.between - a.between)
  return first && first.between > 0 ? first.name : null
})
/** The name with what is written beside the seat in it. */
const namedAs = (s: (typeof seats.value)[number]) =>
  s.name.includes(s.label) ? s.name : `${s.label}, ${s.name}`
function seatWords(s: (typeof seats.value)[number]) {
  if (s.staff) return 'teaches'
  if (s.contributions === 0) return 'has said nothing'
  return `${s.words} words`
}
</script>

<template>
  <section aria-label="Table plan">
    <div class="pt">
      <h2>Table plan</h2>
      <span v-if="about"
        >{{ about.name }}: {{ about.words ? `${about.words}; ` : '' }}answered {{ about.to.length }}, answered
        by {{ about.by.length }} <TextButton @click="emit('choose', null)">all</TextButton></span
      ><span v-else>choose a seat to see one person’s lines</span>
    </div>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      role="group"
      aria-label="Seats round the table; lines go from who answered to who was answered"
    >
      <ellipse :cx="CX" :cy="CY" :rx="RX - 26" :ry="RY - 20" class="table" />
      <path
        v-for="l in lines"
        :key="l.key"
        :d="l.path"
        class="line"
        :class="[l.role, { faint: chosen !== null && l.role !== 'to' && l.role !== 'fro' }]"
        :stroke-width="l.role === 'to' || l.role === 'fro' ? l.width + 0.8 : l.width"
      />
      <g
        v-for="(s, i) in seats"
        :id="`seat-${s.id}`"
        :key="s.id"
        class="seat"
        :class="{ silent: !s.staff && s.contributions === 0, staff: s.staff, chosen: s.id === chosen }"
        role="button"
        :tabindex="s.id === focusable ? 0 : -1"
        :aria-pressed="s.id === chosen"
        :aria-label="`${namedAs(s)}: ${seatWords(s)}`"
        @click="emit('choose', s.id === chosen ? null : s.id)"
        @keydown.enter.prevent="emit('choose', s.id === chosen ? null : s.id)"
        @keydown.space.prevent="emit('choose', s.id === chosen ? null : s.id)"
        @keydown="move($event, i)"
      >
        <circle class="hit" :cx="s.x" :cy="s.y" :r="Math.max(14, s.r + 4)" />
        <rect v-if="s.staff" :x="s.x - 12" :y="s.y - 12" width="24" height="24" rx="5" />
        <circle v-else :cx="s.x" :cy="s.y" :r="s.r" />
        <template v-if="labelled(s)">
          <line
            v-if="labelAt(s, i).leads"
            :x1="s.x"
            :y1="s.y + Math.sign(Math.sin(s.angle)) * (s.r + 2)"
            :x2="labelAt(s, i).x"
            :y2="labelAt(s, i).y - (Math.sin(s.angle) > 0 ? 11 : -3)"
            class="lead"
          />
          <text
            :x="labelAt(s, i).x"
            :y="labelAt(s, i).y"
            :text-anchor="labelAt(s, i).anchor"
            :class="{ neglected: s.neglected }"
          >
            {{ s.label }}
          </text>
        </template>
      </g>
    </svg>
    <p v-if="about" class="words">
      <template v-if="about.to.length > 0"><b>answered</b> {{ about.to.join(', ') }}. </template
      ><template v-if="about.by.length > 0"><b>answered by</b> {{ about.by.join(', ') }}.</template
      ><template v-if="about.to.length + about.by.length === 0">No lines lead to or from here yet.</template>
    </p>
    <p v-else class="legend">
      <span>seat: words</span><span>hollow: silent</span><span><i class="to" />answered</span
      ><span><i class="fro" />was answered by</span><span><i class="mine" />your answers</span
      ><span><u>name</u> nothing from you for {{ view.gapLimit }} days</span
      ><span v-if="hidden > 0"
        >the {{ shown.length }} who said most; {{ hidden.toLocaleString('en') }} more in the table</span
      >
    </p>
    <details v-if="!about && communities.length > 1" class="circles">
      <summary>{{ communities.length }} circles who talk mostly among themselves</summary>
      <ul>
        <li v-for="(names, i) in communities" :key="i">
          {{ names.slice(0, 12).join(', ') }}{{ names.length > 12 ? ` and ${names.length - 12} more` : '' }}
        </li>
      </ul>
      <p v-if="bridge">{{ bridge }} stands between more of the others than anybody.</p>
    </details>
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
  white-space: nowrap;
}
svg {
  display: block;
  width: 100%;
  max-width: 760px;
  margin: 2px auto 0;
  overflow: visible;
}
.table {
  fill: none;
  stroke: var(--line-soft);
  stroke-width: 1.5;
}
.line {
  fill: none;
  stroke: var(--k-discussion);
  opacity: 0.34;
}
.line.mine {
  stroke: var(--ember);
  stroke-dasharray: 2.5 3;
  opacity: 0.75;
}
.line.to {
  stroke: var(--harbour-deep);
  opacity: 1;
}
.line.fro {
  stroke: var(--harbour-deep);
  stroke-dasharray: 5 4;
  opacity: 1;
}
.line.faint {
  opacity: 0.1;
}
.seat {
  cursor: pointer;
  outline: none;
}
.seat circle {
  fill: var(--k-discussion);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.seat rect {
  fill: var(--ember);
}
.seat .hit,
.seat.silent .hit,
.seat.chosen .hit {
  fill: transparent;
  stroke: none;
}
.lead {
  stroke: var(--spine);
  stroke-width: 1;
}
.seat text {
  font: 500 11.5px/1 var(--ui);
  fill: var(--ink-2);
}
.seat.silent circle {
  fill: var(--paper);
  stroke: var(--brick);
  stroke-width: 1.8;
}
.seat.silent text {
  fill: var(--brick);
  font-weight: 650;
}
.seat.staff text {
  fill: var(--ink);
  font-weight: 650;
}
.seat.chosen circle {
  fill: var(--harbour-deep);
}
.seat.chosen text {
  fill: var(--ink);
  font-weight: 700;
}
.seat text.neglected {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.seat:focus-visible circle:not(.hit),
.seat:focus-visible rect {
  stroke: var(--ember);
  stroke-width: 3;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 18px;
  font-size: 0.75rem;
  color: var(--ink-2);
  margin-top: 2px;
}
.circles {
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin-top: 4px;
}
.circles summary {
  cursor: pointer;
  color: var(--harbour);
}
.circles ul {
  list-style: none;
  display: grid;
  gap: 2px;
  margin: 4px 0;
}
.circles li {
  border-left: 2px solid var(--k-discussion);
  padding-left: 8px;
  line-height: 1.45;
}
.legend i {
  display: inline-block;
  width: 24px;
  border-top: 2px solid var(--harbour-deep);
  vertical-align: 3px;
  margin-right: 5px;
}
.legend .fro {
  border-top-style: dashed;
}
.legend .mine {
  border-top: 2px dotted var(--ember);
}
.legend u {
  text-decoration-style: dotted;
  text-underline-offset: 3px;
}
.words {
  font-size: 0.78125rem;
  color: var(--ink-2);
  line-height: 1.5;
  max-height: 4.6em;
  overflow: auto;
}
.words b {
  font-weight: 600;
  color: var(--ink);
}
</style>
