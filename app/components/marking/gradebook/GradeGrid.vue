<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'
import { countedOf, stateOf } from '#shared/marking/readGradeRow'
import {
  cellWords,
  changeWords,
  isHeld,
  COUNTED_WORDS,
  letterWords,
  shareWords,
} from '~/composables/marking/gradeWords'
import { gridKey, type CellPosition } from '~/composables/marking/gridKeys'
import { useGridColumns } from '~/composables/marking/useGridColumns'
import GradeHeads from './GradeHeads.vue'

/** Students down, activities across. One cell at a time is in the order of Tab; arrows go from cell to cell. */
const props = defineProps<{
  book: Gradebook
  rows: readonly GradeRow[]
  columns: readonly number[]
  at: CellPosition | null
}>()
const emit = defineEmits<{
  at: [cell: CellPosition]
  edit: [cell: CellPosition, typed: string | null]
  head: [column: number]
  move: [from: number, to: number]
}>()
const ROW = 33
const scroller = ref<HTMLElement | null>(null)
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => ROW,
    overscan: 8,
    initialRect: { width: 900, height: 620 },
  })),
)
const { template, drawn, more, showMore, show } = useGridColumns(scroller, () => props.columns)
const isAt = (row: number, column: number) => props.at?.row === row && props.at.column === column
function label(row: GradeRow, i: number) {
  const column = props.book.columns[i]!
  const change = changeWords(row, i, column)
  const parts = [
    `${column.title}, ${row.name}: ${cellWords(row, i, column) || 'no mark'}`,
    isHeld(row, i) && 'held',
    COUNTED_WORDS[countedOf(row, i)],
    change !== null && `being changed to ${change === '…' ? 'points not set yet' : change}`,
  ]
  return parts.filter(Boolean).join(', ')
}
function onKey(event: KeyboardEvent) {
  if (!props.at || event.ctrlKey || event.metaKey || event.altKey) return
  const asked = gridKey(event.key, props.at, [-1, ...props.columns], props.rows.length)
  if (!asked) return
  event.preventDefault()
  if (asked.kind === 'go') emit('at', asked.to)
  else emit('edit', props.at, asked.typed)
}
const FRAMES = 20
/** What was out of sight is drawn some frames after the grid has been scrolled to it; another cell asked for meanwhile wins. */
function enter(cell: CellPosition, framesLeft: number) {
  if (props.at !== cell) return
  const drawnCell = document.getElementById(`g-${cell.row}-${cell.column}`)
  if (drawnCell) drawnCell.focus()
  else if (framesLeft > 0) requestAnimationFrame(() => enter(cell, framesLeft - 1))
}
watch(
  () => props.at,
  async cell => {
    if (!cell) return
    virtual.value.scrollToIndex(cell.row)
    show(cell.column)
    await nextTick()
    requestAnimationFrame(() => enter(cell, FRAMES))
  },
)
</script>

