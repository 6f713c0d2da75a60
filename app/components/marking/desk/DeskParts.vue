<script setup lang="ts">
import { vRoving } from '~/components/controls/vRoving'
import type { DeskPart } from '~/composables/marking/useDeskParts'
import PlainButton from '~/components/controls/PlainButton.vue'

/** On a narrow screen the desk shows one of its parts; these go to the others. */
const part = defineModel<DeskPart>({ required: true })
defineProps<{ parts: ReadonlyArray<{ readonly id: DeskPart; readonly name: string }> }>()
</script>

<template>
  <div v-roving class="parts" role="toolbar" aria-label="Parts of the desk">
    <PlainButton
      v-for="p in parts"
      :key="p.id"
      :aria-pressed="p.id === part"
      :class="{ on: p.id === part }"
      @click="part = p.id"
    >
      {{ p.name }}
    </PlainButton>
  </div>
</template>

<style scoped>
.parts {
  display: none;
}
@media (max-width: 1000px) {
  .parts {
    position: sticky;
    top: 0;
    z-index: 6;
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: 1fr;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
  }
}
button {
  border: 0;
  border-bottom: 3px solid transparent;
  background: none;
  padding: 11px 6px 9px;
  font: 600 0.875rem/1.2 var(--ui);
  color: var(--ink-2);
  cursor: pointer;
}
.on {
  color: var(--ink);
  border-bottom-color: var(--ember);
}
</style>
