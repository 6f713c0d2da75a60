<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import type { WikiView } from '#shared/kinds/wiki/wiki'
import PageBranch from './PageBranch.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The pages of a wiki in their tree, what is suggested, and what pages link to though it is not there. */
const props = defineProps<{ view: WikiView; current: string | null; mayWrite: boolean }>()
const emit = defineEmits<{
  open: [id: string]
  move: [id: string, parentId: string | null, beforeId: string | null]
  make: [title: string]
  group: [id: string | null]
}>()
const title = ref('')
function make() {
  if (title.value.trim() === '') return
  emit('make', title.value.trim())
  title.value = ''
}
/** With Shift, arrows move a page: up and down among its neighbours, right below the one before it, left out again. */
function key(event: KeyboardEvent, id: string) {
  if (!event.shiftKey || !props.mayWrite || !event.key.startsWith('Arrow')) return
  const pages = props.view.pages
  const page = pages.find(p => p.id === id)!
  const own = pages.filter(p => p.parentId === page.parentId)
  const at = own.findIndex(p => p.id === id)
  const parent = pages.find(p => p.id === page.parentId)
  event.preventDefault()
  if (event.key === 'ArrowUp' && at > 0) emit('move', id, page.parentId, own[at - 1]!.id)
  else if (event.key === 'ArrowDown' && at < own.length - 1)
    emit('move', id, page.parentId, own[at + 2]?.id ?? null)
  else if (event.key === 'ArrowRight' && at > 0) emit('move', id, own[at - 1]!.id, null)
  else if (event.key === 'ArrowLeft' && parent)
    emit(
      'move',
      id,
      parent.parentId,
      pages.filter(p => p.parentId === parent.parentId).find((_, i, list) => list[i - 1]?.id === parent.id)
        ?.id ?? null,
    )
}
</script>

<template>
  <nav class="tree no-print" aria-label="Pages of this wiki">
    <label v-if="view.wikis.length > 1" class="which"
      ><span>Wiki of</span
      ><PickList
        class="in"
        :value="view.groupId ?? ''"
        aria-label="Whose wiki"
        @change="emit('group', ($event.target as HTMLSelectElement).value || null)"
      >
        <option v-for="w in view.wikis" :key="w.groupId ?? ''" :value="w.groupId ?? ''">
          {{ w.title }}{{ w.isOwn && w.groupId ? ', yours' : '' }}
        </option>
      </PickList></label
    >
    <p class="head">Pages <span>claimed by</span></p>
    <PageBranch
      :pages="view.pages"
      :parent-id="null"
      :current="current"
      :may-move="mayWrite"
      @open="emit('open', $event)"
      @move="(id, to, before) => emit('move', id, to, before)"
      @key="key"
    />
    <p v-if="view.pages.length === 0" class="none">
      {{ mayWrite ? 'No pages yet. Take one of the suggestions below, or make one.' : 'No pages yet.' }}
    </p>
    <form v-if="mayWrite" class="make" @submit.prevent="make">
      <LineInput
        v-model="title"
        class="in"
        maxlength="120"
        aria-label="Title of a new page"
        placeholder="a new page"
      /><v-btn type="submit" :disabled="title.trim() === ''">Make the page</v-btn>
    </form>
    <section v-if="mayWrite && view.suggested.length > 0">
      <p class="head">Suggested <span>from the brief</span></p>
      <p class="words">
        <TextButton v-for="s in view.suggested" :key="s" @click="emit('make', s)">
          {{ s }}
        </TextButton>
      </p>
    </section>
    <section v-if="view.wanted.length > 0">
      <p class="head">Wanted <span>linked to, not there yet</span></p>
      <p class="words">
        <template v-for="w in view.wanted" :key="w.title"
          ><TextButton v-if="mayWrite" class="wanted" @click="emit('make', w.title)">
            {{ w.title }}<i v-if="w.from.length > 1" class="num"> {{ w.from.length }}</i></TextButton
          ><span v-else class="wanted">{{ w.title }}</span></template
        >
      </p>
    </section>
    <section v-if="view.members.length > 0">
      <p class="head">{{ view.title }}</p>
      <p class="members">{{ view.members.map(m => (m.isMe ? 'you' : m.name)).join(', ') }}</p>
    </section>
    <slot />
  </nav>
</template>

<style scoped>
.tree {
  border-right: 1px solid var(--line);
  padding: 12px 0 24px;
  overflow-y: auto;
  font-size: 0.8125rem;
}
.which {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 20px 12px;
  color: var(--ink-2);
}
.which .in {
  flex: 1;
  padding: 4px 8px;
  font-weight: 600;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 0 20px;
  font-weight: 650;
  line-height: 18px;
  margin-bottom: 4px;
}
.head span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.none {
  padding: 2px 20px 4px;
  color: var(--ink-2);
}
section {
  border-top: 1px solid var(--line-soft);
  margin-top: 12px;
  padding-top: 10px;
}
.make {
  display: flex;
  gap: 8px;
  padding: 8px 20px 0;
}
.make .in {
  flex: 1;
  padding: 4px 9px;
}
.make .v-btn {
  height: 30px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  padding: 0 20px;
  line-height: 19px;
}
.wanted {
  color: var(--ember);
  text-decoration: underline dashed;
  text-underline-offset: 3px;
}
.wanted i {
  font-style: normal;
  color: var(--ink-3);
}
.members {
  padding: 0 20px;
  color: var(--ink-2);
  line-height: 18px;
}
@media (max-width: 1000px) {
  .tree {
    border-right: 0;
    border-bottom: 1px solid var(--line);
    overflow: visible;
  }
}
</style>
