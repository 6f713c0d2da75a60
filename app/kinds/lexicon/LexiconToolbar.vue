<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import { plural } from '#core/language'
import type { LexiconFilter } from '~/kinds/lexicon/useLexiconFilter'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Searching a lexicon, its order, its letters, and the way to a new term. */
const props = defineProps<{ filter: LexiconFilter; count: number | null; mayWrite: boolean }>()
const emit = defineEmits<{ write: [] }>()
const { words, letter, order, letters, narrowed, everything } = props.filter
const ORDERS = [
  { value: 'letters', text: 'By letter' },
  { value: 'newest', text: 'Newest first' },
] as const
const search = ref<Focusable | null>(null)
const toggle = (l: string) => {
  letter.value = letter.value === l ? null : l
}
defineExpose({ focus: () => search.value?.focus() })
</script>

<template>
  <div class="bar">
    <span v-if="count !== null" class="count"
      ><b>{{ count }}</b> {{ plural(count, 'term') }}</span
    >
    <LineInput
      ref="search"
      v-model="words"
      class="in"
      type="search"
      placeholder="search terms and definitions"
      aria-label="Search the lexicon"
    />
    <span class="tabs" role="group" aria-label="Order"
      ><PlainButton
        v-for="o in ORDERS"
        :key="o.value"
        :class="{ on: order === o.value }"
        :aria-pressed="order === o.value"
        @click="order = o.value"
      >
        {{ o.text }}
      </PlainButton></span
    >
    <span class="grow" />
    <v-btn v-if="mayWrite" class="main" @click="emit('write')">Write a term <KeyHint of="w" /></v-btn>
    <p class="letters" role="group" aria-label="Letters">
      <PlainButton
        v-for="x in letters"
        :key="x.l"
        :disabled="!x.has"
        :class="{ on: letter === x.l }"
        :aria-pressed="letter === x.l"
        @click="toggle(x.l)"
      >
        {{ x.l }}</PlainButton><TextButton v-if="narrowed" @click="everything"> everything </TextButton>
    </p>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  padding: 8px 0 7px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  border-bottom: 1px solid var(--line-soft);
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 5;
}
.bar b {
  color: var(--ink);
}
.bar .in {
  width: 15rem;
  padding: 4px 9px;
  font-size: 0.8125rem;
}
.tabs {
  display: inline-flex;
  gap: 12px;
}
.tabs button {
  border: 0;
  background: none;
  padding: 4px 0;
  cursor: pointer;
  color: var(--ink-2);
  border-bottom: 2px solid transparent;
}
.tabs .on {
  color: var(--ink);
  font-weight: 650;
  border-bottom-color: var(--harbour);
}
.letters {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 1px;
  align-items: center;
}
.letters button:not(.link) {
  border: 0;
  background: none;
  padding: 2px 5px;
  min-width: 24px;
  min-height: 24px;
  border-radius: 4px;
  font: 600 0.8125rem/1.5 var(--read);
  cursor: pointer;
  color: var(--harbour);
}
.letters button:disabled {
  color: var(--spine);
  cursor: default;
  font-weight: 400;
}
.letters button:not(:disabled):hover {
  background: var(--sunken);
}
.letters .on {
  background: var(--harbour) !important;
  color: var(--on-harbour);
}
.letters .link {
  margin-left: 10px;
}
@media (max-width: 1000px) {
  .bar {
    position: static;
  }
}
</style>
