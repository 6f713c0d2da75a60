<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { pointsOf, rubricFaults, type RubricDraft } from '#core/marking/rubric/rubricDraft'
import RubricGrid from '~/components/marking/RubricGrid.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { reviveRubric } from '~/composables/marking/reviveRubric'
import TextButton from '~/components/controls/TextButton.vue'
import SavedMark from '~/components/shell/SavedMark.vue'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSharedEdit, type Clash, type SharedEdit } from '~/composables/shell/useSharedEdit'
import { useNotices } from '~/stores/notices'
import * as markingEndpoints from '#shared/marking/endpoints'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const notices = useNotices()
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
    outcomes: (data.value?.outcomes ?? []).filter(o => c.outcomeIds.includes(o.id)).map(o => o.identifier),
    levels: c.levels.map(l => ({
      title: l.title,
      points: l.points,
      pointsFrom: l.pointsFrom,
      descriptor: l.descriptor,
    })),
  })),
})
// a version marks were given under is not typed over: what changes becomes a new one, when asked for
const givenUnder = computed(() => entry.value?.marksGiven ?? 0)
const NOT_READ = 0 // no rubric has this revision
const stored = () => ({ version: entry.value?.revision ?? NOT_READ, body: toDraft(), savedBy: null })
const edit: SharedEdit<RubricDraft> = useSharedEdit<RubricDraft>({
  stored: stored(),
  draftKey: `jovrel:rubric:${route.params.rubricId}`,
  revive: reviveRubric,
  auto: () => givenUnder.value === 0 && faults.value.length === 0,
  theirsOf: theirs => {
    const { revision, rubric } = theirs as { readonly revision: number; readonly rubric: RubricDraft } // as the server refuses it
    return { version: revision, body: rubric, savedBy: null }
  },
  send: async (change, baseRevision) => {
    const rubric = { ...edit.base.value, ...change }
    const { version: before } = entry.value!.rubric
    const made = await api.call(markingEndpoints.saveRubric, {
      params: { rubricId: String(route.params.rubricId) },
      body: { key: newKey(), baseRevision, rubric },
    })
    if (made.version !== before)
      notices.say(`Version ${made.version} is made. Marks given under version ${before} stay as they are.`)
    await refresh()
    return { version: made.revision, body: rubric, savedBy: null }
  },
})
watch(entry, () => {
  if (edit.version.value === NOT_READ) edit.take(stored()) // it could not be read at first
})
const draft = edit.mine
const faults = computed(() => rubricFaults(draft.value))
const version = computed(() => entry.value?.rubric.version ?? 1)
const isWaiting = computed(() => givenUnder.value > 0 && edit.changed.value)
const past = ref<RubricDraft[]>([])

function change(next: RubricDraft) {
  past.value = [...past.value, draft.value]
  edit.change(next)
}
function undo() {
  const before = past.value.at(-1)
  if (!before) return
  past.value = past.value.slice(0, -1)
  edit.change(before)
}
const use = (activityId: string) => `/seminars/${route.params.seminarId}/activities/${activityId}/plan`
const hasGaps = computed(() => edit.state.value === 'changed' && faults.value.length > 0)
const theirs = (clash: Clash<RubricDraft>): RubricDraft => ({
  ...draft.value,
  criteria: clash.theirs as RubricDraft['criteria'], // of that field
})
</script>

<template>
  <ProblemPage
    v-if="error || !data || !entry"
    :sentence="error?.message ?? 'This rubric is no longer in the library.'"
    @retry="refresh()"
  />
  <main v-else class="leaf rubric">
    <h1 class="visually-hidden">Rubric</h1>
    <p class="small">
      <NuxtLink class="up" :to="`/seminars/${route.params.seminarId}/library`">Library</NuxtLink>
    </p>
    <div class="leaf-head">
      <LineInput
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
      <span v-if="isWaiting" class="waits"
        >{{ givenUnder }} {{ plural(givenUnder, 'mark was', 'marks were') }} given under version
        {{ version }} and will stay under it.</span
      >
      <v-btn v-if="isWaiting" class="main" :disabled="faults.length > 0" @click="edit.save()"
        >Make version {{ version + 1 }}</v-btn
      >
      <span v-else-if="hasGaps" class="hint" aria-live="polite">not saved yet: it has gaps</span>
      <SavedMark
        v-if="!hasGaps && !(isWaiting && edit.state.value === 'changed')"
        :state="edit.state.value"
        :problem="edit.problem.value"
        :joined="edit.joined.value"
        @retry="edit.save()"
      />
      <TextButton v-if="past.length > 0" class="small" @click="undo">Undo</TextButton>
      <span class="grow" /><span class="hint"
        >Tab or Enter goes to the next cell, arrows with Alt move between cells; type points as 4, or as 3–4
        for a range</span
      >
    </div>
    <section v-for="c in edit.clashes.value" :key="c.field" class="clash" role="alert">
      <p>
        Both of you changed the {{ c.field === 'title' ? 'title' : 'criteria' }} meanwhile.
        <TextButton @click="edit.settle(c.field, 'mine')">Keep mine</TextButton>{{ ' '
        }}<TextButton @click="edit.settle(c.field, 'theirs')">Use theirs</TextButton>
      </p>
      <p v-if="c.field === 'title'">Theirs: “{{ c.theirs }}”</p>
      <RubricGrid v-else :rubric="theirs(c)" :faults="[]" :outcomes="data.outcomes" readonly />
    </section>
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
.clash {
  background: var(--ember-soft);
  border: 1px solid var(--ember);
  padding: 12px 16px;
  margin-bottom: 12px;
  display: grid;
  gap: 8px;
}
.waits {
  color: var(--ember);
  font-size: 0.84375rem;
}
.used {
  margin-top: 14px;
}
</style>
