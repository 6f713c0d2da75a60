<script setup lang="ts" generic="T extends { readonly id: string }">
import { VueDraggable } from 'vue-draggable-plus'
import { useNotices } from '~/stores/notices'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Short rows that are edited where they stand, put in order by dragging or with the arrow keys, added below and taken off with an undo. */
const props = defineProps<{
  rows: readonly T[]
  /** Words of the button that adds one. */
  add: string
  /** What stands here while there is none. */
  empty: string
  fresh: () => T
}>()
const emit = defineEmits<{ change: [rows: T[]] }>()
defineSlots<{ default: (row: { row: T; index: number; set: (part: Partial<T>) => void }) => unknown }>()
const notices = useNotices()
const list = computed({ get: () => [...props.rows] as T[], set: (rows: T[]) => emit('change', rows) })
const set = (i: number, part: Partial<T>) =>
  emit(
    'change',
    props.rows.map((row, j) => (j === i ? { ...row, ...part } : row)),
  )
function move(i: number, by: number) {
  const to = i + by
  if (to < 0 || to >= props.rows.length) return
  const rows = [...props.rows]
  rows.splice(to, 0, ...rows.splice(i, 1))
  emit('change', rows)
}
function drop(i: number) {
  const before = [...props.rows]
  emit(
    'change',
    props.rows.filter((_, j) => j !== i),
  )
  notices.say('Removed.', { label: 'Undo', run: () => emit('change', before) })
}
</script>

<template>
  <div class="editable">
    <p v-if="rows.length === 0" class="hint">{{ empty }}</p>
    <VueDraggable v-model="list" tag="ul" handle=".grip" :animation="120">
      <li v-for="(row, i) in rows" :key="row.id" class="row">
        <PlainButton
          class="grip"
          :aria-label="`Row ${i + 1}: move with the arrow keys`"
          title="Drag, or use the arrow keys"
          @keydown.up.prevent="move(i, -1)"
          @keydown.down.prevent="move(i, 1)"
        >
          <i /><i />
        </PlainButton>
        <slot :row="row" :index="i" :set="(part: Partial<T>) => set(i, part)" />
        <PlainButton class="off" :aria-label="`Remove row ${i + 1}`" title="Remove" @click="drop(i)">
          ×
        </PlainButton>
      </li>
    </VueDraggable>
    <TextButton @click="emit('change', [...rows, fresh()])">+ {{ add }}</TextButton>
  </div>
</template>

<style scoped>
.editable {
  display: grid;
  gap: 6px;
  justify-items: start;
}
ul {
  list-style: none;
  width: 100%;
}
.row {
  display: flex;
  align-items: center;
  gap: 9px;
  padding: 3px 0;
  flex-wrap: wrap;
}
.grip {
  border: 0;
  background: none;
  padding: 5px 4px;
  cursor: grab;
  display: grid;
  gap: 3px;
}
.grip i {
  width: 12px;
  height: 2px;
  background: var(--spine);
  border-radius: 1px;
}
.grip:hover i {
  background: var(--ink-3);
}
.off {
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
  font-size: 1.0625rem;
  line-height: 1;
  padding: 4px 6px;
  border-radius: 4px;
}
.off:hover {
  color: var(--brick);
  background: var(--sunken);
}
</style>
