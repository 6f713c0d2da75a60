<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import AuthoredPage from '~/kinds/wiki/AuthoredPage.vue'
import ChangedPage from '~/kinds/wiki/ChangedPage.vue'
import CommentsDigest from '~/kinds/wiki/CommentsDigest.vue'
import HistoryNav from '~/kinds/wiki/HistoryNav.vue'
import HistoryTabs from '~/kinds/wiki/HistoryTabs.vue'
import MarkMember from '~/kinds/wiki/MarkMember.vue'
import SharesPane from '~/kinds/wiki/SharesPane.vue'
import MemberSteps from '~/components/marking/MemberSteps.vue'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { usePageHistory } from '~/kinds/wiki/usePageHistory'
import { useTimes } from '~/composables/planning/useTimes'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useWikiStore } from '~/stores/wiki'
import TextButton from '~/components/controls/TextButton.vue'

/** The history of a wiki: two versions compared, who wrote what, what each member put in; for staff, marked beside it. */
definePageMeta({ layout: 'seminar', key: route => `history-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = useWikiStore()
const desk = useDeskStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const activityId = String(route.params.activityId)
const base = `/seminars/${String(route.params.seminarId)}/activities/${activityId}`
const queried = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : null)
const { error, refresh } = await useAsyncData(`history-${activityId}`, async () => {
  await store.load(activityId, queried('group'), queried('page'))
  await Promise.all([
    store.loadShares(),
    seminar.isStaff ? desk.load(activityId, queried('student')) : Promise.resolve(),
  ])
  // the first member of this wiki, not the first of the class
  const first = store.shares?.members[0]?.member.id
  if (desk.desk && !queried('student') && first) await desk.show(first)
  return true
})
const view = computed(() => store.view)
const page = computed(() => store.page)
const shares = computed(() => store.shares)
const members = computed(() => shares.value?.members.map(m => m.member) ?? [])
useHead({ title: () => `${page.value?.title ?? 'Wiki'}: versions` })

const tab = ref<'changes' | 'authors'>('changes')
const short = ref(true)
const only = ref<string | null>(null)
const {
  a,
  b,
  newest,
  compared,
  authored,
  failed,
  playing,
  words: spanWords,
  compare,
  choose,
  step: stepVersion,
  stop,
  play: playOn,
  toNewest,
} = usePageHistory(
  () => page.value,
  { a: queried('a'), b: queried('b') },
  () => remember(),
)
function play() {
  if (!playing.value) short.value = false
  playOn()
}
const authorById = computed(() => new Map(shares.value?.authors.map(x => [x.origin, x.author])))
const shades = computed(() => {
  const there = new Set(
    authored.value?.flatMap(x =>
      x.runs.filter(r => r.words > 0).map(r => authorById.value.get(r.origin)?.id),
    ) ?? [],
  )
  return members.value.filter(m => there.has(m.id))
})

async function attempt(act: () => Promise<unknown>) {
  try {
    await act()
  } catch (problem) {
    notices.warn(problem)
  }
}
function remember() {
  void router.replace({
    query: {
      ...(view.value?.groupId && { group: view.value.groupId }),
      ...(page.value && { page: page.value.id }),
      a: String(a.value),
      b: String(b.value),
      ...(desk.currentId && seminar.isStaff && { student: desk.currentId }),
    },
  })
}
const open = (id: string) =>
  attempt(async () => {
    stop()
    await store.open(id)
    toNewest()
    remember()
  })
const toGroup = (id: string | null) =>
  attempt(async () => {
    stop()
    await store.load(activityId, id, null)
    await store.loadShares()
    toNewest()
    only.value = null
    if (seminar.isStaff && members.value[0]) await desk.show(members.value[0].id)
    remember()
  })
function nextGroup() {
  const wikis = view.value?.wikis ?? []
  const at = wikis.findIndex(w => w.groupId === view.value?.groupId)
  const next = wikis[(at + 1) % wikis.length]
  if (next) void toGroup(next.groupId)
}
const member = computed(() => desk.currentId)
const showMember = (id: string) =>
  attempt(async () => {
    await desk.show(id)
    remember()
  })
function nextMember(by: number) {
  const at = members.value.findIndex(m => m.id === member.value)
  const next = members.value[at + by]
  if (next) void showMember(next.id)
  else if (by > 0) nextGroup()
}
const upcoming = computed(
  () => members.value[members.value.findIndex(m => m.id === member.value) + 1] ?? null,
)
function setStep(criterionId: string, levelId: string | null) {
  const r = desk.record
  const criterion = r?.rubric?.criteria.find(c => c.id === criterionId)
  const level = criterion?.levels.find(l => l.id === levelId)
  if (!r || !criterion) return
  const rest = r.mark.steps.filter(s => s.criterionId !== criterionId)
  desk.change({ steps: level ? [...rest, { criterionId, levelId: level.id, points: level.points }] : rest })
}
const restore = () =>
  attempt(async () => {
    const { id, number } = page.value!
    const back = b.value
    const answer = await store.restore(id, back, number)
    await store.loadShares()
    choose(back, answer.number)
    notices.say(`Version ${answer.number} says what version ${back} said. Nothing in between is lost.`, {
      label: 'Undo',
      run: () =>
        void attempt(async () => {
          const again = await store.restore(id, number, answer.number)
          choose(answer.number, again.number)
        }),
    })
  })

const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next version', run: () => stepVersion(1) },
  { keys: 'k', does: 'the version before', run: () => stepVersion(-1) },
  { keys: 'h', does: 'play the history, or stop it', run: play },
  {
    keys: 'w',
    does: 'changes, or who wrote what',
    run: () => {
      tab.value = tab.value === 'changes' ? 'authors' : 'changes'
    },
  },
  ...(seminar.isStaff
    ? [
        { keys: ']', does: 'the next member', run: () => nextMember(1) },
        { keys: '[', does: 'the member before', run: () => nextMember(-1) },
        { keys: 'g', does: 'the next group', run: nextGroup },
        {
          keys: 'm',
          does: 'mark on the desk',
          run: () => {
            if (member.value) void navigateTo(`${base}/desk?student=${member.value}`)
          },
        },
      ]
    : []),
])
useKeys(() => keys.value)
onBeforeUnmount(() => {
  if (seminar.isStaff) void desk.save()
})
const PHASE_WORDS: Partial<Record<string, string>> = {
  write: 'writing together',
  respond: 'commenting',
  revise: 'revising',
}
const phaseWords = computed(() => {
  const { phase, until } = view.value ?? {}
  if (!phase || !until) return null
  return `${PHASE_WORDS[phase] ?? phase} until ${dayTime(until).split(',')[0]}`
})
const sentence = computed(() =>
  [members.value.map(m => (m.isMe ? 'you' : m.name)).join(', '), phaseWords.value]
    .filter(Boolean)
    .join(' · '),
)
const calledGiven = computed(
  () => members.value.find(m => m.id === member.value)?.givenName ?? desk.record?.student.givenName ?? '',
)
function showOnly(memberId: string | null) {
  only.value = memberId
  if (memberId && seminar.isStaff) void showMember(memberId)
}
const saidWords = computed(() =>
  tab.value === 'changes'
    ? spanWords.value
    : `Version ${b.value}, every word under whoever wrote it first, wherever it was moved since.`,
)
const emptyWords = computed(() =>
  page.value
    ? 'Nothing has been saved on this page yet. Its versions will stand here, each with what it changed.'
    : 'No pages have been written in this wiki yet. Choose another group, or come back when they have begun.',
)
const pageTo = computed(() => ({
  path: base,
  query: page.value ? { ...(view.value?.groupId && { group: view.value.groupId }), page: page.value.id } : {},
}))
const marked = computed(() => members.value.find(m => m.id === member.value) ?? null)
const upcomingWords = computed(() =>
  upcoming.value ? `Next member: ${upcoming.value.givenName}` : 'Next group',
)
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="history">
    <header class="desk-head">
      <KindTag kind="wiki" />
      <h1>
        <NuxtLink :to="pageTo">{{ view.title }}</NuxtLink>
      </h1>
      <span class="small muted sentence">{{ sentence }}</span>
      <span class="grow" />
      <v-btn v-if="newest > 1" :aria-pressed="playing" @click="play"
        >{{ playing ? 'Stop' : 'Play the history' }} <KeyHint of="h"
      /></v-btn>
      <v-btn v-if="view.wikis.length > 1" @click="nextGroup"
        >Next group <KeyHint v-if="seminar.isStaff" of="g"
      /></v-btn>
    </header>
    <div class="panes">
      <HistoryNav :page="page" :newest="newest" :a="a" :b="b" @open="open" @choose="choose" />
      <div class="middle">
        <HistoryTabs
          v-if="page && newest > 0"
          v-model="tab"
          v-model:short="short"
          v-model:only="only"
          :members="members"
          :shades="shades"
        />
        <div class="text">
          <p v-if="failed" class="field-problem" role="alert">
            {{ failed }} <TextButton @click="compare">Try again</TextButton>
          </p>
          <template v-else-if="page && newest > 0">
            <p class="say" role="status">
              {{ saidWords }}
              <TextButton v-if="view.may.write && b < newest" @click="restore">
                Restore version {{ b }}
              </TextButton>
            </p>
            <h2>{{ page.title }}</h2>
            <ChangedPage v-if="tab === 'changes' && compared" :blocks="compared.blocks" :short="short" />
            <AuthoredPage
              v-else-if="tab === 'authors' && authored"
              :blocks="authored"
              :author-of="o => authorById.get(o) ?? null"
              :members="members"
              :only="only"
            />
            <p v-else class="wait" role="status">Comparing …</p>
          </template>
          <p v-else class="empty">
            {{ emptyWords }}
          </p>
        </div>
      </div>
      <aside>
        <SharesPane v-if="shares" :shares="shares" :only="only" @only="showOnly" />
        <MemberSteps
          v-if="seminar.isStaff && desk.record?.rubric && marked"
          :rubric="desk.record.rubric"
          :record="desk.record"
          :called="calledGiven"
          @step="setStep"
        />
        <CommentsDigest v-if="page" :comments="page.comments" />
        <MarkMember
          v-if="seminar.isStaff && marked"
          :given-name="calledGiven"
          :desk-to="`${base}/desk?student=${marked.id}`"
          :next="upcomingWords"
          :state="desk.state"
          :problem="desk.problem"
          @next="nextMember(1)"
        />
      </aside>
    </div>
  </main>
</template>

<style scoped>
.history {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.sentence {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  max-width: 46vw;
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 256px minmax(0, 1fr) 340px;
}
.middle {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
  border-right: 1px solid var(--line);
  min-width: 0;
}
.text {
  overflow-y: auto;
  padding: 14px 40px 60px;
  flex: 1;
}
.text > * {
  max-width: 44em;
}
.say {
  font: italic 400 0.875rem/1.5 var(--read);
  color: var(--ink-3);
}
.say .link {
  font: 500 0.8125rem/1 var(--ui);
  margin-left: 6px;
}
h2 {
  font: 600 1.3125rem/1.4 var(--read);
  margin: 6px 0 8px;
}
.wait,
.empty {
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
  padding: 10px 0;
}
aside {
  overflow-y: auto;
  padding: 12px 20px 0;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
aside > :deep(section + section) {
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
@media (min-width: 1600px) {
  .panes {
    grid-template-columns: 320px minmax(0, 1fr) 420px;
  }
}
@media (max-width: 1000px) {
  .history {
    overflow: auto;
  }
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
  .panes > * {
    border-right: 0;
    overflow: visible;
    border-bottom: 1px solid var(--line);
  }
  .text {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
