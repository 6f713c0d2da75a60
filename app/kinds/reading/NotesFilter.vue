<script setup lang="ts">
import type { Filter, useMargin } from '~/kinds/reading/useMargin'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Whose notes stand in the margin. */
const props = defineProps<{ margin: ReturnType<typeof useMargin> }>()
const { filter, tag, hasGroup, openQuestions } = props.margin
const FILTERS = computed<ReadonlyArray<readonly [Filter, string]>>(() => [
  ['everyone', 'everyone'],
  ...(hasGroup.value ? [['group', 'my group'] as const] : []),
  ['mine', 'mine'],
  ['open', `questions without an answer (${openQuestions.value.length})`],
])
</script>

<template>
  <div class="filter" role="group" aria-label="Whose notes">
    <PlainButton
      v-for="[value, label] in FILTERS"
      :key="value"
      :class="{ on: filter === value }"
      :aria-pressed="filter === value"
      @click="filter = value"
    >
      {{ label }}
    </PlainButton>
    <TextButton v-if="tag" @click="tag = null">only “{{ tag }}” ×</TextButton>
  </div>
</template>

<style scoped>
.filter {
  display: flex;
  align-items: center;
  gap: 4px 15px;
  flex-wrap: wrap;
  font-size: 0.78125rem;
  color: var(--ink-2);
  padding: 4px 20px 4px 22px;
  border-left: 1px solid var(--line);
}
.filter > button {
  background: none;
  border: 0;
  padding: 5px 0;
  color: inherit;
  cursor: pointer;
  font: inherit;
}
.filter .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
@media (max-width: 1000px) {
  .filter {
    border-left: 0;
    border-top: 1px solid var(--line-soft);
    padding: 2px 14px;
  }
}
</style>
