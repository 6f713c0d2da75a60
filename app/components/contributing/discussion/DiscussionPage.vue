<script setup lang="ts">
import { orderThreads, type ThreadOrder } from '#core/contributing/buildThread'
import type { ContributionView } from '#shared/contributing/thread'
import { capital, inWords, plural } from '../../../composables/planning/expectationWords'
import { useKeys, type Key } from '../../../composables/shell/useKeys'
import { useThreadDesk } from '../../../composables/contributing/useThreadDesk'
import { useTimes } from '../../../composables/planning/useTimes'
import { useNotices } from '../../../stores/notices'
import { useSeminarStore } from '../../../stores/seminar'
import { useThreadStore } from '../../../stores/thread'
import KindTag from '../../planning/KindTag.vue'
import ActivityBrief from '../../planning/ActivityBrief.vue'
import PhaseTrack from '../../planning/PhaseTrack.vue'
import KeyList from '../../shell/KeyList.vue'
import TalkMargin from './TalkMargin.vue'
import ThreadPost from './ThreadPost.vue'
import WriteBox from './WriteBox.vue'

const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const { desk, focusPost } = useThreadDesk()
const activity = computed(() => store.activity!)
const order = ref<ThreadOrder>('talk')
const onlyFrom = ref<string | null>(null)
const briefOpen = ref(false)
const ORDERS: ReadonlyArray<readonly [ThreadOrder, string]> = [['talk', 'In order of talk'], ['newest', 'Newest first'], ['unanswered', 'Unanswered first'], ['onlyNew', 'Only new']]

const isNew = (c: ContributionView) => c.view === 'whole' && c.isNew
const threads = computed(() => orderThreads(store.roots, order.value, isNew))
const theirs = computed(() => onlyFrom.value ? store.whole.filter(c => c.author.id === onlyFrom.value).map(item => ({ item, replies: [] })) : [])
const openings = computed(() => store.whole.filter(c => c.parentId === null && !c.withdrawn))
const replies = computed(() => store.whole.length - openings.value.length)
const mine = computed(() => openings.value.find(c => c.author.isMe) ?? null)
const asksOpening = computed(() => seminar.isStudent && !mine.value && desk.mayWrite)
const fresh = computed(() => store.whole.filter(c => c.isNew))
const unanswered = computed(() => store.roots.filter(r => r.replies.length === 0 && r.item.view === 'whole' && !r.item.author.isMe).map(r => r.item))
const staffWords = computed(() => store.whole.filter(c => c.author.isStaff))
const lonely = computed(() => seminar.isStudent ? openings.value.find(c => !c.author.isMe && c.id === unanswered.value[0]?.id) ?? null : null)
const minOpening = computed(() => activity.value.expectations.map(e => e.rule).find(r => r.kind === 'entries')?.minWords ?? 1)
const closed = computed(() => activity.value.closesAt < (seminar.shell?.now ?? ''))
const lists = { fresh, unanswered, instructor: staffWords }

/** The next of a list after the post one is at; from its end, the first again. */
function jump(to: keyof typeof lists, step = 1) {
  const ids = lists[to].value.map(c => c.id)
  if (ids.length === 0) return
  const at = ids.indexOf(document.activeElement?.id.replace(/^c-/, '') ?? '')
  void focusPost(ids[(at + (at < 0 && step < 0 ? 0 : step) + ids.length) % ids.length]!)
}
const focused = () => store.whole.find(c => `c-${c.id}` === document.activeElement?.id)
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'next new post, or the next post', run: () => fresh.value.length > 0 ? jump('fresh') : step(1) },
  { keys: 'k', does: 'the one before', run: () => fresh.value.length > 0 ? jump('fresh', -1) : step(-1) },
  { keys: 'u', does: 'next unanswered post', run: () => jump('unanswered') },
  { keys: 'i', does: 'next word of the instructor', run: () => jump('instructor') },
  { keys: 'r', does: 'reply to the post you are at', run: () => { const c = focused(); if (c && desk.mayWrite) desk.reply(c.id) } },
  { keys: 'n', does: 'nod at it', run: () => { const c = focused(); if (c && !c.author.isMe && desk.mayWrite) desk.nod(c.id) } },
  { keys: 'o', does: 'unfold or fold it', run: () => { const c = focused(); if (c) desk.toggleFold(c.id) } },
])
function step(by: number) {
  const posts = [...document.querySelectorAll<HTMLElement>('article[id^="c-"]')]
  const at = posts.findIndex(p => p === document.activeElement)
  const next = posts[at < 0 ? 0 : at + by]
  next?.focus({ preventScroll: true })
  next?.scrollIntoView({ block: 'center' })
}
const { listOpen } = useKeys(() => keys.value)

