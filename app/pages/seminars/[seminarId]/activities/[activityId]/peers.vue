<script setup lang="ts">
import { inWords } from '#core/language'
import type { PeerAllocation, SettingAside } from '#shared/marking/peers'
import AllocationMatrix from '~/components/marking/peers/AllocationMatrix.vue'
import BeginNow from '~/components/marking/peers/BeginNow.vue'
import ConsensusPane from '~/components/marking/peers/ConsensusPane.vue'
import DealPanel from '~/components/marking/peers/DealPanel.vue'
import FlaggedList from '~/components/marking/peers/FlaggedList.vue'
import OwedReviews from '~/components/marking/peers/OwedReviews.vue'
import PeersDialogs from '~/components/marking/peers/PeersDialogs.vue'
import PeersHead from '~/components/marking/peers/PeersHead.vue'
import ReleaseChoice from '~/components/marking/peers/ReleaseChoice.vue'
import TeammateDesk from '~/components/marking/peers/TeammateDesk.vue'
import WorkPane from '~/components/marking/peers/WorkPane.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { asideSentence } from '~/composables/marking/peerWords'
import { usePeerActs } from '~/composables/marking/usePeerActs'
import { usePeerNames } from '~/composables/marking/usePeerNames'
import { useReviewProgress } from '~/composables/marking/useReviewProgress'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { usePeersStore, type Take } from '~/stores/peers'

