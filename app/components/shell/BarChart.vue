<script setup lang="ts">
import ChartFrame from './ChartFrame.vue'

/** Bars, standing or lying. */
const props = defineProps<{
  bars: ReadonlyArray<{ readonly label: string; readonly n: number }>
  label: string
  height?: number
  horizontal?: boolean
  unit: string
}>()
const series = computed(() => [{ name: props.label, data: props.bars.map(b => b.n) }])
const categories = computed(() => props.bars.map(b => b.label))
</script>

<template>
  <ChartFrame
    type="bar"
    :label="label"
    :height="height ?? 220"
    :series="series"
    :own="
      token => ({
        plotOptions: {
          bar: { horizontal: horizontal ?? false, columnWidth: '78%', barHeight: '62%', borderRadius: 2 },
        },
        xaxis: {
          categories,
          axisBorder: { color: token('--line') },
          axisTicks: { show: false },
          labels: { style: { fontSize: '12px' } },
        },
        yaxis: {
          labels: {
            style: { fontSize: '12px' },
            maxWidth: 240,
            formatter: (v: number) => (horizontal ? String(v) : Math.round(v).toLocaleString('en')),
          },
          min: 0,
          forceNiceScale: true,
          decimalsInFloat: 0,
        },
        tooltip: { y: { formatter: (v: number) => `${v.toLocaleString('en')} ${unit}` } },
      })
    "
  />
</template>
