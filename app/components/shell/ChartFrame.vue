<script setup lang="ts">
import type { ApexOptions } from 'apexcharts'
import { useAppearance } from '~/composables/shell/useAppearance'

/**
 * A chart in Jovrel's clothes; each kind of chart adds only what is its own. The page does not wait for it: its place is
 * kept, and the drawing code is fetched when one is shown. Its figures stand beside it as a table or a sentence, too.
 */
const props = defineProps<{
  type: 'bar' | 'line' | 'area'
  series: ApexOptions['series']
  label: string
  height: number
  own: (token: (name: string) => string) => ApexOptions
}>()
const Chart = defineAsyncComponent(() => import('vue3-apexcharts'))
const { chosen } = useAppearance()
const painted = ref(0) // charts hold colours, not their names: they are told again when day turns to night
watch(
  chosen,
  () => {
    painted.value++
  },
  { flush: 'post' },
)
onMounted(() => {
  const night = matchMedia('(prefers-color-scheme: dark)')
  const again = () => {
    painted.value++
  }
  night.addEventListener('change', again)
  onBeforeUnmount(() => night.removeEventListener('change', again))
})

const small = { fontSize: '12px' }
function clothes(token: (name: string) => string): ApexOptions {
  return {
    chart: {
      type: props.type,
      toolbar: { show: false },
      zoom: { enabled: false },
      animations: { enabled: false },
      fontFamily: token('--ui'),
      foreColor: token('--ink-2'),
      nonce: document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content,
      parentHeightOffset: 0,
    },
    colors: [token('--harbour')],
    dataLabels: { enabled: false },
    legend: { show: false },
    grid: {
      borderColor: token('--line-soft'),
      strokeDashArray: 0,
      padding: { top: 0, bottom: 0, left: 4, right: 4 },
    },
    xaxis: { axisBorder: { color: token('--line') }, axisTicks: { show: false }, labels: { style: small } },
    yaxis: { min: 0, labels: { style: small } },
    tooltip: { cssClass: 'chart-tip' },
    states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
  }
}
/** What a kind of chart says goes before what all of them wear, group by group. */
function dressed(): ApexOptions {
  const style = getComputedStyle(document.documentElement)
  const token = (name: string) => style.getPropertyValue(name).trim()
  const [all, own] = [clothes(token), props.own(token)] as Array<Record<string, unknown>>
  const isGroup = (value: unknown): value is object =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
  return Object.fromEntries(
    [...new Set([...Object.keys(all!), ...Object.keys(own!)])].map(k => [
      k,
      isGroup(all![k]) && isGroup(own![k]) ? { ...all![k], ...own![k] } : (own![k] ?? all![k]),
    ]),
  )
}
const options = computed(() => {
  void painted.value
  return dressed()
})
</script>

<template>
  <div class="chart" role="img" :aria-label="label" :style="{ minHeight: `${height}px` }">
    <ClientOnly><Chart :type="type" :height="height" :options="options" :series="series" /></ClientOnly>
  </div>
</template>

<style>
.apexcharts-tooltip.apexcharts-theme-light.chart-tip,
.chart .apexcharts-tooltip {
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--line);
  box-shadow: none;
  font: 500 0.75rem/1.5 var(--ui);
}
.chart .apexcharts-tooltip .apexcharts-tooltip-title {
  background: var(--sunken);
  border-bottom: 1px solid var(--line-soft);
}
</style>
