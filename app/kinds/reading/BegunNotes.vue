<script setup lang="ts">
import type { useNoteComposer } from '~/kinds/reading/useNoteComposer'
import TextButton from '~/components/controls/TextButton.vue'

/** Notes that were begun and not posted, each with the way on. */
const props = defineProps<{
  composer: ReturnType<typeof useNoteComposer>
  labelOf: (part: number) => string
}>()
const EXCERPT = 34 // characters of the words a note is about
const { drafts } = props.composer
function wordsOf(draft: (typeof drafts.value)[number]) {
  const words = draft.note!.passage?.exact ?? props.labelOf(draft.note!.part)
  return words.length > EXCERPT ? `“${words.slice(0, EXCERPT)} …”` : `“${words}”`
}
</script>

<template>
  <span v-if="drafts.length > 0"
    >begun:
    <TextButton v-for="d in drafts" :key="d.id" @click="composer.goOn(d)">
      {{ wordsOf(d) }}
    </TextButton></span
  >
</template>

<style scoped>
.link {
  margin-left: 6px;
  font: italic 400 0.8125rem/1.3 var(--read);
}
</style>
