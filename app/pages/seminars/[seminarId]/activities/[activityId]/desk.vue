<script setup lang="ts">
import { KINDS } from '#core/kinds'
import LetterPane from '~/components/marking/LetterPane.vue'
import LetterPreview from '~/components/marking/LetterPreview.vue'
import MarkConflict from '~/components/marking/MarkConflict.vue'
import PeerEvidence from '~/components/marking/peers/PeerEvidence.vue'
import MoveMarks from '~/components/marking/MoveMarks.vue'
import OthersHere from '~/components/marking/OthersHere.vue'
import PhraseDialog from '~/components/marking/PhraseDialog.vue'
import PointsPane from '~/components/marking/PointsPane.vue'
import RecordPane from '~/components/marking/RecordPane.vue'
import ReturnDialog from '~/components/marking/ReturnDialog.vue'
import RubricLadder from '~/components/marking/RubricLadder.vue'
import SecondPane from '~/components/marking/SecondPane.vue'
import StudentStrip from '~/components/marking/StudentStrip.vue'
import DeskFoot from '~/components/marking/desk/DeskFoot.vue'
import DeskHead from '~/components/marking/desk/DeskHead.vue'
import DeskParts from '~/components/marking/desk/DeskParts.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import SkipLinks from '~/components/shell/SkipLinks.vue'
import { points } from '~/composables/marking/points'
import { useDeskActs } from '~/composables/marking/useDeskActs'
import { DESK_PARTS, useDeskParts } from '~/composables/marking/useDeskParts'
import { useDeskTotal } from '~/composables/marking/useDeskTotal'
import { useHiddenNames } from '~/composables/marking/useHiddenNames'
import { useUnsavedMarks } from '~/composables/marking/useUnsavedMarks'
import { useKeys } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'

