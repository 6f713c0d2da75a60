<script setup lang="ts">
import type { LetterView } from '#shared/marking/letter'
import KindTag from '../../../../../components/planning/KindTag.vue'
import LetterTalk from '../../../../../components/marking/LetterTalk.vue'
import StepBars from '../../../../../components/marking/StepBars.vue'
import ProblemPage from '../../../../../components/shell/ProblemPage.vue'
import { useApi } from '../../../../../composables/shell/useApi'
import { points } from '../../../../../composables/marking/points'
import { useTimes } from '../../../../../composables/planning/useTimes'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const { dayTime } = useTimes()
const { data: letter, error, refresh } = await useAsyncData(`letter-${route.params.activityId}`, () => api.get<LetterView>(`/api/activities/${route.params.activityId}/letter`))
useHead({ title: () => letter.value ? `Letter: ${letter.value.title}` : 'Letter' })
const thread = `/seminars/${route.params.seminarId}/activities/${route.params.activityId}`
const citedFor = (criterionId: string) => letter.value!.citations.filter(c => c.criterionId === criterionId)
const print = () => window.print()
</script>

<template>
  <ProblemPage v-if="error || !letter" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else>
    <header>
      <p><KindTag :kind="letter.kind" /></p>
      <h1>{{ letter.title }}</h1>
      <p class="muted">returned by {{ letter.by }}, {{ dayTime(letter.returnedAt) }}</p>
    </header>
    <article class="sheet">
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was returned -->
      <div v-if="letter.html" class="prose" v-html="letter.html" />
      <p v-else class="prose muted">This mark came back without a letter.</p>
      <LetterTalk :path="`/api/activities/${route.params.activityId}/letter/replies`" :to-whom="letter.by.split(' ')[0]!" />
    </article>
    <aside aria-label="Steps and points">
      <p class="total num"><b>{{ points(letter.points) }}</b> of {{ points(letter.max) }}</p>
      <p class="muted small">{{ letter.rubric }}</p>
      <StepBars class="reached" :criteria="letter.criteria" />
      <section v-for="c in letter.criteria" :key="c.id" class="why">
        <h2>{{ c.title }}: {{ c.levelTitle.toLowerCase() }}</h2>
        <p>{{ c.descriptor }}</p>
        <p v-for="cite in citedFor(c.id)" :key="cite.number" class="cite"><sup>{{ cite.number }}</sup><NuxtLink :to="`${thread}#c-${cite.contributionId}`">“{{ cite.exact }}”</NuxtLink></p>
      </section>
      <div class="acts"><v-btn :to="thread">Back to the talk</v-btn><v-btn class="quiet" @click="print">Print</v-btn></div>
    </aside>
  </main>
</template>

<style scoped>
main { padding: 20px 20px 40px; width: 100%; max-width: 1080px; margin: 0 auto; display: grid; grid-template-columns: minmax(0, 1fr) 330px; gap: 16px 44px; align-items: start; }
header { grid-column: 1 / -1; }
h1 { font: 600 1.5rem/1.25 var(--read); margin-top: 8px; }
.sheet { background: var(--sheet); border: 1px solid var(--line); border-radius: var(--r); padding: 30px 40px 36px; }
.sheet .prose { font-size: 1.0625rem; line-height: 1.62; max-width: 60ch; }
.total { font: 400 1.0625rem/1 var(--read); color: var(--ink-2); }
.total b { font: 600 2.125rem/1 var(--read); color: var(--ink); }
.reached { margin: 14px 0 18px; }
.why { border-top: 1px solid var(--line-soft); padding: 10px 0; }
h2 { font-size: 0.8125rem; letter-spacing: 0; }
.why p { font-size: 0.8125rem; color: var(--ink-2); margin-top: 3px; }
.why .cite { font: italic 400 0.84375rem/1.45 var(--read); }
.cite a { color: var(--ink-2); }
sup { font: 650 0.65625rem var(--ui); color: var(--ember); margin-right: 4px; }
.acts { display: flex; gap: 8px; margin-top: 8px; }
@media (max-width: 800px) { main { grid-template-columns: 1fr; padding: 14px; } .sheet { padding: 20px; } }
@media print { aside .acts { display: none; } main { display: block; } .sheet { border: 0; padding: 0; } }
</style>
