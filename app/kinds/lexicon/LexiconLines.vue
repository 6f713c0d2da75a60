<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'
import WordsPart from '~/components/planning/WordsPart.vue'

/** How a lexicon is kept, as sentences. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
const set = (part: Partial<ActivityBody['lexicon']>) =>
  emit('change', { lexicon: { ...props.body.lexicon, ...part } })
</script>

<template>
  <div class="lexicon-lines">
    <p class="line">
      A term can be defined
      <ChoicePart
        label="Duplicates"
        :model-value="body.lexicon.duplicates"
        :choices="[
          { value: 'refused', text: 'once' },
          {
            value: 'allowed',
            text: 'more than once',
            note: 'Several definitions of one term stand beside each other.',
          },
        ]"
        :disabled="disabled"
        @update:model-value="set({ duplicates: $event })"
      />; where it is used in the seminar it
      <ChoicePart
        label="Links"
        :model-value="body.lexicon.linked"
        :choices="[
          {
            value: true,
            text: 'lights up',
            note: 'In briefs, posts, entries and pages, with its definition beside it.',
          },
          { value: false, text: 'stays a plain word' },
        ]"
        :disabled="disabled"
        @update:model-value="set({ linked: $event })"
      />.
    </p>
    <p class="line">
      Categories:
      <WordsPart
        label="Categories"
        :model-value="body.lexicon.categories"
        :disabled="disabled"
        :most="40"
        @update:model-value="set({ categories: $event })"
      />
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
