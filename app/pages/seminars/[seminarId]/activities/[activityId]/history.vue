<script setup lang="ts">
import AuthoredPage from '~/components/contributing/wiki/AuthoredPage.vue'
import ChangedPage from '~/components/contributing/wiki/ChangedPage.vue'
import SharesPane from '~/components/contributing/wiki/SharesPane.vue'
import VersionRail from '~/components/contributing/wiki/VersionRail.vue'
import { toneOf } from '~/components/contributing/wiki/memberTones'
import MemberSteps from '~/components/marking/MemberSteps.vue'
import KindTag from '~/components/planning/KindTag.vue'
import KeyList from '~/components/shell/KeyList.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { usePageHistory } from '~/composables/contributing/wiki/usePageHistory'
import { inWords } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useWikiStore } from '~/stores/wiki'

/** The history of a wiki: two versions compared, who wrote what, what each member put in; for staff, marked beside it. */
definePageMeta({ layout: 'seminar', key: route => `history-${String(route.params.activityId)}` })
const route = useRoute()
const router = useRouter()
const store = useWikiStore()
const desk = useDeskStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { shortDayTime, dayTime } = useTimes()
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
  look,
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
const { listOpen } = useKeys(() => keys.value)
onBeforeUnmount(() => {
  if (seminar.isStaff) void desk.save()
})
const sentence = computed(() =>
  [
    members.value.map(m => (m.isMe ? 'you' : m.name)).join(', '),
    view.value?.phase && view.value.until
      ? `${{ write: 'writing together', respond: 'commenting', revise: 'revising' }[view.value.phase] ?? view.value.phase} until ${dayTime(view.value.until).split(',')[0]}`
      : null,
  ]
    .filter(Boolean)
    .join(' · '),
)
const calledGiven = computed(
  () => members.value.find(m => m.id === member.value)?.givenName ?? desk.record?.student.givenName ?? '',
)
const roots = computed(() => page.value?.comments.filter(c => c.parentId === null && !c.withdrawn) ?? [])
const plain = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replaceAll('&amp;', '&')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replace(/\s+/g, ' ')
    .trim()
