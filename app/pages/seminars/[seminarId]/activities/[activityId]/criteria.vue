<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useVirtualizer } from '@tanstack/vue-virtual'
import CriterionRow from '~/components/marking/CriterionRow.vue'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { points } from '~/composables/marking/points'
import { useHiddenNames } from '~/composables/marking/useHiddenNames'
import { useDeskUndo } from '~/composables/marking/useDeskUndo'
import { useUnsavedMarks } from '~/composables/marking/useUnsavedMarks'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import ChipButton from '~/components/controls/ChipButton.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** One criterion across everyone: what each wrote, side by side, and the step of each in one column. */
definePageMeta({ layout: 'seminar', key: route => `criteria-${String(route.params.activityId)}` })
const route = useRoute()
const store = useDeskStore()
const notices = useNotices()
const activityId = String(route.params.activityId)
const seminarId = String(route.params.seminarId)
const { error, refresh } = await useAsyncData(`criteria-${activityId}`, async () => {
  await store.load(activityId, null)
  return true
})
useUnsavedMarks()
useHead({ title: 'One criterion at a time' })
const names = useHiddenNames(
  () => activityId,
  () => store.desk?.students ?? [],
)
const rubric = computed(() => store.activity?.rubric ?? null)
const at = ref(0)
const criterion = computed(() => rubric.value?.criteria[at.value] ?? null)
const SHOWN = [
  ['all', 'everyone'],
  ['ready', 'ready'],
  ['open', 'without a step'],
] as const
const stepOf = (id: string) =>
  store.records.get(id)?.mark.steps.find(s => s.criterionId === criterion.value?.id) ?? null
const failed = reactive(new Set<string>()) // whose record could not be fetched
const kept = ref<ReadonlySet<string>>(new Set()) // who was without a step when that was asked for: they stay while they are given one
/** Whether a student has a step of the criterion: as their record says, and as the desk knew before it came. */
const hasStep = (s: { readonly id: string; readonly judged: readonly string[] }): boolean =>
  store.records.has(s.id) ? stepOf(s.id) !== null : s.judged.includes(criterion.value?.id ?? '')
const isReady = (s: { readonly standing: string }) => ['ready', 'held'].includes(s.standing)
const shown = ref<(typeof SHOWN)[number][0]>(store.desk?.students.some(isReady) ? 'ready' : 'all')
const students = computed(() =>
  names.called.value.filter(s => {
    if (shown.value === 'ready') return isReady(s)
    if (shown.value === 'open') return kept.value.has(s.id)
    return true
  }),
)
function choose(which: (typeof SHOWN)[number][0]) {
  kept.value = new Set(names.called.value.filter(s => !hasStep(s)).map(s => s.id))
  shown.value = which
}
const judged = computed(() => (store.desk?.students ?? []).filter(hasStep).length)
const stepWords = computed(() => `${judged.value} of ${store.desk?.students.length ?? 0} have a step`)

const scroller = ref<HTMLElement | null>(null)
const virtual = useVirtualizer(
  computed(() => ({
    count: students.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => 250,
    overscan: 4,
    getItemKey: (i: number) => students.value[i]!.id,
  })),
)
async function fetchSeen() {
  for (const row of virtual.value.getVirtualItems()) {
    const s = students.value[row.index]
    if (s && !store.records.has(s.id) && !failed.has(s.id))
      await store.fetchRecord(s.id).catch(() => failed.add(s.id))
  }
}
watch(
  () =>
    virtual.value
      .getVirtualItems()
      .map(r => r.key)
      .join(),
  () => void fetchSeen(),
)
// the rest comes when nothing else is asked for, so that nobody is waited for
onMounted(async () => {
  await fetchSeen()
  for (const s of store.desk?.students ?? [])
    if (!store.records.has(s.id)) await store.fetchRecord(s.id).catch(() => failed.add(s.id))
})
// the student at hand is known by themselves, not by their place: the list may change
const focusedId = ref<string | null>(null)
const focused = computed(() =>
  Math.max(
    0,
    students.value.findIndex(s => s.id === focusedId.value),
  ),
)
/** @returns whether the step is set: a record that is not here yet, or under another rubric, takes none */
function setStep(id: string, levelId: string | null, given?: number): boolean {
  const r = store.records.get(id)
  const level = criterion.value?.levels.find(l => l.id === levelId)
  if (!r || !criterion.value || (r.rubric && r.rubric.versionId !== rubric.value?.versionId)) return false
  const others = r.mark.steps.filter(s => s.criterionId !== criterion.value!.id)
  store.change(
    {
      steps: level
        ? [...others, { criterionId: criterion.value.id, levelId: level.id, points: given ?? level.points }]
        : others,
    },
    id,
  )
  return true
}
function setByKey(levelId: string | null): boolean {
  const s = students.value[focused.value]
  if (!s || setStep(s.id, levelId)) return s !== undefined
  notices.say(
    store.records.has(s.id)
      ? `${names.nameOf(s)} is marked by another version of the rubric; open their record on the desk.`
      : `${names.nameOf(s)}’s record is not here yet. Nothing was set.`,
  )
  return false
}
function go(by: number) {
  const to = Math.min(students.value.length - 1, Math.max(0, focused.value + by))
  focusedId.value = students.value[to]?.id ?? null
  virtual.value.scrollToIndex(to, { align: 'start' })
}
const undo = useDeskUndo(names.givenOf)
const keys = computed<Key[]>(() => [
  {
    keys: '1 2 3 4 5 6 7 8 9',
    does: 'set a step and go to the next student',
    run: key => {
      const level = criterion.value?.levels[Number(key) - 1]
      if (level && setByKey(level.id)) go(1)
    },
  },
  {
    keys: '0',
    does: 'remove the step',
    run: () => void setByKey(null),
  },
  {
    keys: 'j k ArrowDown ArrowUp',
    does: 'another student',
    run: key => go(['j', 'ArrowDown'].includes(key) ? 1 : -1),
  },
  {
    keys: '[ ]',
    does: 'another criterion',
    run: key => {
      at.value = Math.min(
        (rubric.value?.criteria.length ?? 1) - 1,
        Math.max(0, at.value + (key === ']' ? 1 : -1)),
      )
      focusedId.value = null
      virtual.value.scrollToIndex(0)
    },
  },
  ...undo.keys,
])
useKeys(() => keys.value)
const stateWords = computed(() => {
  const clash = [...store.unsaved].find(id => store.desk?.students.some(s => s.id === id))
  if (clash) {
    const who = store.desk!.students.find(s => s.id === clash)!
    return `${names.nameOf(who)}’s mark is not saved; open it on the desk`
  }
  return store.isSaving ? 'saving …' : 'saved'
})
function goToCriterion(index: number) {
  at.value = index
  focusedId.value = null
}
</script>

