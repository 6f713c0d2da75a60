<script setup lang="ts">
import type { ApexOptions } from 'apexcharts'
import VueApexCharts from 'vue3-apexcharts'
import { lorenz } from '#core/voices/share'

/** How evenly words are shared: the curve of everyone from who said least to who said most, against the even line. */
const props = defineProps<{ words: readonly number[], label: string }>()
const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const points = computed(() => lorenz(props.words).map(([x, y]) => ({ x: Math.round(x * 1000) / 10, y: Math.round(y * 1000) / 10 })))
const options = computed<ApexOptions>(() => ({
  chart: { type: 'area', toolbar: { show: false }, zoom: { enabled: false }, animations: { enabled: false }, fontFamily: token('--ui'), foreColor: token('--ink-2'), nonce: document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content, parentHeightOffset: 0 },
  colors: [token('--ink-3'), token('--harbour')],
  stroke: { width: [1, 2.2], dashArray: [4, 0], curve: 'straight' },
  fill: { type: 'solid', opacity: [0, 0.16] },
  dataLabels: { enabled: false }, legend: { show: false },
  grid: { show: false, padding: { top: -18, bottom: -8, left: 8, right: 10 } },
  xaxis: { type: 'numeric', min: 0, max: 100, tickAmount: 2, labels: { formatter: v => `${Math.round(Number(v))} %`, style: { fontSize: '11px' } }, axisTicks: { show: false }, axisBorder: { color: token('--line') }, tooltip: { enabled: false } },
  yaxis: { min: 0, max: 100, tickAmount: 2, labels: { formatter: (v: number) => `${Math.round(v)} %`, style: { fontSize: '11px' } } },
  tooltip: { theme: 'light', x: { formatter: (v: string | number) => `${Math.round(Number(v))} % of students` }, y: { formatter: (v: number) => `${Math.round(v)} % of words` } },
}))
const series = computed(() => [{ name: 'if all said the same', data: [{ x: 0, y: 0 }, { x: 100, y: 100 }] }, { name: 'as it is', data: points.value }])
</script>

<template>
  <div role="img" :aria-label="label"><VueApexCharts type="area" :height="128" :options="options" :series="series" /></div>
</template>
