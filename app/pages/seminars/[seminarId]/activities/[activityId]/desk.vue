<script setup lang="ts">
import { KINDS } from '#core/contributing/kinds'
import type { RichNode } from '#core/contributing/richText'
import { totalMark } from '#core/marking/totalMark'
import LetterPane from '../../../../../components/marking/LetterPane.vue'
import MarkConflict from '../../../../../components/marking/MarkConflict.vue'
import RecordPane from '../../../../../components/marking/RecordPane.vue'
import ReturnDialog from '../../../../../components/marking/ReturnDialog.vue'
import RubricLadder from '../../../../../components/marking/RubricLadder.vue'
import StudentStrip from '../../../../../components/marking/StudentStrip.vue'
import KindTag from '../../../../../components/planning/KindTag.vue'
import KeyList from '../../../../../components/shell/KeyList.vue'
import ProblemPage from '../../../../../components/shell/ProblemPage.vue'
import { chosenPassage } from '../../../../../composables/marking/useCitation'
import { inWords, plural } from '../../../../../composables/planning/expectationWords'
import { points } from '../../../../../composables/marking/points'
import { useKeys, type Key } from '../../../../../composables/shell/useKeys'
import { useTimes } from '../../../../../composables/planning/useTimes'
import { useDeskStore } from '../../../../../stores/desk'
import { useNotices } from '../../../../../stores/notices'
import { useSeminarStore } from '../../../../../stores/seminar'

