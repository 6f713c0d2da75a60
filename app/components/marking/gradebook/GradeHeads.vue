<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'
import type { Gradebook } from '#shared/marking/gradebook'

/** The heads of a gradebook's columns under their categories; how many are out of sight stands at the edge. */
const props = defineProps<{
  book: Gradebook
  columns: readonly number[]
  /** Those that are drawn, with their places among all. */
  drawn: ReadonlyArray<{ readonly column: number; readonly place: number }>
  template: string
  /** Columns out of sight to the right. */
  more: number
}>()
const emit = defineEmits<{ head: [column: number]; move: [from: number, to: number]; more: [] }>()
const categoryOf = (i: number) =>
  props.book.categories.find(c => c.id === props.book.columns[i]!.categoryId) ?? null
/** Columns of one category stand together under its name while they do so in their order. */
const spans = computed(() => {
  const list: Array<{ title: string; weight: number | null; from: number; n: number }> = []
  for (const [place, i] of props.columns.entries()) {
    const c = categoryOf(i)
    const last = list.at(-1)
    if (last?.title === (c?.title ?? '')) last.n++
    else list.push({ title: c?.title ?? '', weight: c?.weight ?? null, from: place, n: 1 })
  }
  return list
})
const dragged = ref<number | null>(null)
function drop(to: number) {
  if (dragged.value !== null && dragged.value !== to) emit('move', dragged.value, to)
  dragged.value = null
}
function scaleWords(i: number) {
  if (props.book.columns[i]!.scale === 'points') return props.book.columns[i]!.max / 100
  if (props.book.columns[i]!.scale === 'complete') return 'done'
  return props.book.columns[i]!.scale
}
</script>

<template>
  <div class="heads" role="row" aria-rowindex="1" :style="{ gridTemplateColumns: template }">
    <span class="cat corner" aria-hidden="true" /><span class="cat final" aria-hidden="true" />
    <span
      v-for="(s, k) in spans"
      :key="k"
      class="cat"
      aria-hidden="true"
      :style="{ gridColumn: `${s.from + 3} / span ${s.n}` }"
      >{{ s.title }}<em v-if="s.weight !== null" class="num"> {{ s.weight }} %</em></span
    >
    <span class="name" role="columnheader" aria-colindex="1">Student</span>
    <span class="cell-of final" role="columnheader" aria-colindex="2"
      ><PlainButton class="head" @click="emit('head', -1)">Final</PlainButton></span
    >
    <span
      v-for="{ column: i, place } in drawn"
      :key="book.columns[i]!.id"
      class="cell-of"
      role="columnheader"
      :aria-colindex="place + 3"
      :style="{ gridColumn: place + 3 }"
    >
      <PlainButton
        class="head"
        draggable="true"
        :class="{ over: dragged !== null && dragged !== i, practice: book.columns[i]!.practice }"
        :title="`${book.columns[i]!.title}: drag to put it elsewhere`"
        @click="emit('head', i)"
        @dragstart="dragged = i"
        @dragend="dragged = null"
        @dragover.prevent
        @drop.prevent="drop(i)"
      >
        <i :style="{ background: `var(--k-${book.columns[i]!.kind})` }" /><b>{{ book.columns[i]!.title }}</b
        ><span v-if="categoryOf(i)" class="visually-hidden">, {{ categoryOf(i)!.title }}</span
        ><em class="num">{{ scaleWords(i) }}</em>
      </PlainButton>
    </span>
    <PlainButton v-if="more > 0" class="more num" tabindex="-1" aria-hidden="true" @click="emit('more')">
      {{ more }} more to the right
      <svg width="12" height="10" viewBox="0 0 12 10" aria-hidden="true"><path d="M1 5h9M6 1l4 4-4 4" /></svg>
    </PlainButton>
  </div>
</template>

<style scoped>
.heads {
  display: grid;
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--paper);
  width: max-content;
  min-width: 100%;
  border-bottom: 1px solid var(--line);
}
.cat {
  grid-row: 1;
  font: 600 0.71875rem/1.2 var(--ui);
  color: var(--ink-2);
  padding: 7px 8px 3px;
  border-left: 1px solid var(--line-soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.cat em {
  margin-left: 5px;
}
.cat em,
.head em {
  font-style: normal;
  font-weight: 500;
  color: var(--ink-3);
}
.corner,
.heads .name {
  position: sticky;
  left: 0;
  z-index: 2;
  grid-column: 1;
  background: var(--paper);
  border-left: 0;
}
.head {
  text-align: left;
  background: none;
  border: 0;
  border-left: 1px solid var(--line-soft);
  padding: 4px 8px 6px;
  font: 500 0.75rem/1.25 var(--ui);
  color: var(--ink-2);
  cursor: pointer;
  display: grid;
  align-content: end;
  gap: 1px;
  min-width: 0;
}
.head i {
  width: 18px;
  height: 3px;
  border-radius: 2px;
  margin-bottom: 3px;
}
.head b {
  font-weight: 600;
  color: var(--ink);
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  overflow-wrap: anywhere;
}
.heads .name {
  padding: 4px 8px 6px 20px;
  font: 500 0.75rem/1.25 var(--ui);
  color: var(--ink-2);
  align-self: stretch;
  display: grid;
  align-content: end;
}
.heads .name,
.cell-of {
  grid-row: 2;
}
.cell-of {
  display: grid;
  min-width: 0;
}
.final {
  grid-column: 2;
}
.head.practice b {
  font-weight: 400;
  font-style: italic;
}
.head.over {
  box-shadow: inset 2px 0 0 var(--ember);
}
.more {
  grid-row: 1;
  grid-column: 3 / -1;
  justify-self: end;
  position: sticky;
  right: 0;
  z-index: 1;
  display: flex;
  align-items: center;
  gap: 6px;
  border: 0;
  padding: 4px 10px 4px 26px;
  background: linear-gradient(to right, transparent, var(--paper) 20px);
  color: var(--harbour-deep);
  font: 600 0.75rem/1.3 var(--ui);
  cursor: pointer;
}
.more path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.6;
}
</style>
