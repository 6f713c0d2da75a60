<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import PickList from '~/components/controls/PickList.vue'
import type { GroupPerson } from '#shared/people/groups'

/** People of one group, or in none: dragged from here and to here, or sent to another group from a list. */
interface Group {
  readonly id: string
  readonly title: string
}
const props = defineProps<{
  ids: readonly string[]
  group: Group | null
  groups: readonly Group[]
  people: ReadonlyMap<string, GroupPerson>
  sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
  mayManage: boolean
}>()
const emit = defineEmits<{ dropped: [ids: string[]]; move: [id: string, groupId: string | null] }>()
const sectionLetter = (id: string) => {
  const section = props.sections.find(s => s.id === props.people.get(id)?.sectionId)
  return section?.title.replace(/^section\s+/i, '').slice(0, 3) ?? ''
}
const targetOf = (event: Event) => (event.target as HTMLSelectElement).value || null // its own event
</script>

<template>
  <VueDraggable
    tag="ul"
    :model-value="[...ids]"
    group="people"
    :disabled="!mayManage"
    :animation="120"
    :data-group="group?.title ?? ''"
    @update:model-value="emit('dropped', $event as string[])"
  >
    <li v-for="id in ids" :key="id" :data-person="id">
      <span class="p">{{ people.get(id)?.name }}</span><i v-if="sections.length > 1">{{
        sectionLetter(id)
      }}</i>
      <PickList
        v-if="mayManage"
        class="to"
        :aria-label="`Move ${people.get(id)?.name}`"
        :value="group?.id ?? ''"
        @change="emit('move', id, targetOf($event))"
      >
        <option v-for="o in groups" :key="o.id" :value="o.id">{{ o.title }}</option>
        <option value="">no group</option>
      </PickList>
    </li>
  </VueDraggable>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 5px 6px 8px;
  min-height: 34px;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 6px;
  border-radius: 5px;
  cursor: grab;
  position: relative;
  user-select: none;
}
li:hover {
  background: var(--sunken);
}
.p {
  flex: 1;
}
li i {
  font: 600 0.6875rem/1 var(--ui);
  color: var(--ink-3);
  font-style: normal;
}
.to {
  width: 20px;
  border: 0;
  background: transparent;
  color: var(--ink-3);
  opacity: 0;
  cursor: pointer;
  font-size: 0.8125rem;
}
li:hover .to,
.to:focus-visible {
  opacity: 1;
}
</style>
