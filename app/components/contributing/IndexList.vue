<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'

/** A list by which contributions are narrowed: a period, a category, an author; one of them, or none. */
defineProps<{
  title: string
  hint?: string
  items: ReadonlyArray<{
    readonly id: string
    readonly label: string
    readonly note?: string
    readonly count?: number
  }>
  chosen: string | null
}>()
const emit = defineEmits<{ choose: [id: string] }>()
</script>

<template>
  <section v-if="items.length > 0" class="index-list">
    <h2>
      {{ title }} <span v-if="hint">{{ hint }}</span>
    </h2>
    <p class="index">
      <PlainButton
        v-for="i in items"
        :key="i.id"
        :class="{ on: chosen === i.id }"
        :aria-pressed="chosen === i.id"
        @click="emit('choose', i.id)"
      >
        <span>{{ i.label }}</span><em v-if="i.note">{{ i.note }}</em
        ><b v-if="i.count !== undefined" class="num">{{ i.count }}</b>
      </PlainButton>
    </p>
    <slot />
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.index {
  display: grid;
  margin-top: 5px;
}
.index button {
  display: flex;
  gap: 8px;
  align-items: baseline;
  border: 0;
  background: none;
  padding: 3px 6px;
  margin: 0 -6px;
  border-radius: 4px;
  font-size: 0.8125rem;
  line-height: 19px;
  text-align: left;
  cursor: pointer;
  color: var(--ink);
}
.index button span {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.index em {
  font-style: normal;
  color: var(--ink-3);
  font-size: 0.75rem;
}
.index b {
  font-weight: 500;
  color: var(--ink-2);
  min-width: 1.2em;
  text-align: right;
}
.index button:hover {
  background: var(--sunken);
}
.index .on {
  background: var(--harbour-soft);
}
.index .on span {
  font-weight: 650;
  color: var(--harbour-deep);
}
</style>
