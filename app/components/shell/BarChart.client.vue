<script setup lang="ts">
import type { ApexOptions } from 'apexcharts'
import VueApexCharts from 'vue3-apexcharts'

/** Bars in Jovrel's clothes. What they say stands beside them as a table, too: a chart is never the only way to a figure. */
const props = defineProps<{ bars: ReadonlyArray<{ readonly label: string, readonly n: number }>, label: string, height?: number, horizontal?: boolean, unit: string }>()
const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const options = computed<ApexOptions>(() => ({
  chart: { type: 'bar', toolbar: { show: false }, animations: { enabled: false }, fontFamily: token('--ui'), foreColor: token('--ink-2'), nonce: document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content, parentHeightOffset: 0 },
  colors: [token('--harbour')],
  plotOptions: { bar: { horizontal: props.horizontal ?? false, columnWidth: '78%', barHeight: '62%', borderRadius: 2 } },
  dataLabels: { enabled: false },
  legend: { show: false },
  grid: { borderColor: token('--line-soft'), strokeDashArray: 0, padding: { top: 0, bottom: 0, left: 4, right: 4 } },
  xaxis: { categories: props.bars.map(b => b.label), axisBorder: { color: token('--line') }, axisTicks: { show: false }, labels: { style: { fontSize: '12px' } } },
  yaxis: { labels: { style: { fontSize: '12px' }, maxWidth: 240, formatter: (v: number) => props.horizontal ? String(v) : String(Math.round(v)) }, min: 0, forceNiceScale: true, decimalsInFloat: 0 },
  tooltip: { theme: 'light', y: { formatter: (v: number) => `${v} ${props.unit}` } },
  states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
}))
const series = computed(() => [{ name: props.label, data: props.bars.map(b => b.n) }])
</script>

<template>
  <div class="chart" role="img" :aria-label="label"><VueApexCharts type="bar" :height="height ?? 220" :options="options" :series="series" /></div>
</template>