async function openingPosted(id: string) {
  await store.refresh()
  const others = openings.value.length - 1
  notices.say(`Your opening post is in. ${others > 0 ? `${capital(inWords(others))} ${plural(others, 'classmate', 'classmates')} ${others === 1 ? 'has' : 'have'} written too.` : 'You are the first.'}`, { label: 'Withdraw it', run: () => desk.withdraw(id) })
  await focusPost(id)
}
const refreshQuietly = () => { if (document.visibilityState === 'visible' && desk.replyTo.value === null && !asksOpening.value) store.refresh().catch(() => {}) }
onMounted(() => {
  const draft = store.thread?.drafts.find(d => d.parentId !== null && store.whole.some(c => c.id === d.parentId))
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  if (target) void focusPost(target)
  else if (draft && desk.mayWrite) desk.reply(draft.parentId!, false)
  if (!store.thread?.waiting) void Promise.resolve(store.recordVisit()).catch(() => {})
  window.addEventListener('visibilitychange', refreshQuietly)
})
onBeforeUnmount(() => window.removeEventListener('visibilitychange', refreshQuietly))
</script>

<template>
  <div class="discussion">
    <header>
      <div>
        <p class="head"><KindTag :kind="activity.kind" /><span v-if="closed" class="muted small">closed {{ dayTime(activity.closesAt) }}</span><NuxtLink v-if="seminar.isStaff" class="small" :to="`/seminars/${activity.seminarId}/activities/${activity.id}/desk`">Open the marking desk</NuxtLink><NuxtLink v-if="seminar.shell?.role === 'instructor'" class="small" :to="`/seminars/${activity.seminarId}/activities/${activity.id}/plan`">Change the plan</NuxtLink><NuxtLink v-if="activity.standing === 'returned'" class="small" :to="`/seminars/${activity.seminarId}/activities/${activity.id}/letter`">Read your letter</NuxtLink></p>
        <h1>{{ activity.title }}</h1>
        <p class="brief">{{ activity.summary }} <button class="link" type="button" :aria-expanded="briefOpen" @click="briefOpen = !briefOpen">{{ briefOpen ? 'fold the brief' : 'read the whole brief' }}</button></p>
      </div>
      <PhaseTrack :phases="activity.phases" :own-at="mine?.shownAt ?? null" />
      <ActivityBrief v-if="briefOpen" class="whole" :activity="activity" />
    </header>
    <div class="talk">
      <main>
        <section v-if="asksOpening" class="opening">
          <h2>Write before you read</h2>
          <p v-if="store.thread?.waiting && activity.hiddenUntil">The others’ posts are shown to everyone {{ dayTime(activity.hiddenUntil) }}. Until then each writes without having read.</p>
          <p v-else-if="store.thread?.waiting">The others’ posts appear here as soon as your own is in. Take a view of your own first; you can change it for {{ activity.editMinutes }} minutes after posting.</p>
          <p v-if="closed" class="late">This closed {{ dayTime(activity.closesAt) }}. What you post now is added and counts as late.</p>
          <WriteBox :activity-id="activity.id" :parent-id="null" to="" :min-words="minOpening" :stored="store.draftAt(null)" :takes-up="null" :autofocus="false" @posted="openingPosted" />
        </section>
        <template v-if="!store.thread?.waiting">
          <div class="sort">
            <span><b>{{ openings.length }}</b> opening {{ plural(openings.length, 'post') }}, <b>{{ replies }}</b> {{ plural(replies, 'reply', 'replies') }}</span>
            <span class="grow" />
            <template v-if="onlyFrom"><span>only {{ theirs[0]?.item.author.name }}</span><button class="link" type="button" @click="onlyFrom = null">everyone</button></template>
            <span v-else class="orders" role="group" aria-label="Order"><button v-for="[value, label] in ORDERS" :key="value" type="button" :class="{ on: order === value }" :aria-pressed="order === value" @click="order = value">{{ label }}</button></span>
          </div>
          <div class="thread">
            <template v-if="onlyFrom"><ThreadPost v-for="node in theirs" :key="node.item.id" class="root" :node="node" :desk="desk" /></template>
            <template v-else><ThreadPost v-for="node in threads" :key="node.item.id" class="root" :node="node" :desk="desk" /></template>
            <p v-if="threads.length === 0 && order === 'onlyNew'" class="empty">Nothing new since you were last here.</p>
            <p v-else-if="threads.length === 0" class="empty">Nobody has written yet. The first post sets length and tone: a view, one passage it rests on, and what it cannot show.</p>
          </div>
        </template>
        <div v-else class="veil" aria-hidden="true"><i v-for="n in 5" :key="n" :style="{ width: `${[92, 78, 85, 64, 88][n - 1]}%` }" /></div>
      </main>
      <TalkMargin
        :activity="activity" :checks="store.thread?.checks ?? []" :contributions="store.whole.filter(() => !store.thread?.waiting)" :not-heard="store.thread?.notHeard ?? []"
        :counts="{ fresh: fresh.length, unanswered: unanswered.length, instructor: staffWords.length }" :only-from="onlyFrom" :lonely="lonely"
        @jump="jump" @go-to="focusPost" @only="onlyFrom = $event"
      />
    </div>
    <KeyList v-model="listOpen" :keys="keys" />
  </div>
