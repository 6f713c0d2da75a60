<script setup lang="ts">
import type { Consensus } from '#core/marking/peers/consensus'
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation } from '#shared/marking/peers'
import { listed } from '#core/language'
import { tenth } from '~/composables/marking/peerWords'

/**
 * Readers' scores of one work, criterion by criterion, on one scale: each reader a disc, the mean, the
 * corrected figure, and the marker's own.
 */
const props = defineProps<{
  criteria: RubricView['criteria']
  reviews: readonly PeerAllocation[]
  flagged: ReadonlySet<string>
  found: ReturnType<Consensus['authors']['get']>
  own: Readonly<Record<string, number>>
  initialOf: (id: string) => string
  nameOf: (id: string) => string
}>()
const box = ref<HTMLElement | null>(null)
const width = ref(520)
const LABEL = 116
const RIGHT = 38
const ROW = 37
const most = computed(() => Math.max(...props.criteria.map(c => c.max), 100))
const scale = computed(() => Math.max(120, width.value - LABEL - RIGHT))
const x = (points: number, max: number) => LABEL + (points / max) * scale.value
const sameScale = computed(() => props.criteria.every(c => c.max === most.value))
const marks = computed(() =>
  Array.from({ length: Math.floor(most.value / 100) + 1 }, (_, i) => i).filter(
    (_, i, all) => all.length <= 11 || i % Math.ceil(all.length / 10) === 0,
  ),
)
/** Readers who gave the same stand in one disc. */
function discs(id: string) {
  const byPoints = new Map<number, PeerAllocation[]>()
  for (const r of props.reviews)
    if (r.points[id] !== undefined) byPoints.set(r.points[id]!, [...(byPoints.get(r.points[id]!) ?? []), r])
  return [...byPoints].map(([points, list]) => ({
    points,
    list,
    hot: list.every(a => props.flagged.has(a.id)),
    out: list.every(a => a.setAside !== null),
    mixed: list.some(a => props.flagged.has(a.id) || a.setAside !== null),
    w: 18 + (list.length - 1) * 12,
  }))
}
const sentence = (id: string) =>
  discs(id)
    .map(d => `${listed(d.list.map(a => props.nameOf(a.reviewerId)))} ${tenth(d.points)}`)
    .join(', ')
onMounted(() => {
  const watcher = new ResizeObserver(([e]) => {
    width.value = e!.contentRect.width
  })
  watcher.observe(box.value!)
  onBeforeUnmount(() => watcher.disconnect())
})
function correctedWords(criterionId: string) {
  const corrected = props.found?.criteria.get(criterionId)?.corrected
  return corrected == null ? 'none' : tenth(corrected)
}
</script>