definePageMeta({ layout: 'seminar', key: route => `desk-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = useDeskStore()
const notices = useNotices()
const seminar = useSeminarStore()
const activityId = String(route.params.activityId)
const seminarId = String(route.params.seminarId)
const { error, refresh } = await useAsyncData(`desk-${activityId}`, async () => {
  await store.load(activityId, route.query.student as string | null)
  return true
})
const names = useHiddenNames(
  () => activityId,
  () => store.desk?.students ?? [],
)
useHead({ title: () => (store.record ? `${names.nameOf(store.record.student)}: marking` : 'Marking desk') })

const record = computed(() => store.record)
const PARTS = [
  { id: 'desk-steps', name: 'the steps' },
  { id: 'desk-record', name: 'the record' },
  { id: 'desk-letter', name: 'the letter' },
]
const counts = computed(() => store.desk?.counts)
const meId = computed(() => store.desk?.markers.find(m => m.isMe)?.id ?? null)
const shared = computed(() => store.desk?.students.some(s => s.markerId !== null) ?? false)
const onlyMine = ref(route.query.share === 'mine')
const students = computed(() =>
  names.called.value.filter(s => !onlyMine.value || s.markerId === meId.value || s.id === store.currentId),
)
watch(students, list => store.goThrough(list.map(s => s.id)), { immediate: true })
const held = computed(() => store.desk?.students.filter(s => s.standing === 'held') ?? [])

async function show(id: string | null) {
  if (!id) return
  acts.active.value = 0
  try {
    await store.show(id)
    void router.replace({ query: { ...route.query, student: id } })
  } catch (problem) {
    notices.warn(problem)
  }
}
const acts = useDeskActs({
  show,
  called: names.givenOf,
  afterReturn: () => void seminar.load(seminarId).catch(() => {}),
})
const { rubric, open, active, busy, second, steps } = acts
/** Of a mark that is being changed after it was returned: what its student has until it is returned anew. */
const hasNow = computed(
  () => store.desk?.students.find(s => s.id === store.currentId)?.held?.returned ?? null,
)
const groupTitle = computed(() => record.value?.group?.title ?? null)
const { max, total } = useDeskTotal({ rubric, steps, isSecond: () => second.value !== null })
const { part, swipe } = useDeskParts()
const goTo = async (id: string) => {
  part.value = 'record'
  await nextTick()
  const el = document.getElementById(`r-${id}`)
  el?.focus({ preventScroll: true })
  el?.scrollIntoView({ block: 'center' })
}
const writeAbout = async () => {
  part.value = 'letter'
  await nextTick()
  acts.writeAbout()
}
/** Out of the letter: keys are keys of the desk again. */
const focusRecord = () => document.getElementById('record')?.focus({ preventScroll: true })
useKeys(() => acts.keys.value)
const previewed = ref<string | null>(null)
const previewOf = computed(
  () => store.desk?.students.find(s => s.id === (previewed.value ?? store.currentId)) ?? null,
)
const pointsHere = computed(() => {
  const s = steps.value.find(x => x.criterionId === acts.about.value?.id)
  return s && acts.about.value ? `${points(s.points)} of ${points(acts.about.value.max)}` : null
})
const excuse = (criterionId: string, reason: string | null) => {
  const others = record.value!.mark.excusedFrom.filter(e => e.criterionId !== criterionId)
  store.change({ excusedFrom: reason ? [...others, { criterionId, reason }] : others })
}
const markOne = (id: string, mark: { points: number | null; done: boolean | null }) =>
  store.markContribution(id, mark).catch(notices.warn)
async function moved(n: number) {
  notices.say(n === 1 ? 'One mark was moved.' : `${n} marks were moved.`)
  await store.load(activityId, store.currentId)
}
useUnsavedMarks()
onMounted(() => store.prefetch())
function showPreview(id: string | null) {
  previewed.value = id
  open.preview = true
}
</script>

<template>
  <ProblemPage
    v-if="error || !store.activity || !store.desk"
    :sentence="error?.message ?? ''"
    @retry="refresh()"
  />
  <main v-else class="marking">
    <SkipLinks v-if="record" :parts="PARTS" />
    <DeskHead
      v-model:only-mine="onlyMine"
      :activity="store.activity"
      :counts="counts ?? null"
      :record="record"
      :is-shared="shared"
      :names-hidden="names.on.value"
      :held="held.length"
      :by-rubric="rubric !== null"
      @names="names.toggle()"
      @return="open.returning = true"
    />
    <StudentStrip :students="students" :current="store.currentId" :unsaved="store.unsaved" @choose="show" />
    <MoveMarks
      v-if="store.desk.olderVersions > 0"
      :activity-id="activityId"
      :marks="store.desk.olderVersions"
      @moved="moved"
    />
    <DeskParts v-if="record" v-model="part" :parts="DESK_PARTS" />
    <div
      v-if="record"
      id="record"
      class="panes"
      tabindex="-1"
      :data-student="record.student.id"
      :data-part="part"
      v-on="swipe"
    >
      <RubricLadder
        v-if="rubric"
        id="desk-steps"
        :rubric="rubric"
        :mark="record.mark"
        :steps="steps"
        :suggested="record.suggested"
        :active="active"
        :total="total"
        :group="groupTitle"
        :whole-group="record.group?.whole ?? false"
        :locked="false"
        @activate="active = $event"
        @step="acts.setStep"
        @points="acts.setPoints"
        @excuse="excuse"
        @cite="acts.cite"
        @uncite="store.uncite"
        @go-to="goTo"
      />
      <PointsPane
        v-else
        id="desk-steps"
        :mark="record.mark"
        :combine="store.desk.combine"
        :max="max"
        :scale="store.activity.scale"
        :marked-ones="record.items.filter(i => i.mark).length"
        :shown-ones="record.items.filter(i => !i.withdrawn).length"
        @set="store.change({ override: $event })"
      />
      <div class="middle">
        <MarkConflict
          v-if="store.theirs"
          :key="record.student.id"
          :mine="record.mark"
          :theirs="store.theirs"
          :rubric="rubric"
          @settle="store.settle($event).catch(notices.warn)"
        />
        <OthersHere
          :activity-id="activityId"
          :student-id="record.student.id"
          :given="names.givenOf(record.student)"
        />
        <SecondPane
          v-if="record.second && rubric"
          :second="record.second"
          :first="record.mark.steps"
          :rubric="rubric"
          :first-by="record.mark.savedBy?.split(' ')[0] ?? 'first'"
          :busy="busy"
          @remark="store.saveSecond([...steps], $event, false).catch(notices.warn)"
          @hand-over="acts.handOver"
          @agree="store.agree($event).catch(notices.warn)"
        />
        <RecordPane
          id="desk-record"
          :key="record.student.id"
          :record="record"
          :activity="store.activity"
          :names="names"
          :combine="store.desk.combine"
          @cite="acts.cite"
          @mark="markOne"
        >
          <template
            v-if="
              KINDS[store.activity.kind].markedBy === 'peers' && store.activity.review?.subject === 'work'
            "
            #after
            ><PeerEvidence
              :key="record.student.id"
              :activity-id="activityId"
              :student-id="record.student.id"
              :base="`/seminars/${seminarId}/activities/${activityId}`"
              :names="names"
          /></template>
        </RecordPane>
      </div>
      <LetterPane
        v-if="!second"
        id="desk-letter"
        :activity-id="activityId"
        :seminar-id="seminarId"
        :record="record"
        :names="names"
        :state="store.state"
        :problem="store.problem"
        :busy="busy"
        :max="max"
        :has-now="hasNow"
        :by-rubric="rubric !== null"
        :about="acts.about.value?.title ?? null"
        :history-open="open.history"
        :together="store.desk.together ? (counts?.ready ?? 0) : 0"
        @change="store.change($event)"
        @hold="acts.goOn('hold')"
        @return="acts.goOn('return')"
        @reopen="store.act('reopen')"
        @take-back="store.act('take-back')"
        @write="writeAbout"
        @phrases="open.phrases = true"
        @preview="showPreview(null)"
        @history="open.history = !open.history"
        @leave="focusRecord"
      />
      <aside v-else class="blind">
        <p>The letter is the first marker’s. Read, set your steps, and hand them over.</p>
      </aside>
    </div>
    <DeskFoot
      v-if="record && !second"
      :total="total"
      :state="record.mark.state"
      :busy="busy"
      @hold="acts.goOn('hold')"
      @return="acts.goOn('return')"
    />
    <p v-if="!record && store.desk.students.length === 0" class="empty">
      No students are in this seminar yet. Once they are, everyone stands in the strip above, with a mark that
      fills as their work comes in.
    </p>
    <p v-else-if="!record" class="empty" role="status">Fetching the record …</p>
    <ReturnDialog
      v-model="open.returning"
      :held="held"
      :not-held="store.desk.together ? (counts?.ready ?? 0) : 0"
      :called="names.nameOf"
      :max="max"
      @return="acts.returnThese"
      @preview="showPreview"
    />
    <PhraseDialog
      v-if="open.phrases"
      v-model="open.phrases"
      :seminar-id="seminarId"
      :criterion="acts.about.value?.title ?? null"
      :points="pointsHere"
      @insert="acts.insert($event, acts.about.value?.title ?? null)"
    />
    <LetterPreview
      v-if="open.preview && previewOf"
      v-model="open.preview"
      :activity-id="activityId"
      :enrolment-id="previewOf.id"
      :to="names.givenOf(previewOf)"
      :title="store.activity.title"
    />
  </main>
</template>

<style scoped>
.marking {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr) 368px;
}
.middle {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.middle > :last-child {
  flex: 1;
}
.blind {
  border-left: 1px solid var(--line);
  padding: 16px 20px;
  font: 400 0.9375rem/1.5 var(--read);
  color: var(--ink-2);
}
.empty {
  padding: 40px 20px;
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
}
@media (min-width: 1600px) {
  .panes {
    grid-template-columns: 380px minmax(0, 1fr) 460px;
  }
}
@media (max-width: 1000px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
    scroll-margin-top: 44px;
  }
  .panes > * {
    border: 0 !important;
  }
  .panes[data-part='steps'] > :not(:first-child),
  .panes[data-part='record'] > :not(.middle),
  .panes[data-part='letter'] > :not(:last-child) {
    display: none;
  }
}
</style>