<template>
  <div
    ref="scroller"
    class="grid"
    role="grid"
    aria-label="Gradebook"
    :aria-rowcount="rows.length + 1"
    :aria-colcount="columns.length + 2"
    @keydown="onKey"
  >
    <GradeHeads
      :book="book"
      :columns="columns"
      :drawn="drawn"
      :template="template"
      :more="more"
      @head="emit('head', $event)"
      @move="(from, to) => emit('move', from, to)"
      @more="showMore"
    />
    <div class="body" role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px` }">
      <div
        v-for="v in virtual.getVirtualItems()"
        :key="rows[v.index]!.enrolmentId"
        class="row"
        role="row"
        :aria-rowindex="v.index + 2"
        :style="{ gridTemplateColumns: template, transform: `translateY(${v.start}px)` }"
      >
        <span class="name" role="rowheader" aria-colindex="1"
          ><b>{{ rows[v.index]!.familyName }}</b
          ><template v-if="rows[v.index]!.name !== rows[v.index]!.familyName"
            >, {{ rows[v.index]!.givenName }}</template
          ></span
        >
        <button
          :id="`g-${v.index}--1`"
          type="button"
          class="cell total num"
          role="gridcell"
          aria-colindex="2"
          :class="{ on: isAt(v.index, -1) }"
          :tabindex="isAt(v.index, -1) || (!at && v.index === 0) ? 0 : -1"
          @click="emit('at', { row: v.index, column: -1 })"
        >
          {{ shareWords(rows[v.index]!.share)
          }}<em v-if="letterWords(rows[v.index]!.share, book.bands)">{{
            letterWords(rows[v.index]!.share, book.bands)
          }}</em>
        </button>
        <button
          v-for="{ column: i, place } in drawn"
          :id="`g-${v.index}-${i}`"
          :key="i"
          type="button"
          role="gridcell"
          :aria-colindex="place + 3"
          :style="{ gridColumn: place + 3 }"
          class="cell num"
          :class="[
            stateOf(rows[v.index]!, i),
            countedOf(rows[v.index]!, i),
            {
              on: isAt(v.index, i),
              held: isHeld(rows[v.index]!, i),
              set: rows[v.index]!.set[i] === '1' && !book.columns[i]!.byHand,
            },
          ]"
          :tabindex="isAt(v.index, i) ? 0 : -1"
          :aria-label="label(rows[v.index]!, i)"
          @click="emit('at', { row: v.index, column: i })"
          @dblclick="emit('edit', { row: v.index, column: i }, null)"
        >
          {{ cellWords(rows[v.index]!, i, book.columns[i]!)
          }}<ins v-if="changeWords(rows[v.index]!, i, book.columns[i]!)">
            → {{ changeWords(rows[v.index]!, i, book.columns[i]!) }}</ins
          >
        </button>
      </div>
    </div>
    <slot />
  </div>
</template>

<style scoped>
.grid {
  overflow: auto;
  background: var(--sheet);
  min-width: 0;
  position: relative;
}
.row .name {
  position: sticky;
  left: 0;
  z-index: 2;
  border-left: 0;
}
.body {
  position: relative;
  min-width: max-content;
}
.row {
  position: absolute;
  top: 0;
  left: 0;
  min-width: 100%;
  width: max-content;
  height: 33px;
  display: grid;
  border-bottom: 1px solid var(--line-soft);
}
.row .name {
  padding: 0 8px 0 20px;
  line-height: 32px;
  font-size: 0.8125rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  background: var(--sheet);
}
.name b {
  font-weight: 600;
}
.cell {
  background: none;
  border: 0;
  border-left: 1px solid var(--line-soft);
  text-align: right;
  padding: 0 10px;
  font: 500 0.8125rem/32px var(--ui);
  color: var(--ink);
  cursor: cell;
  white-space: nowrap;
  overflow: hidden;
}
.cell:hover {
  background: var(--sunken);
}
.cell.on,
.cell:focus-visible {
  box-shadow: inset 0 0 0 2px var(--harbour);
  border-radius: 0;
}
.total {
  font-weight: 650;
  display: flex;
  justify-content: space-between;
  gap: 6px;
}
.total em {
  font-style: normal;
  color: var(--harbour);
}
/* a returned mark being changed: what counts, and beside it what it would be */
ins {
  text-decoration: none;
  color: var(--harbour);
}
/* held: a square at the edge; set by hand: underlined; what does not count is pale; what is missing says so */
.held {
  box-shadow: inset 4px 0 0 -1px var(--harbour);
}
.held.on {
  box-shadow: inset 0 0 0 2px var(--harbour);
}
.open {
  color: var(--ink-3);
  font-style: italic;
}
.work {
  background: linear-gradient(to top, var(--ember-soft) 3px, transparent 3px);
}
.set {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.dropped,
.droppedMissing {
  color: var(--ink-3);
  text-decoration: line-through;
}
.excused,
.joinedLater,
.practice,
.noCategory,
.worthNothing {
  color: var(--ink-3);
}
.missing {
  color: var(--brick);
}
.cell.notMeant {
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--line-soft) 5px 6px);
  cursor: default;
}
@media (forced-colors: active) {
  .cell {
    forced-color-adjust: none;
    background-color: var(--sheet);
  }
}
</style>