<template>
  <div ref="box" class="dots">
    <svg
      :width="width"
      :height="criteria.length * ROW + 22"
      role="img"
      :aria-label="
        criteria.map(c => `${c.title}: ${sentence(c.id)}; corrected ${correctedWords(c.id)}`).join('. ')
      "
    >
      <g v-if="sameScale">
        <line
          v-for="m in marks"
          :key="m"
          class="grid"
          :x1="x(m * 100, most)"
          :x2="x(m * 100, most)"
          y1="0"
          :y2="criteria.length * ROW"
        />
        <text
          v-for="m in marks"
          :key="`t${m}`"
          class="mark"
          :x="x(m * 100, most)"
          :y="criteria.length * ROW + 16"
          text-anchor="middle"
        >
          {{ m }}
        </text>
      </g>
      <g v-for="(c, i) in criteria" :key="c.id" :transform="`translate(0 ${i * ROW})`">
        <line v-if="i > 0" class="rule" x1="0" :x2="width" y1="0" y2="0" />
        <text class="title" x="0" :y="ROW / 2 + 4">
          {{ c.title.length > 17 ? `${c.title.slice(0, 16)}…` : c.title }}
          <title>{{ c.title }}</title>
        </text>
        <line class="axis" :x1="LABEL" :x2="LABEL + scale" :y1="ROW / 2" :y2="ROW / 2" />
        <line
          v-if="found?.criteria.get(c.id)?.mean != null"
          class="mean"
          :x1="x(found.criteria.get(c.id)!.mean!, c.max)"
          :x2="x(found.criteria.get(c.id)!.mean!, c.max)"
          y1="4"
          :y2="ROW - 4"
        />
        <g
          v-for="d in discs(c.id)"
          :key="d.points"
          :transform="`translate(${x(d.points, c.max)} ${ROW / 2})`"
        >
          <title>{{ d.list.map(a => nameOf(a.reviewerId)).join(', ') }}: {{ tenth(d.points) }}</title>
          <rect
            class="disc"
            :class="{ hot: d.hot || (d.mixed && !d.out), out: d.out }"
            :x="-d.w / 2"
            y="-9"
            :width="d.w"
            height="18"
            rx="9"
          />
          <text
            v-for="(a, k) in d.list"
            :key="a.id"
            class="letter"
            :class="{ hot: d.hot || d.mixed }"
            :x="(k - (d.list.length - 1) / 2) * 12"
            y="3.5"
            text-anchor="middle"
          >
            {{ initialOf(a.reviewerId) }}
          </text>
        </g>
        <path
          v-if="found?.criteria.get(c.id)?.corrected != null"
          class="corrected"
          :transform="`translate(${x(found.criteria.get(c.id)!.corrected!, c.max)} ${ROW - 10})`"
          d="M0 0L5.5 8.5H-5.5Z"
        />
        <path
          v-if="own[c.id] !== undefined"
          class="own"
          :transform="`translate(${x(own[c.id]!, c.max)} 1.5)`"
          d="M0 8.5L5.5 0H-5.5Z"
        />
        <text
          v-if="found?.criteria.get(c.id)?.corrected != null"
          class="figure"
          :x="width"
          :y="ROW / 2 + 4"
          text-anchor="end"
        >
          {{ tenth(found.criteria.get(c.id)!.corrected!) }}
        </text>
      </g>
    </svg>
    <p class="key">
      <span><i class="m" />readers’ mean</span
      ><span><i class="t" />corrected for severity (figure at right)</span
      ><span><i class="o" />your mark, if any</span>
    </p>
  </div>
</template>

<style scoped>
svg {
  display: block;
  overflow: visible;
}
.title {
  font: 600 0.8125rem/1 var(--ui);
  fill: var(--ink);
}
.grid,
.rule {
  stroke: var(--line-soft);
}
.axis {
  stroke: var(--line);
}
.mark {
  font: 400 0.75rem/1 var(--ui);
  fill: var(--ink-3);
}
.mean {
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-dasharray: 3 2.5;
}
.disc {
  fill: var(--k-review);
}
.disc.hot {
  fill: var(--sheet);
  stroke: var(--brick);
  stroke-width: 1.6;
}
.disc.out {
  fill: var(--sheet);
  stroke: var(--spine);
  stroke-width: 1.3;
  stroke-dasharray: 3 2;
}
.letter {
  font: 650 0.6875rem/1 var(--ui);
  fill: var(--sheet);
}
.letter.hot {
  fill: var(--brick);
}
.disc.out ~ .letter {
  fill: var(--ink-3);
}
.corrected {
  fill: var(--harbour);
}
.own {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.8;
}
.figure {
  font: 650 0.8125rem/1 var(--ui);
  fill: var(--harbour);
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  font-size: 0.75rem;
  color: var(--ink-2);
  margin-top: 4px;
}
.key span {
  display: inline-flex;
  gap: 7px;
  align-items: center;
}
.m {
  border-left: 1.5px dashed var(--ink-2);
  height: 13px;
}
.t {
  border: 5px solid transparent;
  border-bottom: 8px solid var(--harbour);
  border-top: 0;
}
.o {
  width: 9px;
  height: 8px;
  background: var(--ember);
  clip-path: polygon(0 0, 100% 0, 50% 100%);
}
</style>
