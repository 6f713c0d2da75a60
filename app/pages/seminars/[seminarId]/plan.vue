<script setup lang="ts">
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import LoadBand from '../../../components/planning/LoadBand.vue'
import PlanChart from '../../../components/planning/PlanChart.vue'
import ThisWeek from '../../../components/planning/ThisWeek.vue'
import ProblemPage from '../../../components/shell/ProblemPage.vue'
import { useApi } from '../../../composables/useApi'
import { inWords, plural } from '../../../composables/expectationWords'
import { useSeminarStore } from '../../../stores/seminar'

definePageMeta({ layout: 'seminar' })
const seminar = useSeminarStore()
const route = useRoute()
const api = useApi()
useHead({ title: () => seminar.isStaff ? 'Term plan' : 'Seminar' })
const { data: plan, error, refresh } = await useAsyncData(`plan-${route.params.seminarId}`, () => api.get<TermPlan>(`/api/seminars/${route.params.seminarId}/plan`))

const shown = computed(() => (plan.value?.activities ?? []).filter(a => seminar.inChosenWeek(a.opensAt, a.phases.at(-1)?.endsAt ?? a.closesAt)))
const sentence = computed(() => {
  const all = plan.value?.activities ?? []
  if (seminar.chosenWeek) return `week ${seminar.chosenWeek}: ${inWords(shown.value.length)} ${plural(shown.value.length, 'activity', 'activities')}`
  const drafts = all.filter(a => a.state === 'draft').length
  return `${all.length} activities${drafts ? `, ${inWords(drafts)} of them drafts` : ''} · ${plan.value?.students ?? 0} students`
})
// kinds that have a page of their own so far
const addressOf = (a: PlanActivity) => a.kind === 'discussion' && (seminar.isStaff || (a.state === 'published' && a.opensAt <= (seminar.shell?.now ?? ''))) ? `/seminars/${route.params.seminarId}/activities/${a.id}` : null
</script>

<template>
  <ProblemPage v-if="error || !plan" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="plan">
    <header>
      <h1>{{ seminar.isStaff ? 'Term plan' : 'Seminar' }}</h1>
      <p class="muted small">{{ sentence }}</p>
      <button v-if="seminar.chosenWeek" class="link small" type="button" @click="seminar.chooseWeek(seminar.chosenWeek)">show the whole term</button>
      <dl class="key" aria-label="How phases are drawn">
        <dt class="write" /><dd>write</dd><dt class="respond" /><dd>respond</dd><dt class="review" /><dd>review</dd><dt class="mark" /><dd>mark</dd>
        <template v-if="seminar.isStaff"><dt class="draft" /><dd>draft</dd></template>
      </dl>
    </header>
    <div class="scroll" tabindex="0" role="region" aria-label="The term, week by week">
      <p v-if="plan.activities.length === 0" class="empty">Nothing is planned yet. An activity appears here as a bar across its weeks, each phase drawn on its days.</p>
      <p v-else-if="shown.length === 0" class="empty">Nothing falls in week {{ seminar.chosenWeek }}. Choose another week above, or the same again to see the whole term.</p>
      <PlanChart v-else-if="seminar.shell" :plan="plan" :activities="shown" :shell="seminar.shell" :address-of="addressOf" />
      <LoadBand v-if="seminar.isStaff && seminar.shell" :load="plan.load" :current="seminar.shell.week" />
    </div>
    <ThisWeek v-if="seminar.isStaff && seminar.shell" :plan="plan" :shell="seminar.shell" />
  </main>
</template>

<style scoped>
.plan { flex: 1; display: flex; flex-direction: column; min-height: 0; }
header { min-height: 50px; padding: 8px 20px; display: flex; align-items: center; flex-wrap: wrap; gap: 4px 14px; border-bottom: 1px solid var(--line); }
h1 { font: 600 1.3125rem/1.2 var(--read); }
.key { margin: 0 0 0 auto; display: flex; align-items: center; gap: 8px; font-size: 0.75rem; color: var(--ink-2); }
dd { margin: 0 8px 0 0; }
dt { width: 26px; height: 11px; border-radius: 3px; --c: var(--ink-2); }
dt.write { background: var(--c); }
dt.respond { background: repeating-linear-gradient(135deg, var(--c) 0 1.7px, transparent 1.7px 5.4px); box-shadow: inset 0 0 0 1px var(--c); }
dt.review { background: radial-gradient(circle at 3px 3px, var(--c) 1.35px, transparent 1.6px) 0 0/6px 6px; box-shadow: inset 0 0 0 1px var(--c); }
dt.mark { box-shadow: inset 0 0 0 1.5px var(--c); }
dt.draft { border: 1.5px dashed var(--c); }
.scroll { flex: 1; overflow: auto; min-height: 240px; display: flex; flex-direction: column; }
.empty { padding: 40px 20px; font: 400 1rem/1.5 var(--read); color: var(--ink-2); }
</style>
