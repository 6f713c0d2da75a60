<script setup lang="ts">
import { levelAt } from '#core/marking/peers/fromReviews'
import { consensusOf } from '#core/marking/peers/consensus'
import { peerReviewsOf } from '#core/marking/peers/fromReviews'
import AllocationMatrix from '~/components/marking/peers/AllocationMatrix.vue'
import ConsensusPane from '~/components/marking/peers/ConsensusPane.vue'
import DealPanel from '~/components/marking/peers/DealPanel.vue'
import FlagStrip from '~/components/marking/peers/FlagStrip.vue'
import GivenByAuthor from '~/components/marking/peers/GivenByAuthor.vue'
import PutRightDialog from '~/components/marking/peers/PutRightDialog.vue'
import RemarkList from '~/components/marking/peers/RemarkList.vue'
import SampleList from '~/components/marking/peers/SampleList.vue'
import ScoreDots from '~/components/marking/peers/ScoreDots.vue'
import TeammateDesk from '~/components/marking/peers/TeammateDesk.vue'
import WriteToDialog from '~/components/marking/peers/WriteToDialog.vue'
import KindTag from '~/components/planning/KindTag.vue'
import KeyList from '~/components/shell/KeyList.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { flagWords, runsWords, tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'
import { useHiddenNames } from '~/composables/marking/useHiddenNames'
import { inWords, plural } from '#core/language'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { usePeersStore } from '~/stores/peers'
import { useSeminarStore } from '~/stores/seminar'