</template>

<style scoped>
.discussion { flex: 1; min-height: 0; display: flex; flex-direction: column; }
header { flex: none; display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 520px); gap: 0 44px; padding: 12px 20px 8px; border-bottom: 1px solid var(--line); }
.head { display: flex; gap: 14px; align-items: baseline; flex-wrap: wrap; min-height: 18px; }
h1 { font: 600 1.3125rem/1.2 var(--read); margin-top: 3px; }
.brief { font: 400 0.90625rem/1.5 var(--read); color: var(--ink-2); margin-top: 5px; }
.brief .link { font: 500 0.8125rem/1 var(--ui); white-space: nowrap; }
.whole { grid-column: 1 / -1; border-top: 1px solid var(--line-soft); margin-top: 8px; padding: 12px 0 10px; max-width: 74ch; max-height: 40vh; overflow: auto; }
.talk { flex: 1; min-height: 0; display: grid; grid-template-columns: minmax(0, 1fr) 322px; }
main { background: var(--sheet); border-right: 1px solid var(--line); overflow-y: auto; position: relative; }
.sort { display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: center; min-height: 34px; padding: 4px 22px 4px 20px; font-size: 0.78125rem; color: var(--ink-2); border-bottom: 1px solid var(--line-soft); position: sticky; top: 0; background: var(--sheet); z-index: 5; }
.sort b { color: var(--ink); }
.orders { display: flex; gap: 16px; flex-wrap: wrap; }
.orders button { background: none; border: 0; padding: 5px 0; color: inherit; cursor: pointer; }
.orders .on { color: var(--ink); font-weight: 650; box-shadow: 0 2px 0 var(--harbour); border-radius: 0; }
.thread { padding: 12px 138px 60px 118px; }
.root + .root { margin-top: 20px; }
.empty { color: var(--ink-2); font: 400 1rem/1.55 var(--read); padding: 20px 0; }
.opening { padding: 18px 40px 22px; max-width: 860px; }
.opening h2 { font: 600 1.125rem/1.3 var(--read); }
.opening > p { color: var(--ink-2); margin: 3px 0 12px; max-width: 62ch; }
.opening .late { color: var(--ember); }
.veil { padding: 18px 40px; display: grid; gap: 12px; max-width: 860px; }
.veil i { height: 11px; border-radius: 3px; background: var(--line-soft); }
@media (max-width: 1000px) {
  header { grid-template-columns: 1fr; gap: 10px; }
  .talk { grid-template-columns: 1fr; }
  main { border-right: 0; order: 1; }
  .talk :deep(.margin) { order: 0; border-bottom: 1px solid var(--line); }
}
@media (max-width: 760px) {
  header { padding: 10px 14px; }
  .thread { padding: 12px 14px 60px 22px; }
  .opening, .veil { padding: 16px 14px; }
  .sort { padding: 6px 14px; position: static; }
}
</style>
