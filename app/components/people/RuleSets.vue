<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import type { GroupPerson } from '#shared/people/groups'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Sets of people who belong together or must be kept apart: each a line of names. */
const sets = defineModel<string[][]>({ required: true })
const props = defineProps<{ title: string; people: readonly GroupPerson[] }>()
const nameOf = (id: string) => props.people.find(p => p.id === id)?.name ?? 'somebody who left'
const add = (i: number, id: string) => {
  if (!id) return
  sets.value =
    i < sets.value.length
      ? sets.value.map((set, j) => (j === i ? [...new Set([...set, id])] : set))
      : [...sets.value, [id]]
}
const drop = (i: number, id: string) => {
  sets.value = sets.value
    .map((set, j) => (j === i ? set.filter(x => x !== id) : set))
    .filter(set => set.length > 0)
}
function chosen(i: number, event: Event) {
  const select = event.target as HTMLSelectElement
  add(i, select.value)
  select.value = ''
}
</script>

<template>
  <fieldset>
    <legend>{{ title }}</legend>
    <div v-for="(set, i) in sets" :key="i" class="set">
      <span v-for="id in set" :key="id" class="name"
        >{{ nameOf(id)
        }}<PlainButton :aria-label="`Remove ${nameOf(id)}`" @click="drop(i, id)">×</PlainButton></span
      >
      <PickList class="in" :aria-label="`${title}: add somebody to set ${i + 1}`" @change="chosen(i, $event)">
        <option value="">and …</option>
        <option v-for="p in people.filter(x => !set.includes(x.id))" :key="p.id" :value="p.id">
          {{ p.name }}
        </option>
      </PickList>
    </div>
    <PickList class="in" :aria-label="`${title}: a new set`" @change="chosen(sets.length, $event)">
      <option value="">{{ sets.length === 0 ? 'choose somebody …' : 'another set …' }}</option>
      <option v-for="p in people" :key="p.id" :value="p.id">{{ p.name }}</option>
    </PickList>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
  justify-items: start;
  align-content: start;
}
legend {
  font: 600 0.8125rem/1.3 var(--ui);
  padding: 0 0 6px;
}
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid var(--line-soft);
  width: 100%;
}
.name {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
  border-radius: 4px;
  padding: 1px 3px 1px 7px;
  font-size: 0.8125rem;
}
.name button {
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 4px;
  color: inherit;
}
.in {
  font-size: 0.8125rem;
  padding: 3px 6px;
  max-width: 11rem;
}
</style>
