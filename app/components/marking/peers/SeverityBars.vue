<script setup lang="ts">
import type { PeerPerson } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'

/** Below a table of readers: how far above or below the others each marks, the furthest by name. */
const props = defineProps<{
  readers: readonly PeerPerson[]
  /** By reader, in hundredths of a point above (+) or below (−) the others' mean. */
  severity: ReadonlyMap<string, number>
  left: (reader: number) => number
  /** Of a column, and where the first begins; in pixels. */
  column: number
  start: number
  nameOf: (id: string) => string
}>()
const BASE = 16 // pixels from the top
const TALLEST = 18 // pixels
const WIDTH = 6 // pixels of a bar
const EVEN = 5 // hundredths of a point that show as none
const LEAST_SCALE = 100 // hundredths of a point that fill a bar at least
const largest = computed(() => Math.max(LEAST_SCALE, ...[...props.severity.values()].map(Math.abs)))
const furthest = computed(
  () => [...props.severity].sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]))[0] ?? null,
)
const bars = computed(() =>
  props.readers.flatMap((reader, i) => {
    const by = props.severity.get(reader.id)
    if (by === undefined) return []
    const height = (Math.abs(by) / largest.value) * TALLEST
    return [
      {
        id: reader.id,
        x: props.left(i) + props.column / 2 - WIDTH / 2,
        y: by > 0 ? BASE - height : BASE,
        height: Math.max(0.5, height),
        isFurthest: furthest.value?.[0] === reader.id,
        title: `${props.nameOf(reader.id)}: ${tenth(by)}`,
      },
    ]
  }),
)
const label = computed(() => {
  if (!furthest.value || Math.abs(furthest.value[1]) < EVEN) return null
  const [id, by] = furthest.value
  const at = props.readers.findIndex(r => r.id === id)
  if (at < 0) return null
  const name = props.nameOf(id)
  const short = /^Student \d+$/.test(name) ? name : name.split(' ').at(-1)
  return { x: props.left(at) - 2, text: `${short} ${by > 0 ? '+' : '−'}${tenth(Math.abs(by))}` }
})
</script>

<template>
  <g>
    <text class="name" x="10" y="9">marks high</text>
    <text class="name" x="10" y="28">marks low</text>
    <line class="base" :x1="start" :x2="left(readers.length)" :y1="BASE" :y2="BASE" />
    <rect
      v-for="b in bars"
      :key="b.id"
      class="bar"
      :class="{ much: b.isFurthest }"
      :x="b.x"
      :y="b.y"
      :width="WIDTH"
      :height="b.height"
    >
      <title>{{ b.title }}</title>
    </rect>
    <text v-if="label" class="much-label" :x="label.x" y="44" text-anchor="end">{{ label.text }}</text>
  </g>
</template>

<style scoped>
.name {
  font: 400 0.75rem/1 var(--ui);
  fill: var(--ink-2);
}
.base {
  stroke: var(--spine);
}
.bar {
  fill: var(--ink-3);
}
.bar.much {
  fill: var(--brick);
}
.much-label {
  font: 650 0.75rem/1 var(--ui);
  fill: var(--brick);
}
</style>
