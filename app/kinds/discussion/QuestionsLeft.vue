<script setup lang="ts">
import { capital, inWords, plural } from '#core/language'
import type { WholeContribution } from '#shared/contributing/thread'
import TextButton from '~/components/controls/TextButton.vue'

/** The questions this reader has not answered yet, each with the way to its answer. */
const props = defineProps<{ questions: readonly WholeContribution[]; writeFirst: boolean }>()
const emit = defineEmits<{ answer: [questionId: string] }>()
const EXCERPT = 110 // characters of a question
const count = computed(() => {
  const n = props.questions.length
  return `${capital(inWords(n))} ${plural(n, 'question')} to answer.`
})
const excerpt = (question: WholeContribution) =>
  (question.html ?? '')
    .replace(/<[^>]+>/g, ' ')
    .trim()
    .slice(0, EXCERPT)
</script>

<template>
  <div class="questions">
    <p>
      <b>{{ count }}</b>
      {{ writeFirst ? 'The others’ answers to a question appear once yours is in.' : '' }}
    </p>
    <p v-for="(q, n) in questions" :key="q.id">
      <TextButton @click="emit('answer', q.id)">answer question {{ n + 1 }}</TextButton
      >{{ ' ' }}<span class="muted">{{ excerpt(q) }}</span>
    </p>
  </div>
</template>

<style scoped>
.questions {
  padding: 12px 22px 10px 20px;
  background: var(--ember-soft);
  font-size: 0.84375rem;
  display: grid;
  gap: 4px;
}
</style>