/** The review desk: who reviews whom, what readers gave each author, and what becomes of it. */
definePageMeta({ layout: 'seminar', key: route => `peers-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = usePeersStore()
const desk = useDeskStore()
const notices = useNotices()
const activityId = String(route.params.activityId)
const base = `/seminars/${String(route.params.seminarId)}/activities/${activityId}`
const { error, refresh } = await useAsyncData(`peers-${activityId}`, async () => {
  const student = typeof route.query.student === 'string' ? route.query.student : null
  await Promise.all([store.load(activityId), desk.load(activityId, student)])
  return true
})
const view = computed(() => store.view)
const teammates = computed(() => view.value?.settings.subject === 'teammates')
useHead({ title: () => `${desk.activity?.title ?? 'Review'}: review desk` })
const names = usePeerNames(activityId)
const { hidden, nameOf, givenOf } = names
const acts = usePeerActs(String(route.params.seminarId), names)
const busy = acts.busy
const works = computed(() => names.inOrder(store.works, w => w.authorId))

// -- the work at hand
const workId = ref<string | null>(
  store.works.find(w => w.authorIds.includes(String(route.query.student ?? '')))?.id ??
    store.works.find(w => store.of(w.id).some(a => store.flagged.has(a.id)))?.id ??
    store.works[0]?.id ??
    null,
)
const work = computed(() => store.works.find(w => w.id === workId.value) ?? null)
const authorId = computed(() => work.value?.authorId ?? null)
const byReader = (a: PeerAllocation, b: PeerAllocation) =>
  readers.value.findIndex(p => p.id === a.reviewerId) - readers.value.findIndex(p => p.id === b.reviewerId)
const allocated = computed(() => (work.value ? store.of(work.value.id) : []))
const reviews = computed(() => allocated.value.filter(a => a.state === 'in').sort(byReader))
const waiting = computed(() => allocated.value.filter(a => a.state !== 'in'))
const counted = computed(() => reviews.value.filter(a => a.setAside === null).length)
const found = computed(() => (work.value ? store.consensus?.authors.get(work.value.id) : undefined))
const mark = computed(() => view.value?.marks.find(m => m.enrolmentId === authorId.value) ?? null)
const record = computed(() => (desk.record?.student.id === authorId.value ? desk.record : null))
const own = computed(() => (work.value ? store.ownOf(work.value) : {}))
const takes = computed(() => ({
  consensus: work.value ? store.takes(work.value, work.value.authorId, 'consensus') : null,
  own: work.value ? store.takes(work.value, work.value.authorId, 'own') : null,
}))
const criteria = computed(() => view.value?.rubric?.criteria ?? [])
const severity = computed(() => store.consensus?.severity ?? new Map<string, number>())

// -- what is flagged
const reviewOfId = (id: string) => store.real.find(a => a.id === id)
const flagList = computed(() => [...new Map(store.flags.map(f => [f.reviewId, f])).values()])

const { counts, late, idle, readers } = useReviewProgress(names)
const needsRepair = computed(() => {
  if (view.value?.dealtAt === null || teammates.value) return false
  const each = Math.min(view.value!.settings.each, store.works.length - 1)
  return store.works.some(w => store.of(w.id).length < each)
})
const aboutWords = computed(() =>
  teammates.value
    ? 'teammates review each other'
    : `${inWords(view.value!.settings.each)} readers to each work, names hidden`,
)

// -- from work to work
async function show(id: string | null) {
  if (!id) return
  workId.value = id
  const author = store.works.find(w => w.id === id)?.authorId
  if (!author) return
  void router.replace({ query: { ...route.query, student: author } })
  try {
    await desk.show(author)
  } catch (problem) {
    notices.warn(problem)
  }
}
const at = () => works.value.findIndex(w => w.id === workId.value)
const turn = (by: number) =>
  show(works.value[Math.min(works.value.length - 1, Math.max(0, at() + by))]?.id ?? null)
/** The works after this one, then those before it. */
const ahead = () => [...works.value.slice(at() + 1), ...works.value.slice(0, at())]
function nextFlagged() {
  if (teammates.value) return void mates.value?.nextFlagged()
  const flagged = new Set(flagList.value.map(f => reviewOfId(f.reviewId)?.entryId))
  const next = [...ahead(), ...works.value.slice(at(), at() + 1)].find(w => flagged.has(w.id))
  void show(next?.id ?? null)
}
function nextOpen() {
  const stateOf = (author: string) => view.value!.marks.find(m => m.enrolmentId === author)?.state ?? 'open'
  return ahead().find(w => stateOf(w.authorId) === 'open')?.id ?? null
}

// -- acts
const take = (what: Take = 'consensus') =>
  work.value ? acts.take(work.value, what, nextOpen, show) : undefined
const keep = (a: PeerAllocation) =>
  acts.judge(a.id, { as: 'kept' }, `${givenOf(a.reviewerId)}’s review counts.`)
const setAside = (a: PeerAllocation, choice: SettingAside) =>
  acts.judge(a.id, { as: 'setAside', ...choice }, asideSentence(givenOf(a.reviewerId), choice))
const countAgain = (a: PeerAllocation) =>
  acts.judge(
    a.id,
    { as: 'open' },
    a.setAsideTold
      ? `${givenOf(a.reviewerId)}’s review counts again, and they are told.`
      : `${givenOf(a.reviewerId)}’s review counts again.`,
  )
const noted = (text: string) => desk.change({ markerNote: text })
const mates = ref<InstanceType<typeof TeammateDesk> | null>(null)
const open = reactive({ repair: false, write: false, samples: false, reviewers: false })
const KEYS: readonly Key[] = [
  { keys: 'j', does: 'the next author', run: () => void turn(1) },
  { keys: 'k', does: 'the author before', run: () => void turn(-1) },
  { keys: 'f', does: 'the next flagged review', run: nextFlagged },
  { keys: 'Enter', does: 'use the consensus and go on', run: () => void take() },
  {
    keys: 'm',
    does: 'mark it yourself',
    run: () => void navigateTo(`${base}/desk?student=${authorId.value}`),
  },
]
const MATE_KEYS: readonly Key[] = [
  { keys: 'j', does: 'the next member', run: () => void mates.value?.turn(1) },
  { keys: 'k', does: 'the member before', run: () => void mates.value?.turn(-1) },
  { keys: 'f', does: 'the next flagged review', run: nextFlagged },
]
const keys = computed<Key[]>(() => [...(teammates.value ? MATE_KEYS : KEYS)])
useKeys(() => keys.value)
onMounted(() => {
  desk.prefetch()
  if (authorId.value && desk.currentId !== authorId.value) void desk.show(authorId.value).catch(notices.warn)
})
onBeforeUnmount(() => void desk.save())
const SAVED = {
  saved: '',
  saving: 'saving …',
  'not saved': 'not saved',
  'two texts': 'two versions',
} as const
</script>

<template>
  <ProblemPage v-if="error || !view || !desk.activity" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="peers">
    <PeersHead
      :title="desk.activity.title"
      :base="base"
      :about="aboutWords"
      :counts="counts"
      :late="late"
      :flagged="flagList.length"
      :hides-names="hidden.on.value"
      @flagged="nextFlagged"
      @names="hidden.toggle()"
    >
      <BeginNow v-if="teammates || view.dealtAt !== null" :view="view" :name-of="nameOf" />
    </PeersHead>
    <template v-if="teammates">
      <TeammateDesk
        ref="mates"
        :view="view"
        :names="names"
        :busy="busy"
        @share="acts.share"
        @take="acts.takeMeans"
        @keep="keep"
        @aside="setAside"
        @open="countAgain"
      />
      <footer class="foot">
        <ReleaseChoice
          :released-at="view.releasedAt"
          :waiting="view.waiting"
          later="after I have looked"
          @release="acts.release"
          @late="acts.releaseLate"
        />
      </footer>
    </template>
    <DealPanel
      v-else-if="view.dealtAt === null || store.works.length === 0"
      :view="view"
      :name-of="nameOf"
      :plan-to="`${base}/plan`"
      @dealt="show(store.works[0]?.id ?? null)"
    />
    <div v-else class="panes">
      <aside class="left" aria-label="Who reviews whom">
        <AllocationMatrix
          :works="works"
          :readers="readers"
          :allocations="store.real"
          :flagged="store.flagged"
          :severity="severity"
          :current="workId"
          :name-of="nameOf"
          may-move
          @choose="show"
          @move="acts.move"
        />
        <OwedReviews
          :owing="counts.owing"
          :needs-repair="needsRepair"
          :names="names"
          @write="open.write = true"
          @repair="open.repair = true"
          @practice="open.samples = true"
          @reviewers="open.reviewers = true"
        />
        <FlaggedList
          v-if="flagList.length > 0"
          :flags="flagList"
          :reviews="store.real"
          :work-id="workId"
          :names="names"
          @choose="show"
        />
      </aside>
      <WorkPane
        v-if="work && authorId"
        :key="work.id"
        :view="view"
        :work="work"
        :reviews="reviews"
        :waiting="waiting"
        :criteria="criteria"
        :found="found"
        :own="own"
        :names="names"
        @keep="keep"
        @aside="setAside"
        @open="countAgain"
      />
      <aside v-if="work && authorId" class="right" aria-label="Points">
        <div class="scrolls">
          <ConsensusPane
            :criteria="criteria"
            :found="found"
            :readers="counted"
            :own="own"
            :record="record"
            :taken-from="mark?.takenFrom ?? null"
            :has-moved="store.hasMoved(work, authorId)"
            :takes="takes"
            :shared="store.consensus?.shared ?? null"
            :anchored="store.consensus?.anchored ?? 0"
            :worth="view.worth"
            :alpha="store.consensus?.alpha ?? null"
            :works="store.consensus?.works ?? 0"
            :reviewing="store.reviewing(authorId)"
            :reviewing-percent="view.settings.reviewingPercent"
            :given="givenOf(authorId)"
            :desk-to="`${base}/desk?student=${authorId}`"
            :busy="busy"
            :state-words="SAVED[desk.state]"
            :problem="desk.problem"
            @own="(criterion, value) => acts.setOwn(work!, criterion, value)"
            @take="take"
            @note="noted"
            @reopen="acts.reopen(work.id, authorId, show)"
          />
        </div>
        <div class="release">
          <ReleaseChoice
            :released-at="view.releasedAt"
            :waiting="view.waiting"
            later="after I have looked at all"
            @release="acts.release"
            @late="acts.releaseLate"
          />
        </div>
      </aside>
    </div>
    <PeersDialogs :open="open" :view="view" :names="names" :counts="counts" :idle="idle" :move="acts.move" />
  </main>
</template>

<style scoped>
.peers {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 380px minmax(0, 1fr) 330px;
}
.left {
  overflow-y: auto;
  padding: 13px 16px 20px 20px;
  display: grid;
  gap: 12px;
  align-content: start;
  min-width: 0;
}
.right {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.scrolls {
  flex: 1;
  overflow-y: auto;
  padding: 13px 20px 14px 18px;
}
.release,
.foot {
  flex: none;
  background: var(--sunken);
  border-top: 1px solid var(--line);
  padding: 10px 20px 12px 18px;
  display: grid;
  gap: 7px;
  font-size: 0.84375rem;
}
.foot {
  display: flex;
  align-items: center;
  gap: 18px;
}
@media (min-width: 1600px) {
  .panes {
    grid-template-columns: 440px minmax(0, 1fr) 400px;
  }
}
@media (max-width: 1100px) {
  .peers {
    overflow: auto;
  }
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
  .left,
  .scrolls {
    overflow: visible;
    border: 0;
  }
}
</style>