definePageMeta({ layout: 'seminar', key: route => `desk-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = useDeskStore()
const notices = useNotices()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const { error, refresh } = await useAsyncData(`desk-${route.params.activityId}`, async () => {
  await store.load(route.params.activityId as string, route.query.student as string | null)
  return true
})
useHead({ title: () => store.record ? `${store.record.student.name}: marking` : 'Marking desk' })

const active = ref(0)
const busy = ref(false)
const returning = ref(false)
// a mark keeps the version of the rubric it was given under
const rubric = computed(() => store.record?.rubric ?? store.activity?.rubric ?? null)
const record = computed(() => store.record)
const counts = computed(() => store.desk?.counts)
const held = computed(() => store.desk?.students.filter(s => s.standing === 'held') ?? [])
/** The total as the steps stand on the desk; the server reckons it the same way and has the last word. */
const total = computed(() => {
  const r = record.value
  const max = store.activity?.points ?? 0
  if (!r || !rubric.value || max === 0) return { points: 0, left: 0, max, before: 0 }
  const t = totalMark(rubric.value.criteria.map(c => ({
    criterionId: c.id, weight: c.weight, max: c.max, points: c.levels.find(l => r.mark.steps.some(s => s.levelId === l.id))?.points ?? null,
  })), { max, step: store.activity!.pointStep }, { lateness: null, rule: { kind: 'none' }, waived: false })
  const late = r.late !== null && !r.mark.lateWaived && store.state === 'saved'
  return { points: late ? r.mark.points : t.points, left: t.notJudged.length, max, before: t.points }
})

async function show(id: string | null) {
  if (!id) return
  active.value = 0
  try {
    await store.show(id)
    void router.replace({ query: { student: id } })
  }
  catch (problem) { notices.warn(problem) }
}
function setStep(criterionId: string, levelId: string | null) {
  const r = record.value
  if (!r) return
  const others = r.mark.steps.filter(s => s.criterionId !== criterionId)
  store.change({ steps: levelId ? [...others, { criterionId, levelId }] : others })
}
function setByKey(n: number) {
  const criterion = rubric.value?.criteria[active.value]
  const level = criterion?.levels[n - 1]
  if (!criterion || !level) return
  setStep(criterion.id, level.id)
  if (active.value < rubric.value!.criteria.length - 1) active.value++
}
function cite() {
  const criterion = rubric.value?.criteria[active.value]
  const passage = chosenPassage()
  if (!criterion) return
  if (!passage) { notices.say('Choose some words in the record first, then cite them.'); return }
  store.cite({ ...passage, criterionId: criterion.id })
  window.getSelection()?.removeAllRanges()
}
/** Begins a paragraph of the letter under the criterion's name. */
function writeAbout() {
  const criterion = rubric.value?.criteria[active.value]
  const letter = record.value?.mark.letter as RichNode | undefined
  if (!criterion || !letter) return
  const heading: RichNode = { type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text: criterion.title }] }
  const content = (letter.content ?? []).filter((n, i, all) => !(i === all.length - 1 && n.type === 'paragraph' && !n.content))
  store.change({ letter: { type: 'doc', content: [...content, heading, { type: 'paragraph' }] } })
  void nextTick(() => {
    const editor = document.querySelector<HTMLElement>('.paper [contenteditable="true"]')
    editor?.focus()
    const last = editor?.lastElementChild
    if (last) window.getSelection()?.setPosition(last, 0)
  })
}
async function goOn(what: 'hold' | 'return') {
  const r = record.value
  if (!r || busy.value) return
  busy.value = true
  try {
    const mark = await store.act(what)
    if (!mark) return
    const id = r.student.id
    const said = `${what === 'hold' ? 'Held' : 'Returned'}: ${points(mark.points)} of ${points(total.value.max)} for ${r.student.givenName}.`
    notices.say(said, what === 'hold' ? { label: 'Take it back', run: async () => { await store.act('reopen', id); await show(id) } } : undefined)
    void seminar.load(route.params.seminarId as string).catch(() => {})
    if (what === 'hold') await show(store.nextReady())
  }
  catch (problem) { notices.warn(problem) }
  finally { busy.value = false }
}
async function returnAll(ids: string[]) {
  returning.value = false
  try {
    const n = await store.returnHeld(ids)
    notices.say(`Returned to ${inWords(n)} ${plural(n, 'student')}.`)
  }
  catch (problem) { notices.warn(problem) }
}
const focusItem = (id: string) => { const el = document.getElementById(`r-${id}`); el?.focus({ preventScroll: true }); el?.scrollIntoView({ block: 'center' }) }
const move = (by: number) => { active.value = Math.min((rubric.value?.criteria.length ?? 1) - 1, Math.max(0, active.value + by)) }
const keys = computed<Key[]>(() => [
  { keys: '1 2 3 4 5 6', does: 'set a step and go to the next criterion', run: e => setByKey(Number(e.key)) },
  { keys: 'ArrowUp ArrowDown', does: 'another criterion', run: e => move(e.key === 'ArrowDown' ? 1 : -1) },
  { keys: '0', does: 'take the step off', run: () => { const c = rubric.value?.criteria[active.value]; if (c) setStep(c.id, null) } },
  { keys: 'a', does: 'accept the suggested step', run: () => { for (const s of record.value?.suggested ?? []) if (!record.value!.mark.steps.some(x => x.criterionId === s.criterionId)) setStep(s.criterionId, s.levelId) } },
  { keys: 'e', does: 'cite the chosen words', run: cite },
  { keys: 'w', does: 'write about the criterion', run: writeAbout },
  { keys: '[ ]', does: 'another student', run: e => void show(store.neighbour(e.key === ']' ? 1 : -1)) },
  { keys: 'Ctrl+Enter', does: 'hold and go on', run: () => void goOn('hold') },
])
const { listOpen } = useKeys(() => keys.value)
const warnUnsaved = (event: BeforeUnloadEvent) => { if (store.state === 'saving' || store.state === 'not saved') event.preventDefault() }
onMounted(() => { store.prefetch(); window.addEventListener('beforeunload', warnUnsaved) })
onBeforeUnmount(() => { window.removeEventListener('beforeunload', warnUnsaved); void store.save() })
</script>

<template>
  <ProblemPage v-if="error || !store.activity || !store.desk" :sentence="error?.message ?? ''" @retry="refresh()" />
  <div v-else class="marking">
    <header>
      <KindTag :kind="store.activity.kind" /><h1>{{ store.activity.title }}</h1><span class="small muted">{{ store.activity.closesAt < (seminar.shell?.now ?? '') ? 'closed' : 'closes' }} {{ dayTime(store.activity.closesAt) }}</span>
      <span class="grow" />
      <span v-if="counts" class="small num"><b>{{ counts.ready }}</b> ready · <b>{{ counts.held }}</b> held · <b>{{ counts.returned }}</b> returned · <b>{{ counts.underWay }}</b> under way</span>
      <v-btn v-if="held.length > 0" @click="returning = true">Return {{ held.length }} held</v-btn>
    </header>
    <StudentStrip :students="store.desk.students" :current="store.currentId" @choose="show" />
    <div v-if="record && rubric" class="panes" :data-student="record.student.id">
      <RubricLadder
        :rubric="rubric" :mark="record.mark" :suggested="record.suggested" :active="active" :total="total" :locked="false"
        @activate="active = $event" @step="setStep" @cite="cite" @uncite="store.uncite" @go-to="focusItem"
      />
      <div class="middle">
        <MarkConflict v-if="store.theirs" :mine="record.mark" :theirs="store.theirs" :rubric="rubric" @choose="store.settle" />
        <RecordPane :key="record.student.id" :record="record" :activity="store.activity" :entry-type="KINDS[store.activity.kind].entryType" @cite="cite" />
      </div>
      <LetterPane
        :activity-id="String(route.params.activityId)" :record="record" :state="store.state" :problem="store.problem" :left="total.left" :busy="busy"
        @letter="store.change({ letter: $event })" @note="store.change({ markerNote: $event })" @waive="store.change({ lateWaived: $event })"
        @hold="goOn('hold')" @return="goOn('return')" @reopen="store.act('reopen')"
      />
    </div>
    <p v-else-if="!rubric" class="empty">This activity is not marked by a rubric, so there is nothing to set here.</p>
    <p v-else-if="store.desk.students.length === 0" class="empty">No students are in this seminar yet. Once they are, everyone stands in the strip above, with a mark that fills as their work comes in.</p>
    <p v-else class="empty" role="status">Fetching the record …</p>
    <ReturnDialog v-model="returning" :held="held" @return="returnAll" />
    <KeyList v-model="listOpen" :keys="keys" />
  </div>
</template>

<style scoped>
.marking { flex: 1; min-height: 0; display: flex; flex-direction: column; }
header { min-height: 54px; flex: none; display: flex; flex-wrap: wrap; align-items: center; gap: 4px 14px; padding: 6px 20px; border-bottom: 1px solid var(--line); }
h1 { font: 600 1.1875rem/1.2 var(--read); }
.panes { flex: 1; min-height: 0; display: grid; grid-template-columns: 330px minmax(0, 1fr) 368px; }
.middle { display: flex; flex-direction: column; min-height: 0; }
.middle > :last-child { flex: 1; }
.empty { padding: 40px 20px; font: 400 1rem/1.5 var(--read); color: var(--ink-2); }
@media (min-width: 1600px) { .panes { grid-template-columns: 380px minmax(0, 1fr) 460px; } }
@media (max-width: 1000px) { .panes { grid-template-columns: 1fr; } .panes > * { border: 0 !important; border-bottom: 1px solid var(--line) !important; } }
</style>