<template>
  <ProblemPage
    v-if="error || !store.activity || !store.desk"
    :sentence="error?.message ?? ''"
    @retry="refresh()"
  />
  <main v-else class="across">
    <header class="desk-head">
      <KindTag :kind="store.activity.kind" />
      <h1>{{ store.activity.title }}</h1>
      <span class="grow" />
      <span class="small muted" role="status">{{ stateWords }}</span>
      <v-btn :aria-pressed="names.on.value" @click="names.toggle()">{{
        names.on.value ? 'Show names' : 'Hide names'
      }}</v-btn>
      <v-btn :to="`/seminars/${seminarId}/activities/${activityId}/desk`">One student at a time</v-btn>
    </header>
    <p v-if="!rubric" class="empty">
      This activity is not marked by a rubric, so there are no criteria to go by.
    </p>
    <template v-else>
      <nav class="criteria" aria-label="Criteria">
        <PlainButton
          v-for="(c, i) in rubric.criteria"
          :key="c.id"
          :class="{ on: i === at }"
          :aria-current="i === at"
          @click="goToCriterion(i)"
        >
          {{ c.title }} <span class="num">{{ points(c.max) }}</span>
        </PlainButton>
        <span class="grow" /><span class="small muted num">{{ stepWords }}</span>
        <span class="which" role="group" aria-label="Who is shown"
          ><ChipButton
            v-for="[value, label] in SHOWN"
            :key="value"
            :class="{ on: shown === value }"
            :aria-pressed="shown === value"
            @click="choose(value)"
          >
            {{ label }}
          </ChipButton></span
        >
      </nav>
      <ol v-if="criterion" class="steps num" aria-label="Steps of this criterion">
        <li v-for="(l, n) in criterion.levels" :key="l.id">
          <b><KeyHint :of="String(n + 1)" /> {{ points(l.points) }} · {{ l.title }}</b>
          {{ l.descriptor }}
        </li>
      </ol>
      <div ref="scroller" class="scroll">
        <div class="spread" :style="{ height: `${virtual.getTotalSize()}px` }">
          <div
            v-for="row in virtual.getVirtualItems()"
            :key="String(row.key)"
            :ref="el => virtual.measureElement(el as Element)"
            :data-index="row.index"
            class="row"
            :style="{ transform: `translateY(${row.start}px)` }"
          >
            <CriterionRow
              v-if="criterion && students[row.index]"
              :student="students[row.index]!"
              :record="store.records.get(students[row.index]!.id) ?? null"
              :failed="failed.has(students[row.index]!.id)"
              :criterion="criterion"
              :version-id="rubric.versionId"
              :on="row.index === focused"
              :names="names"
              :to="`/seminars/${seminarId}/activities/${activityId}/desk?student=${students[row.index]!.id}`"
              @focus="focusedId = students[row.index]!.id"
              @step="(levelId, given) => setStep(students[row.index]!.id, levelId, given)"
            />
          </div>
        </div>
        <p v-if="students.length === 0" class="empty">
          {{ shown === 'open' ? 'Everyone has a step for this criterion.' : 'Nobody here yet.' }}
        </p>
      </div>
    </template>
  </main>
</template>

<style scoped>
.across {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.criteria {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  padding: 7px 20px;
  border-bottom: 1px solid var(--line-soft);
}
.criteria > button {
  background: none;
  border: 0;
  padding: 6px 0;
  color: var(--ink-2);
  cursor: pointer;
  font-size: 0.84375rem;
}
.criteria > .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--ember);
  border-radius: 0;
}
.criteria > button span {
  color: var(--ink-3);
  font-weight: 500;
}
.which {
  display: flex;
  gap: 6px;
}
.chip {
  padding: 2px 10px;
  font-size: 0.75rem;
}
.steps {
  list-style: none;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 18px;
  padding: 9px 20px 10px;
  font-size: 0.75rem;
  line-height: 1.4;
  color: var(--ink-2);
  background: var(--sunken);
}
.steps b {
  display: block;
  color: var(--ink);
  font-weight: 600;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  background: var(--sheet);
}
.spread {
  position: relative;
}
.row {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
}
.empty {
  padding: 40px 20px;
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
}
@media (max-width: 800px) {
  .steps {
    grid-auto-flow: row;
  }
}
</style>
