<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import type { PageLine } from '#shared/kinds/wiki/wiki'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Pages that stand below one page, or at the top: dragged to another place, or moved from the keyboard. */
const props = defineProps<{
  pages: readonly PageLine[]
  parentId: string | null
  current: string | null
  mayMove: boolean
}>()
const emit = defineEmits<{
  open: [id: string]
  move: [id: string, parentId: string | null, beforeId: string | null]
  key: [event: KeyboardEvent, id: string]
}>()
const own = computed(() => props.pages.filter(p => p.parentId === props.parentId))
/** After a drop: the list as it stands says what came, and before what. */
function dropped(list: PageLine[]) {
  const before = own.value
  const moved = list.find(p => !before.some(b => b.id === p.id)) ?? firstMoved(before, list)
  if (!moved) return
  const at = list.findIndex(p => p.id === moved.id)
  emit('move', moved.id, props.parentId, list[at + 1]?.id ?? null)
}
function firstMoved(before: readonly PageLine[], list: readonly PageLine[]): PageLine | null {
  if (before.length !== list.length || before.every((p, i) => p.id === list[i]!.id)) return null
  // of two neighbours that changed places either can be said to have moved
  return (
    list.find((p, i) => {
      const rest = list.filter((_, k) => k !== i)
      return rest.every((r, k) => before.filter(b => b.id !== p.id)[k]?.id === r.id)
    }) ?? null
  )
}
const claimWords = (p: PageLine) => {
  if (p.claimedBy)
    return `${p.claimedBy.isMe ? 'you' : p.claimedBy.givenName}${p.versions === 0 ? ', no text yet' : ''}`
  if (p.versions === 0) return 'no text yet'
  return ''
}
</script>

<template>
  <VueDraggable
    :model-value="[...own]"
    tag="ul"
    group="pages"
    :animation="120"
    :disabled="!mayMove"
    :force-fallback="false"
    class="branch"
    :class="{ top: parentId === null, empty: own.length === 0 }"
    @update:model-value="dropped($event as PageLine[])"
  >
    <li v-for="p in own" :key="p.id">
      <PlainButton
        class="page"
        :class="{ on: p.id === current }"
        :aria-current="p.id === current ? 'page' : undefined"
        :data-page="p.id"
        @click="emit('open', p.id)"
        @keydown="emit('key', $event, p.id)"
      >
        <span class="title">{{ p.title }}</span><span
          v-if="p.writing.length > 0"
          class="pen"
          :title="`${p.writing.map(w => w.name).join(', ')} at it now`"
          >{{ p.writing.map(w => w.initials).join(' ') }} writing</span
        ><em v-else>{{ claimWords(p) }}</em
        ><b v-if="p.openComments > 0" class="num" :title="`${p.openComments} open comments`">{{
          p.openComments
        }}</b>
      </PlainButton>
      <PageBranch
        :pages="pages"
        :parent-id="p.id"
        :current="current"
        :may-move="mayMove"
        @open="emit('open', $event)"
        @move="(id, to, before) => emit('move', id, to, before)"
        @key="(e, id) => emit('key', e, id)"
      />
    </li>
  </VueDraggable>
</template>

<style scoped>
.branch {
  list-style: none;
}
.branch.empty {
  height: 4px;
  margin: -2px 0;
}
.branch:not(.top) {
  padding-left: 16px;
}
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 20px 4px 16px;
  border-left: 4px solid transparent;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink);
}
.page:hover {
  background: var(--sunken);
}
.on {
  background: var(--sheet);
  border-left-color: var(--k-wiki);
  font-weight: 650;
}
.title {
  overflow-wrap: anywhere;
}
.page em {
  font-style: normal;
  font-weight: 400;
  color: var(--ink-3);
  font-size: 0.75rem;
  text-align: right;
}
.pen {
  font: 600 0.6875rem/18px var(--ui);
  color: var(--ember);
}
.page b {
  font: 650 0.6875rem/16px var(--ui);
  color: var(--paper);
  background: var(--ember);
  border-radius: 8px;
  padding: 0 5px;
}
</style>
