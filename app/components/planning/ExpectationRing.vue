<script setup lang="ts">
import { ringArcs } from '~/composables/planning/ringArcs'

const props = withDefaults(
  defineProps<{
    /** One entry for each part asked for: done or not. */
    parts: readonly boolean[]
    size?: number
    /** What stands in the middle: how many are to go. */
    figure?: boolean
  }>(),
  { size: 34, figure: false },
)
const left = computed(() => props.parts.filter(done => !done).length)
const arcs = computed(() => ringArcs(props.parts.length))
const width = computed(() => (props.size > 24 ? 4 : 5))
</script>

<template>
  <svg
    :width="size"
    :height="size"
    viewBox="0 0 34 34"
    role="img"
    :aria-label="`${parts.length - left} of ${parts.length} parts done`"
  >
    <circle v-if="left === parts.length" cx="17" cy="17" r="13.5" class="none" />
    <g v-else fill="none" :stroke-width="width">
      <path v-for="(arc, i) in arcs" :key="i" :d="arc" :class="parts[i] ? 'done' : 'open'" />
    </g>
    <text v-if="figure && left > 0" x="17" y="21.4" text-anchor="middle">{{ left }}</text>
    <path v-if="figure && left === 0" d="M11.5 17.4l3.8 3.9 7-8" class="tick" />
  </svg>
</template>

<style scoped>
svg {
  flex: none;
  display: block;
}
.none {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 1.5;
  stroke-dasharray: 2.5 3.2;
}
.done {
  stroke: var(--harbour);
}
.open {
  stroke: var(--line);
}
.tick {
  fill: none;
  stroke: var(--moss);
  stroke-width: 2.4;
}
text {
  font: 650 12.5px var(--ui);
  fill: var(--ink);
}
@media (forced-colors: active) {
  svg {
    background: var(--sheet);
    border-radius: 50%;
    forced-color-adjust: none;
  }
}
</style>
