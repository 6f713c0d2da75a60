<script setup lang="ts">
import type { ClosingQuestion } from '#core/closing/questions'
import type { QuestionResult } from '#core/closing/results'
import type { ClosingView } from '#shared/closing/closing'
import BarChart from '../shell/BarChart.vue'
import WordsSaid from './WordsSaid.vue'

/** What came in: steps and choices as bars, with their figures as a table; words by how many used them, and every answer. */
const props = defineProps<{ view: ClosingView }>()
const BESIDE = 40 // pixels a lying chart needs for its scale
const results = computed(() =>
  props.view.round!.questions.map((q, i) => shown(q, props.view.staff!.results![i]!)),
)

/** A question with its result, ready to be drawn: `bars` for steps and options, `open` for words. */
function shown(q: ClosingQuestion, r: QuestionResult) {
  const base = { id: q.id, text: q.text, sentence: `${r.answered} answered` }
  if (r.kind === 'open') return { ...base, open: r }
  const bars = r.counts.map((n, s) => ({ label: q.kind === 'choice' ? q.options[s]! : String(s + 1), n }))
  if (q.kind === 'choice') return { ...base, bars, lying: true, height: BESIDE + bars.length * 30 }
  const middle =
    q.kind === 'scale' && r.kind === 'scale' && r.mean !== null
      ? `; mean ${r.mean.toFixed(1)}, median ${r.median} of ${q.steps}; 1 is “${q.low}”, ${q.steps} “${q.high}”`
      : ''
  return { ...base, sentence: base.sentence + middle, bars, lying: false, height: 150 }
}
</script>

<template>
  <ol class="results">
    <li v-for="(q, i) in results" :key="q.id" :class="{ whole: 'open' in q }">
      <h2>
        <span class="num">{{ i + 1 }}</span>{{ q.text }}
      </h2>
      <p class="small muted num">{{ q.sentence }}</p>
      <WordsSaid v-if="'open' in q" :result="q.open" />
      <template v-else>
        <BarChart :bars="q.bars" :label="q.text" unit="students" :horizontal="q.lying" :height="q.height" />
        <details>
          <summary>as a table</summary>
          <table class="rows num">
            <tbody>
              <tr v-for="b in q.bars" :key="b.label">
                <th scope="row">{{ b.label }}</th>
                <td>{{ b.n }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
    </li>
  </ol>
</template>

<style scoped>
.results {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 26px 40px;
}
.results > li {
  min-width: 0;
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
/* words have room: the list beside what was said */
.whole {
  grid-column: 1 / -1;
}
@media (max-width: 760px) {
  .results {
    grid-template-columns: minmax(0, 1fr);
  }
}
h2 {
  font: 600 1.0625rem/1.35 var(--read);
}
h2 .num {
  color: var(--ember);
  margin-right: 10px;
}
details {
  font-size: 0.8125rem;
  max-width: 340px;
}
summary {
  cursor: pointer;
  color: var(--harbour);
}
</style>
