<script setup lang="ts">
import type { Gradebook } from '#shared/marking/gradebook'
import { isHeld } from '~/composables/marking/gradeWords'
import { inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import TextButton from '~/components/controls/TextButton.vue'

/** What can be done with one column: returned, looked at, put elsewhere, hidden. */
const props = defineProps<{
  book: Gradebook
  column: number
  busy: boolean
  first: boolean
  last: boolean
  base: string
}>()
const emit = defineEmits<{ returnHeld: [ids: string[]]; move: [by: number]; hide: [] }>()
const c = computed(() => props.book.columns[props.column]!)
const given = computed(() =>
  props.book.rows.flatMap(r => (r.points[props.column] == null ? [] : [r.points[props.column]!])),
)
const mean = computed(() =>
  given.value.length > 0 ? given.value.reduce((a, b) => a + b, 0) / given.value.length : null,
)
const held = computed(() => props.book.rows.filter(r => isHeld(r, props.column)).map(r => r.enrolmentId))
const category = computed(() => props.book.categories.find(x => x.id === c.value.categoryId) ?? null)
const countedSentence = computed(() => {
  if (c.value.practice) return 'Practice: it counts nowhere.'
  if (category.value) return `In ${category.value.title}, ${category.value.weight} % of the whole.`
  return 'In no category: it counts nowhere.'
})
</script>

<template>
  <section class="col" aria-label="Column">
    <h2>{{ c.title }}</h2>
    <p class="muted">
      {{ countedSentence }}
      {{ c.max > 0 ? `${points(c.max)} points.` : 'Worth nothing.' }}
    </p>
    <p class="num">
      {{ given.length }} of {{ book.rows.length }} marked<template v-if="mean !== null"
        >, mean <b>{{ (mean / 100).toFixed(1) }}</b></template
      >
    </p>
    <p class="acts">
      <v-btn
        v-if="held.length > 0 && book.mayEdit"
        class="main"
        :disabled="busy"
        @click="emit('returnHeld', held)"
        >Return {{ inWords(held.length) }} held</v-btn
      >
      <v-btn :to="`${base}/activities/${c.id}/distribution`">How the marks are spread</v-btn>
      <v-btn class="quiet" :to="`${base}/activities/${c.id}/desk`">Marking desk</v-btn>
    </p>
    <p class="acts">
      <TextButton :disabled="first" @click="emit('move', -1)">to the left</TextButton
      ><TextButton :disabled="last" @click="emit('move', 1)">to the right</TextButton
      ><TextButton @click="emit('hide')">hide this column</TextButton>
    </p>
    <p class="hint"><slot /></p>
    <p class="visually-hidden">{{ plural(given.length, 'mark') }}</p>
  </section>
</template>

<style scoped>
.col {
  padding: 14px 20px 24px;
  font-size: 0.8125rem;
  line-height: 1.5;
  display: grid;
  gap: 8px;
  align-content: start;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
.link:disabled {
  color: var(--ink-3);
  text-decoration: none;
}
</style>
