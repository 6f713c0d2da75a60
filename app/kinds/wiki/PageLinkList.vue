<script setup lang="ts">
import type { LinkChoice } from '~/kinds/wiki/pageNodes'

/** Titles to link to, below the words that are typed, or above them where there is no room. */
const props = defineProps<{
  choice: LinkChoice
  titles: ReadonlyArray<{ readonly title: string; readonly note: string }>
  picked: number
}>()
const LOWEST = 560 // pixels from the top of the window down to which the list opens below the words
const RIGHTMOST = 900 // pixels
const UNKNOWN = { left: 40, top: 40, bottom: 40 } // where the caret could not be measured
const position = computed(() => {
  const { left, top, bottom } = props.choice.at ?? UNKNOWN
  const isAbove = bottom > LOWEST
  return {
    left: `${Math.min(left, RIGHTMOST)}px`,
    top: `${isAbove ? top - 6 : bottom + 4}px`,
    transform: isAbove ? 'translateY(-100%)' : undefined,
  }
})
</script>

<template>
  <ul class="choice" role="listbox" aria-label="Pages to link to" :style="position">
    <li
      v-for="(t, i) in titles"
      :key="t.title"
      role="option"
      :aria-selected="i === picked"
      :class="{ on: i === picked }"
      @mousedown.prevent="choice.take(t.title)"
    >
      {{ t.title }}<em v-if="t.note">{{ t.note }}</em>
    </li>
  </ul>
</template>

<style scoped>
.choice {
  position: fixed;
  z-index: 2300;
  list-style: none;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  box-shadow: 0 10px 30px rgb(0 0 0 / 0.16);
  min-width: 230px;
  padding: 4px;
  font-size: 0.84375rem;
}
.choice li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 5px 10px;
  border-radius: 4px;
  cursor: pointer;
}
.choice .on {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
}
.choice em {
  font-style: normal;
  color: var(--ink-3);
  font-size: 0.75rem;
}
</style>
