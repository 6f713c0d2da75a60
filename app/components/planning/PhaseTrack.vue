<script setup lang="ts">
import type { ActivityView } from '#shared/contributing/activity'
import { capital } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'

const props = defineProps<{ phases: ActivityView['phases']; ownAt: string | null }>()
const { day, dayTime, now } = useTimes()
const WIDTH = 520
const INSET = 8
/** Stops of the way: phases stand where they begin, spread so that no two names touch. */
const stops = computed(() => {
  const list = props.phases.map((p, i) => ({
    ...p,
    done: Date.parse(p.endsAt) < now.value.getTime(),
    current: Date.parse(p.startsAt) <= now.value.getTime() && now.value.getTime() <= Date.parse(p.endsAt),
    x: 0,
    i,
  }))
  const n = list.length - 1
  return list.map(s => ({ ...s, x: INSET + (n > 0 ? s.i / n : 0) * (WIDTH - 2 * INSET) }))
})
const today = computed(() => {
  const at = now.value.getTime()
  const i = stops.value.findIndex(s => s.current)
  const stop = stops.value[i]
  if (!stop) return null
  const next = stops.value[i + 1]?.x ?? WIDTH - INSET
  const share = (at - Date.parse(stop.startsAt)) / (Date.parse(stop.endsAt) - Date.parse(stop.startsAt))
  return stop.x + share * (next - stop.x)
})
const reached = computed(() => {
  const coveredTo = () => {
    if (stops.value.every(s => s.done)) return WIDTH - INSET
    if (stops.value[0]?.done) return stops.value.findLast(s => s.done)!.x
    return INSET
  }
  return today.value ?? coveredTo()
})
const under = (s: (typeof stops.value)[number]) => {
  if (s.name === 'write' && props.ownAt) return `yours ${day(props.ownAt)}`
  if (s.name === 'mark') return `from ${day(s.startsAt)}`
  if (s.name === 'return') return `by ${day(s.endsAt)}`
  return `until ${dayTime(s.endsAt)}`
}
const isLast = (i: number) => i > 0 && i === stops.value.length - 1
const anchor = (i: number) => (isLast(i) ? 'end' : 'start')
</script>

<template>
  <svg
    class="track"
    viewBox="0 2 520 84"
    role="img"
    :aria-label="stops.map(s => `${s.name}, ${under(s)}${s.current ? ', now' : ''}`).join('; ')"
  >
    <path :d="`M${INSET} 32H${WIDTH - INSET}`" class="far" />
    <path :d="`M${INSET} 32H${reached}`" class="gone" />
    <template v-if="today !== null">
      <path :d="`M${today} 25v14`" class="tick" />
      <text :x="Math.min(WIDTH - 40, Math.max(40, today))" y="18" text-anchor="middle">
        today, {{ day(now).split(' ')[0] }}
      </text>
    </template>
    <g
      v-for="s in stops"
      :key="s.name"
      :class="{
        done: s.done || (s.name === 'write' && ownAt),
        current: s.current && !(s.name === 'write' && ownAt),
      }"
    >
      <circle :cx="s.x" cy="32" r="6.4" />
      <path
        v-if="s.done || (s.name === 'write' && ownAt)"
        :d="`M${s.x - 3.2} 32.2l2.3 2.4 4-4.8`"
        class="ok"
      />
      <text class="w" :x="isLast(s.i) ? s.x + 7 : s.x - 7" y="58" :text-anchor="anchor(s.i)">
        {{ capital(s.name) }}
      </text>
      <text :x="isLast(s.i) ? s.x + 7 : s.x - 7" y="75" :text-anchor="anchor(s.i)">{{ under(s) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.track {
  width: 100%;
  max-width: 520px;
  height: auto;
  display: block;
}
text {
  font: 500 12px var(--ui);
  fill: var(--ink-2);
}
.w {
  font: 650 13px var(--ui);
  fill: var(--ink);
}
.far {
  stroke: var(--spine);
  stroke-width: 2;
}
.gone {
  stroke: var(--harbour);
  stroke-width: 2;
}
.tick {
  stroke: var(--ember);
  stroke-width: 2;
}
circle {
  fill: var(--paper);
  stroke: var(--ink-3);
  stroke-width: 1.6;
}
.done circle {
  fill: var(--harbour);
  stroke: var(--harbour);
}
.current circle {
  fill: var(--sheet);
  stroke: var(--ember);
  stroke-width: 2.6;
}
.ok {
  fill: none;
  stroke: var(--on-harbour);
  stroke-width: 1.6;
}
g:not(.done, .current) .w {
  fill: var(--ink-3);
}
</style>
