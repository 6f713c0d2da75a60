<script setup lang="ts">
import { languageCodes, LANGUAGES } from '#core/language/languages'
import PickList from './PickList.vue'

/** A language that words are marked with; the first line, where there is one, leaves it to be guessed. */
defineProps<{ value: string; guessed?: string }>()
</script>

<template>
  <PickList class="language" :value="value">
    <option v-if="guessed" value="">{{ guessed }}</option>
    <option v-for="code in languageCodes" :key="code" :value="code">{{ LANGUAGES[code] }}</option>
  </PickList>
</template>

<style scoped>
.language {
  font: inherit;
  color: var(--ink-2);
  background: none;
  border: 0;
  border-radius: 4px;
  padding: 4px 0;
  max-width: 6.8em;
  text-overflow: ellipsis;
  cursor: pointer;
}
.language:hover {
  color: var(--ink);
  background: var(--sunken);
}
</style>
