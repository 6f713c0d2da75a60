<script setup lang="ts">
import { plainText, type RichNode } from '#core/contributing/richText'
import { capital } from '#core/language'
import type { ActivityBody } from '#shared/planning/composer'
import type { Clash } from '~/composables/shell/useSharedEdit'
import ChipButton from '~/components/controls/ChipButton.vue'

/** What two people changed at once: for each, whose is kept. */
defineProps<{ clashes: ReadonlyArray<Clash<ActivityBody>>; by: string | null }>()
const emit = defineEmits<{ settle: [field: keyof ActivityBody, whose: 'mine' | 'theirs'] }>()
const FIELD_WORDS: Readonly<Record<string, string>> = {
  title: 'the title',
  brief: 'the brief',
  starter: 'the starter',
  phases: 'the due times',
  rules: 'the expectations',
  points: 'the points',
  audience: 'for whom it is',
  opensAt: 'the opening',
  prompts: 'the prompts',
  jointSeminarIds: 'who takes part',
  attach: 'the files',
  rubricVersionId: 'the rubric',
  categoryId: 'the category',
  kind: 'the kind',
  wiki: 'the wiki’s pages',
  lexicon: 'the lexicon’s ways',
  reading: 'what is read',
}
const EXCERPT = 160 // characters of a text
const isText = (value: unknown): value is RichNode =>
  typeof value === 'object' && value !== null && 'type' in value
function inBrief(value: unknown): string {
  if (isText(value)) return plainText(value).slice(0, EXCERPT)
  if (typeof value === 'string' || typeof value === 'number') return String(value)
  return 'as they left it'
}
const fieldWords = (field: string) => capital(FIELD_WORDS[field] ?? field)
</script>

<template>
  <section class="clash" role="alert">
    <p>{{ by }} saved this meanwhile. What only one of you changed is joined; of these, choose:</p>
    <div v-for="c in clashes" :key="c.field">
      <b>{{ fieldWords(c.field) }}</b><ChipButton @click="emit('settle', c.field, 'mine')">
        mine: {{ inBrief(c.mine) }}</ChipButton
      ><ChipButton @click="emit('settle', c.field, 'theirs')"> theirs: {{ inBrief(c.theirs) }} </ChipButton>
    </div>
  </section>
</template>

<style scoped>
.clash {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 10px 14px;
  display: grid;
  gap: 8px;
  margin: 8px 0;
}
.clash div {
  display: flex;
  gap: 8px;
  align-items: baseline;
  flex-wrap: wrap;
}
.clash .chip {
  max-width: 26rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
