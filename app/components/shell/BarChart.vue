<script setup lang="ts">
import ChartFrame from './ChartFrame.vue'
import { wholeScale } from './wholeScale'

/** Bars of what is counted, standing or lying. */
const props = defineProps<{
  bars: ReadonlyArray<{ readonly label: string; readonly n: number }>
  label: string
  height?: number
  horizontal?: boolean
  unit: string
}>()
const series = computed(() => [{ name: props.label, data: props.bars.map(b => b.n) }])
const scale = computed(() => wholeScale(Math.max(0, ...props.bars.map(b => b.n))))
const counted = (v: number) => Math.round(v).toLocaleString('en')
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
          labels: {
            style: { fontSize: '12px' },
            ...(horizontal && { formatter: (v: string) => counted(Number(v)) }),
          },
          ...(horizontal && { stepSize: scale.step }),
        },
        yaxis: {
          labels: {
            style: { fontSize: '12px' },
            maxWidth: 240,
            formatter: (v: number) => (horizontal ? String(v) : counted(v)),
          },
          min: 0,
          max: scale.max,
          stepSize: scale.step,
        },
        tooltip: { y: { formatter: (v: number) => `${v.toLocaleString('en')} ${unit}` } },
      })
    "
  />
</template>