/** The review desk: who reviews whom, what readers gave each author, and what becomes of it. */
definePageMeta({ layout: 'seminar', key: route => `peers-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = usePeersStore()
const desk = useDeskStore()
const notices = useNotices()
const seminar = useSeminarStore()
const activityId = String(route.params.activityId)
const base = `/seminars/${String(route.params.seminarId)}/activities/${activityId}`
const { error, refresh } = await useAsyncData(`peers-${activityId}`, async () => {
  await Promise.all([
    store.load(activityId),
    desk.load(activityId, (route.query.student as string | null) ?? null),
  ])
  return true
})
const view = computed(() => store.view)
const teammates = computed(() => view.value?.settings.subject === 'teammates')
useHead({ title: () => `${desk.activity?.title ?? 'Review'}: review desk` })
const hidden = useHiddenNames(
  () => activityId,
  () => desk.desk?.students ?? [],
)
const nameOf = (id: string): string => {
  const p = store.people.get(id)
  return p ? hidden.nameOf(p) : ''
}
/** The last name alone, where there is little room; hidden, the number with its word. */
const lastOf = (id: string): string => (hidden.on.value ? nameOf(id) : (nameOf(id).split(' ').at(-1) ?? ''))
/** With names hidden the order of names is hidden, too. */
const unnamed = <T,>(list: readonly T[], idOf: (item: T) => string): T[] =>
  hidden.on.value
    ? [...list].sort((a, b) => placeOf.value.get(idOf(a))! - placeOf.value.get(idOf(b))!)
    : [...list]
const placeOf = computed(() => new Map(hidden.order.value.map((s, i) => [s.id, i])))
const works = computed(() => unnamed(store.works, w => w.authorId))
const givenOf = (id: string): string => {
  const p = store.people.get(id)
  return p ? hidden.givenOf(p) : ''
}
const initialOf = (id: string): string => {
  const n = nameOf(id)
  return /^Student \d+$/.test(n) ? n.slice(8) : (store.people.get(id)?.familyName[0] ?? '?')
}

const workId = ref<string | null>(
  store.works.find(w => w.authorIds.includes(String(route.query.student ?? '')))?.id ??
    store.works.find(w => store.of(w.id).some(a => store.flagged.has(a.id)))?.id ??
    store.works[0]?.id ??
    null,
)
const work = computed(() => store.works.find(w => w.id === workId.value) ?? null)
const authorId = computed(() => work.value?.authorId ?? null)
const byName = (a: { reviewerId: string }, b: { reviewerId: string }) =>
  readers.value.findIndex(p => p.id === a.reviewerId) - readers.value.findIndex(p => p.id === b.reviewerId)
const reviews = computed(() =>
  work.value
    ? store
        .of(work.value.id)
        .filter(a => a.state === 'in')
        .sort(byName)
    : [],
)
const waiting = computed(() => (work.value ? store.of(work.value.id).filter(a => a.state !== 'in') : []))
const found = computed(() => (work.value ? store.consensus?.authors.get(work.value.id) : undefined))
const mark = computed(() => view.value?.marks.find(m => m.enrolmentId === authorId.value) ?? null)
const own = computed<Record<string, number>>(() =>
  desk.record && desk.record.student.id === authorId.value
    ? Object.fromEntries(desk.record.mark.steps.map(s => [s.criterionId, s.points]))
    : (mark.value?.steps ?? {}),
)
const ownShown = computed(() => (mark.value?.takenFrom === 'consensus' ? {} : own.value))
const criteria = computed(() => view.value?.rubric?.criteria ?? [])
const flagsOf = (id: string) => store.flags.filter(f => f.reviewId === id)
const reviewOfId = (id: string) => store.real.find(a => a.id === id)
const flagList = computed(() => [...new Map(store.flags.map(f => [f.reviewId, f])).values()])
const strips = computed(() => reviews.value.filter(a => a.setAside !== null || store.flagged.has(a.id)))
/** What the consensus would be without one review. */
function leaves(id: string): string | null {
  if (!view.value || !work.value) return null
  const { reviews: all, criteria: list, anchors } = peerReviewsOf(view.value)
  const without = consensusOf(
    all.filter(r => r.id !== id),
    list,
    anchors,
  ).authors.get(work.value.id)?.corrected
  return without == null ? null : tenth(without)
}
const others = (id: string): string => {
  const f = store.flags.find(x => x.reviewId === id && x.code === 'sameWords')
  const other = f?.code === 'sameWords' ? reviewOfId(f.otherId) : null
  return other ? `${nameOf(other.reviewerId)}’s review of ${nameOf(other.subjectId)}` : 'another review'
}
const total = (a: { points: Record<string, number> }) =>
  criteria.value.every(c => a.points[c.id] !== undefined)
    ? tenth(criteria.value.reduce((s, c) => s + a.points[c.id]! * c.weight, 0))
    : '–'

const counts = computed(() => {
  const all = teammates.value ? view.value!.allocations : store.real
  const owing = new Map<string, number>()
  for (const a of all) if (a.state !== 'in') owing.set(a.reviewerId, (owing.get(a.reviewerId) ?? 0) + 1)
  return {
    in: all.filter(a => a.state === 'in').length,
    all: all.length,
    owing: [...owing].map(([id, owes]) => ({ id, name: nameOf(id), owes })),
  }
})
const late = computed(
  () =>
    new Set((view.value?.allocations ?? []).filter(a => a.state !== 'in' && a.late).map(a => a.reviewerId))
      .size,
)

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
const nextFlagged = () => {
  const list = flagList.value.map(f => reviewOfId(f.reviewId)?.entryId)
  const ids = works.value.map(w => w.id)
  const ahead = [...ids.slice(at() + 1), ...ids.slice(0, at() + 1)]
  void show(ahead.find(id => list.includes(id)) ?? null)
}
const nextOpen = () => {
  const ids = works.value
  const ahead = [...ids.slice(at() + 1), ...ids.slice(0, at())]
  return (
    ahead.find(w => (view.value!.marks.find(m => m.enrolmentId === w.authorId)?.state ?? 'open') === 'open')
      ?.id ?? null
  )
}

const busy = ref(false)
async function attempt(act: () => Promise<unknown>) {
  if (busy.value) return
  busy.value = true
  try {
    await act()
  } catch (problem) {
    notices.warn(problem)
  } finally {
    busy.value = false
  }
}
const judge = (id: string, write: Parameters<typeof store.judge>[1], said: string) =>
  attempt(async () => {
    const a = reviewOfId(id)!
    const findBefore = () => {
      if (a.setAside !== null) return { as: 'setAside' as const, reason: a.setAside }
      if (a.kept) return { as: 'kept' as const }
      return { as: 'open' as const }
    }
    const before = findBefore()
    await store.judge(id, write)
    notices.say(said, { label: 'Undo', run: () => void judge(id, before, 'As it was before.') })
  })
const take = () =>
  attempt(async () => {
    if (!authorId.value || !work.value || store.takes(work.value.id, authorId.value) === null) return
    await desk.save()
    const ids = work.value.authorIds
    const answer = await store.take(ids)
    for (const id of ids) desk.records.delete(id)
    await desk.reload()
    if (answer.left.length > 0) {
      notices.warn(new Error(`${givenOf(answer.left[0]!.enrolmentId)}: ${answer.left[0]!.why}`))
      await desk.fetchRecord(authorId.value)
      return
    }
    const was = {
      id: work.value.id,
      author: authorId.value,
      name: givenOf(authorId.value),
      points: view.value!.marks.find(m => m.enrolmentId === authorId.value)?.points ?? 0,
    }
    const next = nextOpen()
    await (next ? show(next) : desk.fetchRecord(authorId.value))
    notices.say(`${was.name}: ${points(was.points)} is held.${next ? '' : ' That was the last one.'}`, {
      label: 'Undo',
      run: () => reopen(was.id, was.author),
    })
    void seminar.load(String(route.params.seminarId)).catch(() => {})
  })
async function reopen(id: string, author: string) {
  await show(id)
  if (!desk.records.has(author)) await desk.fetchRecord(author)
  await desk.act('reopen', author)
  await store.refresh()
}
function setOwn(criterionId: string, value: number | null) {
  const rest = (desk.record?.mark.steps ?? []).filter(s => s.criterionId !== criterionId)
  const criterion = criteria.value.find(c => c.id === criterionId)!
  const steps =
    value === null
      ? rest
      : [...rest, { criterionId, levelId: levelAt(criterion.levels, value).id, points: value }]
  desk.change({ steps })
  store.setOwn(authorId.value!, Object.fromEntries(steps.map(s => [s.criterionId, s.points])), null)
}
const move = (
  add: Array<{ reviewerId: string; entryId: string }>,
  remove: Array<{ reviewerId: string; entryId: string }>,
) =>
  attempt(async () => {
    await store.movePairs(add, remove)
    const [a, r] = [add[0], remove[0]]
    const author = (entryId: string) => nameOf(store.works.find(w => w.id === entryId)?.authorId ?? '')
    const movedSentence = () => {
      if (a && r) return `${nameOf(a.reviewerId)} reads ${author(a.entryId)} now.`
      if (a) return `${nameOf(a.reviewerId)} reads ${author(a.entryId)}, too.`
      return `${nameOf(r!.reviewerId)} no longer reads ${author(r!.entryId)}.`
    }
    notices.say(movedSentence(), { label: 'Undo', run: () => void move(remove, add) })
  })
const release = (released: boolean) =>
  attempt(async () => {
    await store.release(released)
    notices.say(
      released
        ? `Released: ${inWords(teammates.value ? view.value!.people.length : store.works.length)} people are told, all at the same time.`
        : 'Held again. Whoever has read has read.',
      { label: 'Undo', run: () => void release(!released) },
    )
  })
const share = (factors: Array<{ enrolmentId: string; factor: number | null }>) =>
  attempt(async () => {
    const before = factors.map(f => ({
      enrolmentId: f.enrolmentId,
      factor: view.value!.shares?.marks.find(m => m.enrolmentId === f.enrolmentId)?.factor ?? null,
    }))
    await store.share(factors)
    notices.say(
      'The group’s points are shared so. Marks already returned are held again until you return them.',
      { label: 'Undo', run: () => void share(before) },
    )
  })
const open = reactive({ right: false, write: false, samples: false, given: false })
const readers = computed(() =>
  unnamed(
    view.value?.people.filter(
      p => store.works.some(w => w.authorIds.includes(p.id)) || store.real.some(a => a.reviewerId === p.id),
    ) ?? [],
    p => p.id,
  ),
)
const needsRepair = computed(
  () =>
    view.value?.dealtAt !== null &&
    !teammates.value &&
    store.works.some(
      w => store.of(w.id).length < Math.min(view.value!.settings.each, store.works.length - 1),
    ),
)
const keys = computed<Key[]>(() =>
  teammates.value
    ? []
    : [
        { keys: 'j', does: 'the next author', run: () => void turn(1) },
        { keys: 'k', does: 'the author before', run: () => void turn(-1) },
        { keys: 'f', does: 'the next flagged review', run: nextFlagged },
        { keys: 'Enter', does: 'take the consensus and go on', run: () => void take() },
        {
          keys: 'm',
          does: 'mark it yourself',
          run: () => void navigateTo(`${base}/desk?student=${authorId.value}`),
        },
      ],
)
const { listOpen } = useKeys(() => keys.value)
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
const noted = (text: string) => desk.change({ markerNote: text })
function reviewState(a: (typeof reviews.value)[number]) {
  if (a.state !== 'in') return a.openedAt ? 'opened, not in' : 'not begun'
  return `${total(a)} in all · ${runsWords(store.consensus?.severity.get(a.reviewerId) ?? 0)}`
}
</script>

<template>
  <ProblemPage v-if="error || !view || !desk.activity" :sentence="error?.message ?? ''" @retry="refresh()" />
  <div v-else class="peers">
    <header class="desk-head">
      <KindTag kind="review" />
      <h1>
        <NuxtLink :to="base">{{ desk.activity.title }}</NuxtLink>
      </h1>
      <span class="small muted">{{
        teammates
          ? 'teammates review each other'
          : `${inWords(view.settings.each)} readers to each work, names hidden`
      }}</span>
      <span class="grow" />
      <span class="small num"
        ><b>{{ counts.in }}</b> of {{ counts.all }} reviews in<template v-if="late > 0">
          · <b>{{ late }}</b> {{ plural(late, 'reviewer') }} late</template
        ><template v-if="!teammates && flagList.length > 0">
          · <b>{{ flagList.length }}</b> flagged</template
        ></span
      >
      <v-btn v-if="!teammates && flagList.length > 0" @click="nextFlagged">Next flagged <kbd>f</kbd></v-btn>
      <v-btn :aria-pressed="hidden.on.value" @click="hidden.toggle()">{{
        hidden.on.value ? 'Show names' : 'Hide names'
      }}</v-btn>
    </header>
    <template v-if="teammates">
      <TeammateDesk :view="view" :name-of="nameOf" :busy="busy" @share="share" />
      <footer class="foot">
        <b>Release to students</b
        ><span class="two"
          ><button
            type="button"
            :class="{ on: view.releasedAt === null }"
            :aria-pressed="view.releasedAt === null"
            @click="release(false)"
          >
            after I have looked</button
          ><button
            type="button"
            :class="{ on: view.releasedAt !== null }"
            :aria-pressed="view.releasedAt !== null"
            @click="release(true)"
          >
            {{ view.releasedAt ? 'released' : 'now' }}
          </button></span
        >
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
      <aside class="left">
        <AllocationMatrix
          :works="works"
          :readers="readers"
          :allocations="store.real"
          :flagged="store.flagged"
          :severity="store.consensus?.severity ?? new Map()"
          :current="workId"
          :name-of="nameOf"
          may-move
          @choose="show"
          @move="move"
        />
        <p v-if="counts.owing.length > 0" class="owed">
          <span><b>Owed:</b> {{ counts.owing.map(o => `${lastOf(o.id)}\u00a0${o.owes}`).join(', ') }}</span
          ><button class="link" type="button" @click="open.write = true">
            Write to the {{ counts.owing.length === 1 ? 'one' : inWords(counts.owing.length) }}
          </button>
        </p>
        <p class="owed">
          <span v-if="needsRepair" class="warn">Some works lack a reader.</span
          ><span :class="{ wide: !needsRepair }"
            ><button class="link" type="button" @click="open.right = true">Put the deal right</button>{{ ' '
            }}<button class="link" type="button" @click="open.samples = true">Practice round</button></span
          >
        </p>
        <section v-if="flagList.length > 0" class="flags">
          <h2>Flagged</h2>
          <button
            v-for="f in flagList"
            :key="f.reviewId"
            type="button"
            :class="{ on: reviewOfId(f.reviewId)?.entryId === workId }"
            @click="show(reviewOfId(f.reviewId)?.entryId ?? null)"
          >
            <b
              >{{ lastOf(reviewOfId(f.reviewId)!.reviewerId) }} on
              {{ lastOf(reviewOfId(f.reviewId)!.subjectId) }}</b
            ><span>{{ hidden.hide(flagWords(f)) }}</span>
          </button>
        </section>
      </aside>
      <main v-if="work && authorId" :key="work.id" :data-author="authorId">
        <div class="top">
          <p class="whose">
            <b>{{ work.authorIds.map(nameOf).join(', ') }}</b><em v-if="work.title">“{{ work.title }}”</em
            ><span v-if="work.lateMinutes > 0" class="late">handed in late</span>
          </p>
          <ul class="readers">
            <li v-for="a in [...reviews, ...waiting]" :key="a.id">
              <i class="badge" :class="{ hot: store.flagged.has(a.id), wait: a.state !== 'in' }">{{
                initialOf(a.reviewerId)
              }}</i>
              <div>
                <b>{{ nameOf(a.reviewerId) }}</b><span>hidden from {{ givenOf(authorId) }}</span
                ><span class="num" :class="{ hot: store.flagged.has(a.id) }">{{ reviewState(a) }}</span>
              </div>
            </li>
          </ul>
        </div>
        <div v-if="reviews.length > 0" class="scores">
          <ScoreDots
            :criteria="criteria"
            :reviews="reviews"
            :flagged="store.flagged"
            :found="found"
            :own="ownShown"
            :initial-of="initialOf"
            :name-of="nameOf"
          />
        </div>
        <p v-else class="invite pad">No review of this work is in yet.</p>
        <FlagStrip
          v-for="a in strips"
          :key="a.id"
          :allocation="a"
          :flags="flagsOf(a.id)"
          :name="nameOf(a.reviewerId)"
          :leaves="leaves(a.id)"
          :others="others(a.id)"
          :hide="hidden.hide"
          @keep="judge(a.id, { as: 'kept' }, `${givenOf(a.reviewerId)}’s review counts.`)"
          @aside="
            judge(
              a.id,
              { as: 'setAside', reason: $event },
              `${givenOf(a.reviewerId)}’s review is set aside; everything is reckoned anew.`,
            )
          "
          @open="judge(a.id, { as: 'open' }, `${givenOf(a.reviewerId)}’s review counts again.`)"
        />
        <RemarkList
          :criteria="criteria"
          :questions="view.settings.questions"
          :reviews="reviews"
          :flagged="store.flagged"
          :name-of="nameOf"
          :initial-of="initialOf"
          :hide="hidden.hide"
        />
        <GivenByAuthor
          :author-id="authorId"
          :given="givenOf(authorId)"
          :allocations="store.real.filter(a => a.reviewerId === authorId)"
          :criteria="criteria"
          :distances="store.consensus?.distances ?? new Map()"
          :name-of="nameOf"
          :flagged="store.flagged"
        />
      </main>
      <aside v-if="work && authorId" class="right">
        <div class="scrolls">
          <ConsensusPane
            :criteria="criteria"
            :found="found"
            :readers="reviews.filter(a => a.setAside === null).length"
            :own="own"
            :record="desk.record && desk.record.student.id === authorId ? desk.record : null"
            :taken-from="mark?.takenFrom ?? null"
            :takes="store.takes(work.id, authorId)"
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
            @own="setOwn"
            @take="take"
            @note="noted"
            @reopen="reopen(work.id, authorId)"
          />
        </div>
        <div class="release">
          <b>Release to students</b
          ><span class="two"
            ><button
              type="button"
              :class="{ on: view.releasedAt === null }"
              :aria-pressed="view.releasedAt === null"
              @click="release(false)"
            >
              after I have looked at all</button
            ><button
              type="button"
              :class="{ on: view.releasedAt !== null }"
              :aria-pressed="view.releasedAt !== null"
              @click="release(true)"
            >
              {{ view.releasedAt ? 'released' : 'now' }}
            </button></span
          >
        </div>
      </aside>
    </div>
    <PutRightDialog
      v-if="open.right"
      v-model="open.right"
      :activity-id="store.activityId"
      :works="store.works"
      :idle="view.people.filter(p => counts.owing.some(o => o.id === p.id))"
      :willing="view.people.filter(p => p.more > 0).length"
      :name-of="nameOf"
      @done="
        store.refresh().then(() =>
          notices.say('The deal is right again.', {
            label: 'Undo',
            run: () => move($event.remove, $event.add),
          }),
        )
      "
    />
    <WriteToDialog
      v-if="open.write"
      v-model="open.write"
      :activity-id="store.activityId"
      :people="counts.owing"
      :suggestion="`Somebody is waiting for what you have to say about their work. Could you finish your reading of “${desk.activity.title}” by tomorrow evening? If something is in the way, tell me.`"
      @done="
        notices.say(`${inWords($event)} ${plural($event, 'reviewer')} ${$event === 1 ? 'is' : 'are'} told.`)
      "
    />
    <SampleList
      v-if="open.samples"
      v-model="open.samples"
      :view="view"
      :activity-id="store.activityId"
      @changed="store.refresh().then(() => notices.say($event))"
    />
    <KeyList v-model="listOpen" :keys="keys" />
  </div>
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
.owed {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 0.8125rem;
  border-top: 1px solid var(--line);
  padding-top: 9px;
}
.owed .link {
  white-space: nowrap;
}
.owed .link + .link {
  margin-left: 10px;
}
.wide {
  flex: 1;
  display: flex;
  justify-content: space-between;
}
.warn {
  color: var(--ember);
}
.flags {
  border-top: 1px solid var(--line);
  padding-top: 9px;
}
.flags h2 {
  font-size: 0.8125rem;
  color: var(--ink-2);
  letter-spacing: 0;
  margin-bottom: 4px;
}
.flags button {
  display: grid;
  grid-template-columns: 144px 1fr;
  gap: 8px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 3px 4px;
  margin-left: -4px;
  border-radius: 4px;
  font-size: 0.8125rem;
  line-height: 1.35;
  cursor: pointer;
  color: var(--ink);
}
.flags button:hover {
  background: var(--sunken);
}
.flags span {
  color: var(--ink-2);
}
.flags .on b {
  color: var(--brick);
}
.flags b {
  overflow: hidden;
  text-overflow: ellipsis;
}
main {
  overflow-y: auto;
  background: var(--sheet);
  border-left: 1px solid var(--line);
  border-right: 1px solid var(--line);
  min-width: 0;
}
.top {
  padding: 14px 24px 12px;
  border-bottom: 1px solid var(--line-soft);
}
.whose {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}
.whose b {
  font-size: 0.96875rem;
}
.whose em {
  font: italic 400 0.90625rem/1.4 var(--read);
  color: var(--ink-2);
}
.late {
  font-size: 0.78125rem;
  color: var(--ember);
}
.readers {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  margin-top: 9px;
  font-size: 0.8125rem;
}
.readers li {
  display: grid;
  grid-template-columns: 20px auto;
  gap: 8px;
}
.readers div {
  display: grid;
  line-height: 1.4;
}
.readers span {
  color: var(--ink-2);
  font-size: 0.78125rem;
}
.badge {
  width: 19px;
  height: 19px;
  border-radius: 50%;
  background: var(--k-review);
  color: var(--sheet);
  display: grid;
  place-items: center;
  font: 650 0.6875rem/1 var(--ui);
  font-style: normal;
}
.badge.hot {
  background: var(--sheet);
  color: var(--brick);
  box-shadow: inset 0 0 0 1.6px var(--brick);
}
.badge.wait {
  background: var(--sheet);
  color: var(--k-review);
  box-shadow: inset 0 0 0 1.4px var(--k-review);
}
span.hot {
  color: var(--brick) !important;
}
.scores {
  padding: 8px 24px 10px;
  border-bottom: 1px solid var(--line-soft);
}
.pad {
  padding: 24px;
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
.two {
  display: flex;
  border: 1px solid var(--line);
  border-radius: var(--r);
  overflow: hidden;
}
.two button {
  flex: 1 1 auto;
  border: 0;
  background: var(--sheet);
  padding: 7px 11px;
  font: 600 0.8125rem/1.1 var(--ui);
  cursor: pointer;
  color: var(--ink);
}
.two .on {
  background: var(--harbour);
  color: var(--on-harbour);
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
  main,
  .scrolls {
    overflow: visible;
    border: 0;
  }
  main {
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
  }
}
</style>
