<script setup lang="ts">
import type { ClosingView } from '#shared/closing/closing'
import BarChart from '../shell/BarChart.client.vue'

/** What came in: steps and choices as bars, with their figures as a table; words by how many used them, and every answer. */
const props = defineProps<{ view: ClosingView }>()
const round = computed(() => props.view.round!)
const staff = computed(() => props.view.staff!)
const all = reactive(new Set<string>())
const SHOWN = 6
const item = (i: number) => ({ q: round.value.questions[i]!, r: staff.value.results![i]! })
const bars = (i: number) => { const { q, r } = item(i); return r.kind === 'open' ? [] : r.counts.map((n, s) => ({ label: q.kind === 'choice' ? q.options[s]! : String(s + 1), n })) }
const most = (i: number) => { const { r } = item(i); return r.kind === 'open' ? Math.max(1, ...r.words.map(w => w.answers)) : 1 }
</script>

<template>
  <ol class="results">
    <li v-for="(q, i) in round.questions" :key="q.id" :class="{ whole: q.kind === 'open' }">
      <h2><span class="num">{{ i + 1 }}</span>{{ q.text }}</h2>
      <p class="small muted num"><template v-if="item(i).r.kind === 'scale'">{{ item(i).r.answered }} answered<template v-if="(item(i).r as { mean: number | null }).mean !== null">; mean {{ (item(i).r as { mean: number }).mean.toFixed(1) }}, median {{ (item(i).r as { median: number }).median }} of {{ (q as { steps: number }).steps }}; 1 is “{{ (q as { low: string }).low }}”, {{ (q as { steps: number }).steps }} “{{ (q as { high: string }).high }}”</template></template><template v-else>{{ item(i).r.answered }} answered</template></p>
      <template v-if="item(i).r.kind !== 'open'">
        <ClientOnly><BarChart :bars="bars(i)" :label="q.text" unit="students" :horizontal="q.kind === 'choice'" :height="q.kind === 'choice' ? 40 + bars(i).length * 30 : 150" /><template #fallback><div class="waits" /></template></ClientOnly>
        <details><summary>as a table</summary><table class="rows num"><tbody><tr v-for="b in bars(i)" :key="b.label"><th scope="row">{{ b.label }}</th><td>{{ b.n }}</td></tr></tbody></table></details>
      </template>
      <div v-else class="pair">
        <ul v-if="(item(i).r as { words: unknown[] }).words.length > 0" class="words" aria-label="Words, by how many answers they stand in"><li v-for="w in (item(i).r as { words: { word: string, answers: number }[] }).words" :key="w.word" :style="{ '--tone': `${Math.round(w.answers / most(i) * 100)}%` }"><span>{{ w.word }}</span><b class="num">{{ w.answers }}</b></li></ul>
        <div><ul class="said"><li v-for="(a, n) in (item(i).r as { answers: string[] }).answers.slice(0, all.has(q.id) ? undefined : SHOWN)" :key="n">{{ a }}</li></ul>
        <button v-if="(item(i).r as { answers: string[] }).answers.length > SHOWN" class="link small" type="button" @click="all.has(q.id) ? all.delete(q.id) : all.add(q.id)">{{ all.has(q.id) ? 'fold' : `all ${(item(i).r as { answers: string[] }).answers.length} answers` }}</button></div>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.results { list-style: none; display: grid; grid-template-columns: repeat(auto-fit, minmax(340px, 1fr)); gap: 26px 40px; }
.results > li { min-width: 0; border-top: 1px solid var(--line); padding-top: 12px; }
/* words have room: the list beside what was said */
.whole { grid-column: 1 / -1; }
.whole .pair { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr); gap: 10px 40px; margin-top: 8px; align-items: start; }
@media (max-width: 760px) { .whole .pair { grid-template-columns: minmax(0, 1fr); } .results { grid-template-columns: minmax(0, 1fr); } }
h2 { font: 600 1.0625rem/1.35 var(--read); }
h2 .num { color: var(--ember); margin-right: 10px; }
.waits { height: 150px; }
details { font-size: 0.8125rem; max-width: 340px; }
summary { cursor: pointer; color: var(--harbour); }
.words { list-style: none; display: flex; flex-wrap: wrap; gap: 5px 6px; align-content: start; }
.words li { display: flex; gap: 7px; align-items: baseline; padding: 2px 9px; border-radius: 4px; background: color-mix(in srgb, var(--harbour-soft) var(--tone), var(--sunken)); font-size: 0.84375rem; }
.words b { font-size: 0.75rem; color: var(--ink-2); font-weight: 600; }
.said { list-style: none; }
.said li { font: 400 0.9375rem/1.5 var(--read); border-left: 2px solid var(--line); padding-left: 12px; margin-bottom: 8px; white-space: pre-line; overflow-wrap: anywhere; }
</style>
