<script setup lang="ts">
import ChartFrame from '../shell/ChartFrame.vue'

/** One student's words week by week, beside what is usual. */
const props = defineProps<{
  weeks: ReadonlyArray<{ readonly label: string; readonly words: number; readonly typicalWords: number }>
  name: string
}>()
const series = computed(() => [
  { name: props.name, type: 'column', data: props.weeks.map(w => w.words) },
  { name: 'usual', type: 'line', data: props.weeks.map(w => Math.round(w.typicalWords)) },
])
const categories = computed(() => props.weeks.map(w => w.label))
</script>

<template>
  <ChartFrame
    type="line"
    :label="`Words of ${name} by week, beside what is usual`"
    :height="190"
    :series="series"
    :own="
      token => ({
        colors: [token('--harbour'), token('--ember')],
        stroke: { width: [0, 2], dashArray: [0, 4], curve: 'straight' },
        plotOptions: { bar: { columnWidth: '58%', borderRadius: 2 } },
        markers: { size: [0, 3] },
        legend: {
          show: true,
          position: 'top',
          horizontalAlign: 'right',
          fontSize: '12px',
          markers: { size: 5 },
        },
        grid: { borderColor: token('--line-soft'), padding: { top: -14, bottom: 0, left: 4, right: 4 } },
        xaxis: {
          categories,
          axisBorder: { color: token('--line') },
          axisTicks: { show: false },
          labels: { style: { fontSize: '12px' } },
        },
        yaxis: {
          min: 0,
          forceNiceScale: true,
          decimalsInFloat: 0,
          labels: { style: { fontSize: '12px' }, formatter: (v: number) => String(Math.round(v)) },
        },
        tooltip: {
          shared: true,
          intersect: false,
          y: { formatter: (v: number) => `${Math.round(v)} words` },
        },
      })
    "
  />
</template>
