<script setup lang="ts">
import type { CombineRule } from '#core/marking/combineMarks'
import type { MarkView } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import SetPoints from './SetPoints.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** Where there is no rubric: points by hand, done or not, or what the contributions' own marks come to. */
const props = defineProps<{
  mark: MarkView
  combine: CombineRule | null
  max: number
  scale: string
  markedOnes: number
  shownOnes: number
}>()
const emit = defineEmits<{ set: [override: { points: number; reason: string } | null] }>()
const rule = computed(() => {
  const c = props.combine
  switch (c?.by) {
    case 'mean':
      return `The mean of the contributions’ marks, each up to ${points(c.each)}.`
    case 'sum':
      return `The sum of the contributions’ marks, capped at ${points(props.max)}.`
    case 'latest':
      return `The mark of the latest contribution, up to ${points(c.each)}.`
    case 'best':
      return `The best ${inWords(c.k)} of the contributions’ marks, each up to ${points(c.each)}.`
    case 'count':
      return `${inWords(c.need)} that count make full marks.`
    default:
      return null
  }
})
const whole = computed(() => props.mark.criteriaLeft === 0)
const doneWords = computed(() => {
  if (whole.value) return props.mark.points * 2 >= props.max ? 'done' : 'not done'
  return '—'
})
</script>

<template>
  <section class="ladder" aria-label="Points">
    <div class="list">
      <template v-if="rule"
        ><h2>Marked contribution by contribution</h2>
        <p class="muted">{{ rule }}</p>
        <p class="muted">
          {{ markedOnes }} of {{ shownOnes }} {{ plural(shownOnes, 'contribution') }} marked; set each beside
          its text.
        </p>
        <SetPoints
          :override="mark.override"
          :calculated="mark.before"
          :max="max"
          needs-reason
          @set="emit('set', $event)"
      /></template>
      <template v-else-if="scale === 'complete'"
        ><h2>Done or not</h2>
        <p class="both">
          <ChipButton
            v-for="done in [true, false]"
            :key="String(done)"
            :class="{ on: mark.override?.points === (done ? max : 0) }"
            :aria-pressed="mark.override?.points === (done ? max : 0)"
            @click="emit('set', { points: done ? max : 0, reason: '' })"
          >
            {{ done ? 'done' : 'not done' }}
          </ChipButton>
        </p></template
      >
      <template v-else
        ><h2>Points by hand</h2>
        <SetPoints
          :override="mark.override"
          :calculated="null"
          :max="max"
          :needs-reason="false"
          @set="emit('set', $event)"
      /></template>
    </div>
    <div class="total">
      <strong v-if="scale === 'complete' && !combine">{{ doneWords }}</strong><template v-else
        ><strong class="num">{{ whole ? points(mark.points) : '—' }}</strong
        ><span class="muted">of {{ points(max) }}</span></template
      >
    </div>
  </section>
</template>

<style scoped>
.ladder {
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.list {
  flex: 1;
  padding: 14px 16px 14px 20px;
  display: grid;
  gap: 8px;
  align-content: start;
  font-size: 0.8125rem;
}
h2 {
  font-size: 0.84375rem;
  letter-spacing: 0;
}
.both {
  display: flex;
  gap: 8px;
}
.total {
  flex: none;
  border-top: 1px solid var(--line);
  padding: 12px 16px 12px 20px;
  background: var(--sunken);
  display: flex;
  align-items: baseline;
  gap: 10px;
}
.total strong {
  font: 600 1.625rem/1 var(--read);
}
</style>
