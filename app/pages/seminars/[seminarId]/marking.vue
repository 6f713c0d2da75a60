<script setup lang="ts">
import type { MarkingQueue } from '#shared/marking/desk'
import FillMark from '../../../components/marking/FillMark.vue'
import KindTag from '../../../components/planning/KindTag.vue'
import ProblemPage from '../../../components/shell/ProblemPage.vue'
import { useApi } from '../../../composables/shell/useApi'
import { STANDING_WORDS } from '../../../composables/planning/kindWords'
import { useTimes } from '../../../composables/planning/useTimes'
import { useSeminarStore } from '../../../stores/seminar'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Marking' })
const route = useRoute()
const api = useApi()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const { data, error, refresh } = await useAsyncData(`queue-${route.params.seminarId}`, () => api.get<MarkingQueue>(`/api/seminars/${route.params.seminarId}/marking`))
const ORDER = ['ready', 'underWay', 'held', 'returned', 'nothing'] as const
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else>
    <h1>Marking</h1>
    <p v-if="data.activities.length === 0" class="empty">Nothing is marked in this seminar yet. When an activity with a rubric is published it stands here, with how many students are ready.</p>
    <article v-for="a in data.activities" :key="a.id">
      <div class="what"><KindTag :kind="a.kind" /><h2>{{ a.title }}</h2><p class="small muted">{{ a.closesAt < (seminar.shell?.now ?? '') ? 'closed' : 'closes' }} {{ dayTime(a.closesAt) }}</p></div>
      <ul><li v-for="s in ORDER" :key="s" :class="{ none: a.counts[s] === 0 }"><FillMark :standing="s" :named="false" /><b class="num">{{ a.counts[s] }}</b> {{ STANDING_WORDS[s] }}</li></ul>
      <v-btn :class="{ main: a.firstReady }" :to="{ path: `/seminars/${route.params.seminarId}/activities/${a.id}/desk`, query: a.firstReady ? { student: a.firstReady } : {} }">Open the marking desk</v-btn>
    </article>
  </main>
</template>

<style scoped>
main { padding: 20px; max-width: 1080px; width: 100%; margin: 0 auto; }
h1 { font: 600 1.4375rem/1.2 var(--read); margin-bottom: 14px; }
article { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 8px 26px; align-items: center; border-top: 1px solid var(--line); padding: 16px 4px; }
article:last-of-type { border-bottom: 1px solid var(--line); }
h2 { font: 600 1.0625rem/1.3 var(--read); margin-top: 5px; }
ul { list-style: none; display: flex; flex-wrap: wrap; gap: 4px 16px; font-size: 0.8125rem; }
li { display: flex; gap: 6px; align-items: center; }
.none { color: var(--ink-3); }
.empty { font: 400 1rem/1.55 var(--read); color: var(--ink-2); }
@media (max-width: 800px) { article { grid-template-columns: 1fr; justify-items: start; } }
</style>
