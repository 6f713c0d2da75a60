<script setup lang="ts">
import type { ApexOptions } from 'apexcharts'
import VueApexCharts from 'vue3-apexcharts'

/** One student's words week by week, beside what is usual. The figures stand beneath as a table, too. */
const props = defineProps<{ weeks: ReadonlyArray<{ readonly label: string, readonly words: number, readonly typicalWords: number }>, name: string }>()
const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const options = computed<ApexOptions>(() => ({
  chart: { type: 'line', toolbar: { show: false }, zoom: { enabled: false }, animations: { enabled: false }, fontFamily: token('--ui'), foreColor: token('--ink-2'), nonce: document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content, parentHeightOffset: 0 },
  colors: [token('--harbour'), token('--ember')],
  stroke: { width: [0, 2], dashArray: [0, 4], curve: 'straight' },
  plotOptions: { bar: { columnWidth: '58%', borderRadius: 2 } },
  markers: { size: [0, 3] },
  dataLabels: { enabled: false }, legend: { show: true, position: 'top', horizontalAlign: 'right', fontSize: '12px', markers: { size: 5 } },
  grid: { borderColor: token('--line-soft'), padding: { top: -14, bottom: 0, left: 4, right: 4 } },
  xaxis: { categories: props.weeks.map(w => w.label), axisBorder: { color: token('--line') }, axisTicks: { show: false }, labels: { style: { fontSize: '12px' } } },
  yaxis: { min: 0, forceNiceScale: true, decimalsInFloat: 0, labels: { style: { fontSize: '12px' }, formatter: (v: number) => String(Math.round(v)) } },
  tooltip: { theme: 'light', shared: true, intersect: false, y: { formatter: (v: number) => `${Math.round(v)} words` } },
}))
const series = computed(() => [{ name: props.name, type: 'column', data: props.weeks.map(w => w.words) }, { name: 'usual', type: 'line', data: props.weeks.map(w => Math.round(w.typicalWords)) }])
</script>

<template>
  <div role="img" :aria-label="`Words of ${name} by week, beside what is usual`"><VueApexCharts type="line" :height="190" :options="options" :series="series" /></div>
</template>
