<script setup lang="ts">
import type { PeerAllocation, PeerPerson, PeerWork } from '#shared/marking/peers'
import AllocationKey from './AllocationKey.vue'
import SeverityBars from './SeverityBars.vue'

/**
 * Who reviews whom: works down, readers across. What is owed and not opened can be dragged to another reader or another
 * work; with the keyboard one walks the table and adds or takes away with Enter.
 */
const props = defineProps<{
  works: readonly PeerWork[]
  readers: readonly PeerPerson[]
  allocations: readonly PeerAllocation[]
  flagged: ReadonlySet<string>
  severity: ReadonlyMap<string, number>
  current: string | null // the work at hand
  nameOf: (id: string) => string
  mayMove: boolean
}>()
const emit = defineEmits<{
  choose: [workId: string]
  move: [
    add: Array<{ reviewerId: string; entryId: string }>,
    remove: Array<{ reviewerId: string; entryId: string }>,
  ]
}>()
const ROW = 15.5
const LABEL = 96
const width = ref(240)
const box = ref<HTMLElement | null>(null)
const column = computed(() =>
  Math.max(11, Math.min(16, (width.value - LABEL) / Math.max(1, props.readers.length))),
)
const at = computed(() => new Map(props.readers.map((p, i) => [p.id, i])))
const rowOf = computed(() => new Map(props.works.map((w, i) => [w.id, i])))
const cell = (readerId: string, workId: string) =>
  props.allocations.find(a => a.reviewerId === readerId && a.entryId === workId) ?? null
const isOwn = (r: number, w: number) => props.works[w]!.authorIds.includes(props.readers[r]!.id)
const initials = computed(() => props.readers.map(p => shortOf(p)))
const shortOf = (p: PeerPerson) => {
  const n = props.nameOf(p.id)
  return /^Student \d+$/.test(n) ? n.slice(8) : (p.familyName[0] ?? '')
}
const labelOf = (w: PeerWork) => {
  const p = props.readers.find(r => r.id === w.authorId)
  const n = props.nameOf(w.authorId)
  return /^Student \d+$/.test(n) ? n : (p?.familyName ?? n)
}
const readersOfCurrent = computed(
  () => new Set(props.allocations.filter(a => a.entryId === props.current).map(a => a.reviewerId)),
)
const movable = (a: PeerAllocation | null) =>
  props.mayMove && a !== null && a.state === 'owed' && a.openedAt === null

// the cursor, for keys
const cursor = reactive({ r: 0, w: 0, on: false })
watch(
  () => props.current,
  id => {
    if (id && rowOf.value.has(id)) cursor.w = rowOf.value.get(id)!
  },
)
const said = computed(() => {
  const [r, w] = [props.readers[cursor.r], props.works[cursor.w]]
  if (!r || !w) return ''
  const a = cell(r.id, w.id)
  const findWhat = () => {
    if (isOwn(cursor.r, cursor.w)) return 'own work'
    if (!a) return 'not allocated; Enter allocates'
    if (a.setAside !== null) return 'set aside'
    if (a.state === 'in') return props.flagged.has(a.id) ? 'done, flagged' : 'done'
    if (a.openedAt) return 'owed, opened'
    return 'owed; Enter takes it away'
  }
  const what = findWhat()
  return `${props.nameOf(r.id)} on ${props.nameOf(w.authorId)}: ${what}`
})
function key(event: KeyboardEvent) {
  const moves: Record<string, [number, number]> = {
    ArrowRight: [1, 0],
    ArrowLeft: [-1, 0],
    ArrowDown: [0, 1],
    ArrowUp: [0, -1],
  }
  const by = moves[event.key]
  if (by) {
    event.preventDefault()
    event.stopPropagation()
    cursor.r = Math.min(props.readers.length - 1, Math.max(0, cursor.r + by[0]))
    cursor.w = Math.min(props.works.length - 1, Math.max(0, cursor.w + by[1]))
  }
  if (event.key === 'Enter') {
    event.preventDefault()
    event.stopPropagation()
    toggle(cursor.r, cursor.w)
  }
}
function toggle(r: number, w: number) {
  const [reader, work] = [props.readers[r]!, props.works[w]!]
  const a = cell(reader.id, work.id)
  if (a === null && props.mayMove && !isOwn(r, w))
    emit('move', [{ reviewerId: reader.id, entryId: work.id }], [])
  else if (movable(a)) emit('move', [], [{ reviewerId: reader.id, entryId: work.id }])
  else emit('choose', work.id)
}

