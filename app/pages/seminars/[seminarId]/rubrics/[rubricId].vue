<script setup lang="ts">
import { pointsOf, rubricFaults, type RubricDraft } from '#core/marking/rubric/rubricDraft'
import RubricGrid from '~/components/marking/RubricGrid.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { ApiProblem, newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as markingEndpoints from '#shared/marking/endpoints'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const { data, error, refresh } = await useAsyncData(`rubric-${route.params.rubricId}`, () =>
  api.call(markingEndpoints.readLibrary, { params: { seminarId: String(route.params.seminarId) } }),
)
const entry = computed(() => data.value?.rubrics.find(r => r.rubric.id === route.params.rubricId) ?? null)
useHead({ title: () => entry.value?.rubric.title ?? 'Rubric' })
const toDraft = (): RubricDraft => ({
  title: entry.value?.rubric.title ?? '',
  criteria: (entry.value?.rubric.criteria ?? []).map(c => ({
    title: c.title,
    scope: c.scope,
    weight: c.weight,
    suggestFrom: c.suggestFrom,
    outcome: data.value?.outcomes.find(o => o.id === c.outcomeId)?.identifier ?? null,
    levels: c.levels.map(l => ({
      title: l.title,
      points: l.points,
      pointsFrom: l.pointsFrom,
      descriptor: l.descriptor,
    })),
  })),
})
const draft = ref<RubricDraft>(toDraft())
const version = ref(entry.value?.rubric.version ?? 1)
const state = ref<'saved' | 'changed' | 'saving' | 'waiting'>('saved')
const problem = ref<string | null>(null)
const faults = computed(() => rubricFaults(draft.value))
// a version marks were given under is not typed over: what changes becomes a new one, when asked for
const givenUnder = computed(() => entry.value?.marksGiven ?? 0)
const past: RubricDraft[] = []
let timer: ReturnType<typeof setTimeout> | undefined

function change(next: RubricDraft) {
  past.push(draft.value)
  draft.value = next
  problem.value = null
  state.value = givenUnder.value > 0 ? 'waiting' : 'changed'
  clearTimeout(timer)
  if (givenUnder.value === 0) timer = setTimeout(() => void save(), 900)
}
async function save() {
  clearTimeout(timer)
  if (faults.value.length > 0) return
  const sent = draft.value
  state.value = 'saving'
  try {
    const made = await api.call(markingEndpoints.saveRubric, {
      params: { rubricId: String(route.params.rubricId) },
      body: {
        key: newKey(),
        baseVersion: version.value,
        rubric: sent,
      },
    })
    const isNew = made.version !== version.value
    version.value = made.version
    await refresh()
    state.value = draft.value === sent ? 'saved' : 'changed'
    if (isNew)
      notices.say(
        `Version ${made.version} is made. Marks given under version ${made.version - 1} stay as they are.`,
      )
    if (draft.value !== sent) timer = setTimeout(() => void save(), 900)
  } catch (e) {
    state.value = 'changed'
    problem.value = e instanceof ApiProblem ? e.message : String(e)
  }
}
function undo() {
  const before = past.pop()
  if (!before) return
  change(before)
  past.pop()
}
const use = (activityId: string) => `/seminars/${route.params.seminarId}/activities/${activityId}/plan`
onBeforeUnmount(() => {
  if (state.value === 'changed') void attempt(save)
})
const stateWords = computed(() => {
  if (state.value === 'saved') return 'saved'
  if (state.value === 'saving') return 'saving …'
  if (faults.value.length > 0) return 'kept here until it is whole'
  return 'changed …'
})
</script>

<template>
  <ProblemPage
    v-if="error || !data || !entry"
    :sentence="error?.message ?? 'This rubric is no longer in the library.'"
    @retry="refresh()"
  />
  <main v-else class="leaf rubric">
    <p class="small"><NuxtLink :to="`/seminars/${route.params.seminarId}/library`">Library</NuxtLink></p>
    <div class="leaf-head">
      <input
        class="in title"
        :value="draft.title"
        :readonly="!data.mayManage"
        aria-label="What the rubric is called"
        @input="change({ ...draft, title: ($event.target as HTMLInputElement).value })"
      />
      <span class="hint">version {{ version }}</span
      ><span class="grow" />
      <b class="num total">{{ points(pointsOf(draft)) }} points</b>
    </div>
    <div class="line">
      <span v-if="state === 'waiting'" class="waits"
        >{{ givenUnder }} {{ plural(givenUnder, 'mark was', 'marks were') }} given under version
        {{ version }} and will stay under it.</span
      >
      <v-btn v-if="state === 'waiting'" class="main" :disabled="faults.length > 0" @click="save"
        >Make version {{ version + 1 }}</v-btn
      >
      <span v-else class="hint" aria-live="polite">{{ stateWords }}</span>
      <button v-if="past.length > 0" class="link small" type="button" @click="undo">Undo</button>
      <span class="grow" /><span class="hint"
        >Tab or Enter goes to the next cell, arrows with Alt move between cells; type points as 4, or as 3–4
        for a range</span
      >
    </div>
    <p v-if="problem" class="field-problem" role="alert">
      {{ problem }} <button class="link" type="button" @click="save">Try again</button>
    </p>
    <RubricGrid
      :rubric="draft"
      :faults="faults"
      :outcomes="data.outcomes"
      :readonly="!data.mayManage"
      @change="change"
    />
    <p v-if="entry.usedBy.length > 0" class="used hint">
      Used in
      <template v-for="(a, i) in entry.usedBy" :key="a.id"
        >{{ i > 0 ? ', ' : '' }}<NuxtLink :to="use(a.id)">{{ a.title }}</NuxtLink></template
      >.
    </p>
  </main>
</template>

<style scoped>
.rubric {
  max-width: none;
  overflow: auto;
  flex: 1;
}
.leaf-head {
  margin-bottom: 4px;
}
.title {
  font: 600 1.3125rem/1.3 var(--read);
  width: min(28rem, 60vw);
  border-color: transparent;
  background: transparent;
  margin-left: -10px;
}
.title:hover,
.title:focus {
  border-color: var(--line);
  background: var(--sheet);
}
.total {
  font: 600 1.0625rem/1.3 var(--read);
}
.line {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 10px;
  flex-wrap: wrap;
}
.waits {
  color: var(--ember);
  font-size: 0.84375rem;
}
.used {
  margin-top: 14px;
}
</style>