function showOnly(memberId: string | null) {
  only.value = memberId
  if (memberId && seminar.isStaff) void showMember(memberId)
}
function claimedWords(line: (typeof store.inTree)[number]['line']) {
  if (line.claimedBy) return line.claimedBy.isMe ? 'you' : line.claimedBy.givenName
  return 'everyone'
}
const deskState = computed(() => {
  if (desk.state === 'saved') return ''
  if (desk.state === 'saving') return 'saving …'
  return desk.problem ?? desk.state
})
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <div v-else class="history">
    <header class="desk-head">
      <KindTag kind="wiki" />
      <h1>
        <NuxtLink
          :to="`${base}${page ? `?${view.groupId ? `group=${view.groupId}&` : ''}page=${page.id}` : ''}`"
          >{{ view.title }}</NuxtLink
        >
      </h1>
      <span class="small muted sentence">{{ sentence }}</span>
      <span class="grow" />
      <v-btn v-if="newest > 1" :aria-pressed="playing" @click="play"
        >{{ playing ? 'Stop' : 'Play the history' }} <kbd>h</kbd></v-btn
      >
      <v-btn v-if="view.wikis.length > 1" @click="nextGroup"
        >Next group <kbd v-if="seminar.isStaff">g</kbd></v-btn
      >
    </header>
    <div class="panes">
      <nav aria-label="Pages and versions">
        <p class="head">Pages <span>claimed by</span></p>
        <ul>
          <li v-for="{ line, depth } in store.inTree" :key="line.id">
            <button
              type="button"
              :class="{ on: line.id === page?.id }"
              :style="{ paddingLeft: `${16 + depth * 14}px` }"
              @click="open(line.id)"
            >
              <span>{{ line.title }}</span><em>{{
                [claimedWords(line), line.versions === 0 ? 'no text yet' : null].filter(Boolean).join(', ')
              }}</em>
            </button>
          </li>
        </ul>
        <template v-if="page && newest > 0"
          ><p class="head versions">
            Versions
            <span
              title="A click takes the version with the one before it; with Shift, it is compared from there."
              >choose two</span
            >
          </p>
          <VersionRail :versions="page.versions" :a="a" :b="b" @choose="choose"
        /></template>
      </nav>
      <main class="middle">
        <div v-if="page && newest > 0" class="tabs">
          <button
            type="button"
            :class="{ on: tab === 'changes' }"
            :aria-pressed="tab === 'changes'"
            @click="tab = 'changes'"
          >
            Changes
          </button>
          <button
            type="button"
            :class="{ on: tab === 'authors' }"
            :aria-pressed="tab === 'authors'"
            @click="tab = 'authors'"
          >
            Who wrote what
          </button>
          <span class="grow" />
          <template v-if="tab === 'changes'"
            ><span class="key"><ins>added</ins> <del>removed</del> <i>moved</i></span
            ><button class="link small" type="button" :aria-pressed="!short" @click="short = !short">
              {{ short ? 'show the whole page' : 'only what changed' }}
            </button></template
          >
          <span v-else class="key"
            ><button
              v-for="m in shades"
              :key="m.id"
              type="button"
              class="shade"
              :style="toneOf(members, m.id)"
              :aria-pressed="only === m.id"
              @click="only = only === m.id ? null : m.id"
            >
              <b>{{ m.initials }}</b> {{ m.givenName }}
            </button></span
          >
        </div>
        <div class="text">
          <p v-if="failed" class="field-problem" role="alert">
            {{ failed }} <button class="link" type="button" @click="look">Try again</button>
          </p>
          <template v-else-if="page && newest > 0">
            <p class="say" role="status">
              {{
                tab === 'changes'
                  ? spanWords
                  : `Version ${b}, every word under whoever wrote it first, wherever it was moved since.`
              }}
              <button v-if="view.may.write && b < newest" class="link" type="button" @click="restore">
                Bring version {{ b }} back
              </button>
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
            {{
              page
                ? 'Nothing has been saved on this page yet. Its versions will stand here, each with what it changed.'
                : 'No pages have been written in this wiki yet. Choose another group, or come back when they have begun.'
            }}
          </p>
        </div>
      </main>
      <aside>
        <SharesPane v-if="shares" :shares="shares" :only="only" @only="showOnly" />
        <MemberSteps
          v-if="seminar.isStaff && desk.record?.rubric && members.some(m => m.id === member)"
          :rubric="desk.record.rubric"
          :record="desk.record"
          :called="calledGiven"
          @step="setStep"
        />
        <section v-if="roots.length > 0" class="talk">
          <h2>
            Comments on this page
            <span
              >{{ roots.length }},
              {{
                roots.filter(c => !c.resolved).length === 0
                  ? 'all acted on'
                  : `${inWords(roots.filter(c => !c.resolved).length)} open`
              }}</span
            >
          </h2>
          <p v-for="c in roots" :key="c.id" class="comment" :class="{ done: c.resolved }">
            <span
              ><em>{{ c.author.isMe ? 'You' : c.author.givenName }}</em> {{ plain(c.html) }}</span
            ><b>{{
              c.resolved
                ? `acted on in version ${c.resolved.number} by ${c.resolved.writer.givenName}`
                : `open since ${shortDayTime(c.shownAt).split(' ')[0]}`
            }}</b>
          </p>
        </section>
        <div v-if="seminar.isStaff && member && members.some(m => m.id === member)" class="foot">
          <v-btn class="main" :to="`${base}/desk?student=${member}`">Mark {{ calledGiven }}</v-btn
          ><v-btn @click="nextMember(1)"
            >{{ upcoming ? `Next member: ${upcoming.givenName}` : 'Next group' }} <kbd>]</kbd></v-btn
          ><span class="hint" role="status">{{ deskState }}</span>
        </div>
      </aside>
    </div>
    <KeyList v-model="listOpen" :keys="keys" />
  </div>
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
nav {
  border-right: 1px solid var(--line);
  overflow-y: auto;
  padding-top: 12px;
  font-size: 0.8125rem;
}
nav ul {
  list-style: none;
}
nav ul button {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 16px;
  border-left: 4px solid transparent;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink);
}
nav ul button:hover {
  background: var(--sunken);
}
nav ul .on {
  background: var(--sheet);
  border-left-color: var(--k-wiki);
  font-weight: 650;
}
nav em {
  font-style: normal;
  font-weight: 400;
  color: var(--ink-3);
  text-align: right;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 0 20px;
  font-weight: 650;
  line-height: 18px;
  margin-bottom: 4px;
}
.head span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.versions {
  margin-top: 14px;
}
.middle {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
  border-right: 1px solid var(--line);
  min-width: 0;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  padding: 8px 40px 0;
  min-height: 44px;
  border-bottom: 1px solid var(--line-soft);
  font-size: 0.84375rem;
}
.tabs > button:not(.link) {
  border: 0;
  background: none;
  padding: 6px 0 8px;
  cursor: pointer;
  color: var(--ink-2);
  border-bottom: 2px solid transparent;
  margin-bottom: -1px;
}
.tabs > button.on:not(.link) {
  color: var(--ink);
  font-weight: 650;
  border-bottom-color: var(--harbour);
}
.key {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font: 400 0.875rem/1.4 var(--read);
}
.key ins {
  text-decoration: underline;
  text-decoration-color: var(--moss);
  text-decoration-thickness: 2px;
  background: var(--moss-soft);
}
.key del {
  color: var(--brick);
}
.key i {
  font-style: normal;
  color: var(--k-review);
  border-left: 4px double var(--k-review);
  padding-left: 6px;
}
.shade {
  border: 0;
  background: color-mix(in srgb, var(--tone) 16%, transparent);
  border-bottom: 2px solid var(--tone);
  font: 400 0.8125rem/1.5 var(--ui);
  padding: 0 6px;
  cursor: pointer;
  color: var(--ink);
}
.shade b {
  font-size: 0.6875rem;
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
.talk h2 {
  font: 650 0.8125rem/18px var(--ui);
  margin: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.talk h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.comment {
  border-left: 2.5px dashed var(--ember);
  padding-left: 12px;
  margin-top: 9px;
  font: 400 0.9375rem/1.35 var(--read);
}
.comment span {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.comment.done {
  border-left: 2.5px solid var(--moss);
}
.comment em {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
  margin-right: 3px;
}
.comment b {
  font: 600 0.75rem/17px var(--ui);
  color: var(--ember);
}
.comment.done b {
  color: var(--moss);
}
.foot {
  position: sticky;
  bottom: 0;
  background: var(--sunken);
  margin: auto -20px 0;
  padding: 11px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
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
  .text,
  .tabs {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