// dragging: to another reader of the same work, or to another work of the same reader
const drag = ref<{ readonly a: PeerAllocation; r: number; w: number; moved: boolean } | null>(null)
function cellAt(event: PointerEvent): { r: number; w: number } | null {
  const frame = box.value!.querySelector('svg')!.getBoundingClientRect()
  const r = Math.floor((event.clientX - frame.left - LABEL) / column.value)
  const w = Math.floor((event.clientY - frame.top - 18) / ROW)
  return r >= 0 && r < props.readers.length && w >= 0 && w < props.works.length ? { r, w } : null
}
function down(event: PointerEvent) {
  const p = cellAt(event)
  if (!p) return
  Object.assign(cursor, p)
  const a = cell(props.readers[p.r]!.id, props.works[p.w]!.id)
  if (!movable(a)) return
  drag.value = { a: a!, ...p, moved: false }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function moveTo(event: PointerEvent) {
  const p = drag.value && cellAt(event)
  if (!drag.value || !p) return
  if (p.r !== drag.value.r || p.w !== drag.value.w) drag.value = { ...drag.value, ...p, moved: true }
}
function up(event: PointerEvent) {
  const held = drag.value
  drag.value = null
  const p = cellAt(event)
  if (!held?.moved || !p) {
    if (p) emit('choose', props.works[p.w]!.id)
    return
  }
  const to = { reviewerId: props.readers[p.r]!.id, entryId: props.works[p.w]!.id }
  const from = { reviewerId: held.a.reviewerId, entryId: held.a.entryId! }
  if (
    (to.reviewerId === from.reviewerId && to.entryId === from.entryId) ||
    cell(to.reviewerId, to.entryId) ||
    isOwn(p.r, p.w)
  )
    return
  emit('move', [to], [from])
}
onMounted(() => {
  const watcher = new ResizeObserver(([e]) => {
    width.value = e!.contentRect.width
  })
  watcher.observe(box.value!)
  onBeforeUnmount(() => watcher.disconnect())
})
const top = (w: number) => 18 + w * ROW
const left = (r: number) => LABEL + r * column.value
</script>

<template>
  <div ref="box" class="matrix">
    <p class="head"><b>Who reviews whom</b><span>authors down, readers across</span></p>
    <div class="scroll">
      <svg
        :width="LABEL + readers.length * column"
        :height="top(works.length) + 64"
        role="application"
        aria-roledescription="grid of readers and works"
        tabindex="0"
        :aria-label="`Who reviews whom. ${said}`"
        @keydown="key"
        @focus="cursor.on = true"
        @blur="cursor.on = false"
        @pointerdown="down"
        @pointermove="moveTo"
        @pointerup="up"
        @pointercancel="drag = null"
      >
        <rect
          v-for="p in readers.filter(x => readersOfCurrent.has(x.id))"
          :key="`c${p.id}`"
          class="col"
          :x="left(at.get(p.id)!)"
          :y="18"
          :width="column"
          :height="works.length * ROW"
        />
        <rect
          v-if="current && rowOf.has(current)"
          class="now"
          x="0"
          :y="top(rowOf.get(current)!)"
          :width="LABEL + readers.length * column"
          :height="ROW"
        />
        <rect
          v-if="current && rowOf.has(current)"
          class="tick"
          x="0"
          :y="top(rowOf.get(current)!)"
          width="3"
          :height="ROW"
        />
        <text
          v-for="(p, r) in readers"
          :key="p.id"
          class="initial"
          :class="{ hot: readersOfCurrent.has(p.id) }"
          :x="left(r) + column / 2"
          y="12"
          text-anchor="middle"
        >
          <title>{{ nameOf(p.id) }}</title>
          {{ initials[r] }}
        </text>
        <g v-for="(w, i) in works" :key="w.id">
          <line
            v-if="i > 0 && i % 5 === 0"
            class="rule"
            :x1="0"
            :x2="LABEL + readers.length * column"
            :y1="top(i)"
            :y2="top(i)"
          />
          <text
            class="name"
            :class="{ on: w.id === current, gone: w.lateMinutes > 0 }"
            x="10"
            :y="top(i) + 11.5"
          >
            <title>{{ nameOf(w.authorId) }}{{ w.lateMinutes > 0 ? ', handed in late' : '' }}</title>
            {{ labelOf(w).slice(0, 14) }}
          </text>
          <line
            v-for="id in w.authorIds.filter(x => at.has(x))"
            :key="id"
            class="own"
            :x1="left(at.get(id)!) + column / 2 - 2.5"
            :x2="left(at.get(id)!) + column / 2 + 2.5"
            :y1="top(i) + ROW / 2"
            :y2="top(i) + ROW / 2"
          />
        </g>
        <g
          v-for="a in allocations.filter(x => x.entryId && rowOf.has(x.entryId) && at.has(x.reviewerId))"
          :key="a.id"
          :transform="`translate(${left(at.get(a.reviewerId)!) + column / 2} ${top(rowOf.get(a.entryId!)!) + ROW / 2})`"
          :class="{ dragged: drag?.moved && drag.a.id === a.id }"
        >
          <title>{{ nameOf(a.reviewerId) }} on {{ nameOf(a.subjectId) }}</title>
          <path
            v-if="a.state === 'in' && a.setAside !== null"
            class="aside"
            d="M-4.5 -4.5H4.5V4.5H-4.5ZM-4.5 4.5L4.5 -4.5"
          />
          <path
            v-else-if="a.state === 'in' && flagged.has(a.id)"
            class="flag"
            d="M-4.5 -4.5H1L4.5 1V4.5H-4.5Z"
          />
          <rect v-else-if="a.state === 'in'" class="done" x="-4.5" y="-4.5" width="9" height="9" />
          <rect
            v-else
            class="owed"
            :class="{ opened: a.openedAt }"
            x="-3.75"
            y="-3.75"
            width="7.5"
            height="7.5"
          />
        </g>
        <rect
          v-if="drag?.moved"
          class="target"
          :x="left(drag.r) + 1"
          :y="top(drag.w) + 1"
          :width="column - 2"
          :height="ROW - 2"
        />
        <rect
          v-if="cursor.on"
          class="cursor"
          :x="left(cursor.r)"
          :y="top(cursor.w)"
          :width="column"
          :height="ROW"
        />
        <SeverityBars
          v-if="severity.size > 0"
          :transform="`translate(0 ${top(works.length) + 10})`"
          :readers="readers"
          :severity="severity"
          :left="left"
          :column="column"
          :start="LABEL"
          :name-of="nameOf"
        />
      </svg>
    </div>
    <AllocationKey />
    <p class="visually-hidden" aria-live="polite">{{ cursor.on ? said : '' }}</p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font-size: 0.75rem;
  color: var(--ink-3);
  margin-bottom: 6px;
}
.scroll {
  overflow: auto;
}
svg {
  display: block;
  touch-action: none;
  outline: none;
  border-radius: 4px;
}
svg:focus-visible {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.initial {
  font: 500 0.6875rem/1 var(--ui);
  fill: var(--ink-3);
}
.initial.hot {
  font-weight: 700;
  fill: var(--k-review);
}
.name {
  font: 400 0.75rem/1 var(--ui);
  fill: var(--ink-2);
  cursor: pointer;
}
.name.on {
  font-weight: 700;
  fill: var(--ink);
}
.name.gone {
  font-style: italic;
}
.col {
  fill: color-mix(in srgb, var(--k-review) 12%, transparent);
}
.now {
  fill: var(--sheet);
  stroke: var(--line);
}
.tick {
  fill: var(--ember);
}
.rule {
  stroke: var(--line);
}
.own {
  stroke: var(--spine);
  stroke-width: 1.5;
}
.done {
  fill: var(--k-review);
}
.owed {
  fill: var(--sheet);
  stroke: var(--k-review);
  stroke-width: 1.5;
  cursor: grab;
}
.owed.opened {
  stroke-dasharray: 2.5 1.5;
  cursor: default;
}
.flag {
  fill: var(--brick);
}
.aside {
  fill: none;
  stroke: var(--brick);
  stroke-width: 1.3;
}
.dragged {
  opacity: 0.35;
}
.target {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2;
  rx: 2;
}
.cursor {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.5;
  rx: 2;
}
</style>
