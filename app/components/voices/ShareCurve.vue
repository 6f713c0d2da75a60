<script setup lang="ts">
import { lorenz } from '#core/voices/share'
import ChartFrame from '../shell/ChartFrame.vue'

/** How evenly words are shared: the curve of everyone from who said least to who said most, against the even line. */
const props = defineProps<{ words: readonly number[]; label: string }>()
const points = computed(() =>
  lorenz(props.words).map(([x, y]) => ({ x: Math.round(x * 1000) / 10, y: Math.round(y * 1000) / 10 })),
)
const series = computed(() => [
  {
    name: 'if all said the same',
    data: [
      { x: 0, y: 0 },
      { x: 100, y: 100 },
    ],
  },
  { name: 'as it is', data: points.value },
])
const percent = (v: string | number) => `${Math.round(Number(v))} %`
</script>

<template>
  <ChartFrame
    type="area"
    :label="label"
    :height="128"
    :series="series"
    :own="
      token => ({
        colors: [token('--ink-3'), token('--harbour')],
        stroke: { width: [1, 2.2], dashArray: [4, 0], curve: 'straight' },
        fill: { type: 'solid', opacity: [0, 0.16] },
        grid: { show: false, padding: { top: -18, bottom: -8, left: 8, right: 10 } },
        xaxis: {
          type: 'numeric',
          min: 0,
          max: 100,
          tickAmount: 2,
          labels: { formatter: percent, style: { fontSize: '11px' } },
          axisTicks: { show: false },
          axisBorder: { color: token('--line') },
          tooltip: { enabled: false },
        },
        yaxis: {
          min: 0,
          max: 100,
          tickAmount: 2,
          labels: { formatter: percent, style: { fontSize: '11px' } },
        },
        tooltip: {
          x: { formatter: (v: string | number) => `${percent(v)} of students` },
          y: { formatter: (v: number) => `${percent(v)} of words` },
        },
      })
    "
  />
</template>
