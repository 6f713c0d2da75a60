<script setup lang="ts">
import { buildThread, orderThreads, type ThreadOrder } from '#core/contributing/buildThread'
import { threadRows } from '#core/contributing/threadRows'
import type { ContributionView } from '#shared/contributing/thread'
import { capital, inWords, plural } from '#core/language'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '../ActivityPage.vue'
import ArrivedBar from '../ArrivedBar.vue'
import LookAlikes from '../LookAlikes.vue'
import TalkOut from '../TalkOut.vue'
import WriteBox from '../WriteBox.vue'
import TalkMargin from './TalkMargin.vue'
import TalkRows from './TalkRows.vue'
import * as contributingEndpoints from '#shared/contributing/endpoints'

const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const api = useApi()
const rowList = ref<InstanceType<typeof TalkRows> | null>(null)
const scroller = ref<HTMLElement | null>(null)
const { desk, uncover } = useTalkDesk(id => focusPost(id))
const live = useLiveTalk(() => rowList.value?.hold())
const activity = computed(() => store.activity!)
const order = ref<ThreadOrder>('talk')
const onlyFrom = ref<string | null>(null)
const ORDERS: ReadonlyArray<readonly [ThreadOrder, string]> = [
  ['talk', 'In order of talk'],
  ['newest', 'Newest first'],
  ['answers', 'Most answers'],
  ['unanswered', 'Unanswered first'],
  ['onlyNew', 'Only new'],
]

const isNew = (c: ContributionView) => c.view === 'whole' && c.isNew
const onlyCircle = ref<string | null>(null) // staff read one section or group where each talks by itself
const roots = computed(() =>
  onlyCircle.value
    ? buildThread(
        store.contributions.filter(
          c => c.view === 'whole' && (c.circle === null || c.circle === onlyCircle.value),
        ),
      )
    : store.roots,
)
const threads = computed(() => orderThreads(roots.value, order.value, isNew))
const LONG_THREAD = 12 // answers from which a thread stands folded
const theirs = computed(() =>
  store.whole.filter(c =>
    onlyFrom.value === 'held' ? c.state === 'awaitingApproval' : c.author.id === onlyFrom.value,
  ),
)
const found = shallowRef<ReadonlySet<string> | null>(null)
const words = ref('')
/** What is laid out: the threads, one person's posts, what is held, or what was found. */
const rows = computed(() => {
  const findAlone = () => {
    if (found.value) return store.whole.filter(c => found.value!.has(c.id))
    if (onlyFrom.value) return theirs.value
    return null
  }
  const alone = findAlone()
  return threadRows<ContributionView>(alone ? alone.map(item => ({ item, replies: [] })) : threads.value, {
    folded: desk.foldedThreads,
    unfolded: desk.openThreads,
    longThread: LONG_THREAD,
    replyTo: desk.replyTo.value,
    isNew,
  })
})
const held = computed(() => store.whole.filter(c => c.state === 'awaitingApproval'))
const byQuestion = computed(() => activity.value.talk.threads === 'staff')
const opening = ref(false) // a further thread is being begun
async function search() {
  const q = words.value.trim()
  if (q.length < 2) {
    found.value = null
    return
  }
  try {
    found.value = new Set(
      (
        await api.call(contributingEndpoints.findInThread, {
          params: { activityId: activity.value.id },
          query: { q },
        })
      ).ids,
    )
  } catch (error) {
    notices.warn(error)
  }
}
const endSearch = () => {
  words.value = ''
  found.value = null
}
async function focusPost(id: string) {
  if (found.value && !found.value.has(id)) endSearch()
  if (onlyFrom.value && !theirs.value.some(c => c.id === id)) onlyFrom.value = null
  if (
    onlyCircle.value &&
    store.whole.some(c => c.id === id && c.circle !== null && c.circle !== onlyCircle.value)
  )
    onlyCircle.value = null
  if (order.value === 'onlyNew' && !threads.value.some(t => t.item.id === id)) order.value = 'talk'
  uncover(id)
  await nextTick()
  await rowList.value?.show(id)
}
const arrivedWords = computed(() => {
  const [last] = live.arrived.value.slice(-1)
  if (!last) return ''
  if (live.arrived.value.length > 1)
    return `${capital(inWords(live.arrived.value.length))} new posts have come.`
  const to = last.parentId ? desk.authorOf(last.parentId) : null
  return `${last.author.givenName} ${last.parentId ? `answered ${to ?? 'a post'}` : 'opened a thread'} just now.`
})
function goToArrived() {
  const [first] = live.arrived.value
  live.seen()
  if (first) void focusPost(first.id)
}
const openings = computed(() =>
  store.whole.filter(c => c.parentId === null && !c.withdrawn && c.state === 'shown'),
)
const replies = computed(() => store.whole.filter(c => c.parentId !== null && c.state === 'shown').length)
const own = computed(() => store.whole.filter(c => c.author.isMe && !c.withdrawn))
const mine = computed(
  () => own.value.find(c => (byQuestion.value ? c.promptId !== null : c.parentId === null)) ?? null,
)
const asksOpening = computed(() => seminar.isStudent && !byQuestion.value && !mine.value && desk.mayWrite)
/** Questions that this reader has not answered. */
const questionsLeft = computed(() =>
  byQuestion.value && seminar.isStudent
    ? openings.value.filter(q => q.author.isStaff && !own.value.some(c => c.promptId === q.id))
    : [],
)
const mayOpen = computed(
  () =>
    desk.mayWrite &&
    !asksOpening.value &&
    !store.thread?.waiting &&
    (byQuestion.value ? seminar.isStaff : true),
)
const fresh = computed(() => store.whole.filter(c => c.isNew))
const unanswered = computed(() =>
  store.roots
    .filter(
      r =>
        r.replies.length === 0 &&
        r.item.view === 'whole' &&
        r.item.state === 'shown' &&
        !r.item.author.isMe &&
        !desk.isVeiled(r.item.id),
    )
    .map(r => r.item),
)
const staffWords = computed(() => store.whole.filter(c => c.author.isStaff))
const lonely = computed(() =>
  seminar.isStudent && !byQuestion.value
    ? (openings.value.find(c => !c.author.isMe && c.id === unanswered.value[0]?.id) ?? null)
    : null,
)
const minOpening = computed(
  () => activity.value.expectations.map(e => e.rule).find(r => r.kind === 'entries')?.minWords ?? 1,
)
const closed = computed(() => activity.value.closesAt < (seminar.shell?.now ?? ''))
const lists = { fresh, unanswered, instructor: staffWords, held }

/** The next of a list after the post one is at; from its end, the first again. */
function jump(to: keyof typeof lists, step = 1) {
  const ids = lists[to].value.map(c => c.id)
  if (ids.length === 0) return
  const at = ids.indexOf(document.activeElement?.id.replace(/^c-/, '') ?? '')
  void focusPost(ids[(at + (at < 0 && step < 0 ? 0 : step) + ids.length) % ids.length]!)
}
const focused = () => store.whole.find(c => `c-${c.id}` === document.activeElement?.id)
const keys = computed<Key[]>(() => [
  {
    keys: 'j',
    does: 'next new post, or the next post',
    run: () => (fresh.value.length > 0 ? jump('fresh') : step(1)),
  },
  { keys: 'k', does: 'the one before', run: () => (fresh.value.length > 0 ? jump('fresh', -1) : step(-1)) },
  { keys: 'u', does: 'next unanswered post', run: () => jump('unanswered') },
  { keys: 'i', does: 'next word of the instructor', run: () => jump('instructor') },
  {
    keys: 'r',
    does: 'reply to the post you are at',
    run: () => {
      const c = focused()
      if (c && desk.mayWrite) desk.reply(c.id)
    },
  },
  {
    keys: 'n',
    does: 'nod at it',
    run: () => {
      const c = focused()
      if (c && !c.author.isMe && desk.mayWrite) desk.nod(c.id)
    },
  },
  {
    keys: 'o',
    does: 'unfold or fold it',
    run: () => {
      const c = focused()
      if (c) desk.toggleFold(c.id)
    },
  },
])
function step(by: number) {
  const posts = [...document.querySelectorAll<HTMLElement>('article[id^="c-"]')]
  const at = posts.findIndex(p => p === document.activeElement)
  const next = posts[at < 0 ? 0 : at + by]
  next?.focus({ preventScroll: true })
  next?.scrollIntoView({ block: 'center' })
}
const { listOpen } = useKeys(() => keys.value)

async function openingPosted(id: string, state: string) {
  opening.value = false
  await store.refresh()
  if (state === 'awaitingApproval') {
    notices.say('Your post is handed in. The others see it once it is approved.')
    return focusPost(id)
  }
  const others = openings.value.length - 1
  notices.say(
    `Your opening post is in. ${others > 0 ? `${capital(inWords(others))} ${plural(others, 'classmate', 'classmates')} ${others === 1 ? 'has' : 'have'} written too.` : 'You are the first.'}`,
    { label: 'Withdraw it', run: () => desk.withdraw(id) },
  )
  await focusPost(id)
}
onMounted(() => {
  const draft = store.thread?.drafts.find(
    d => d.parentId !== null && store.whole.some(c => c.id === d.parentId),
  )
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  if (target) void focusPost(target)
  else if (draft && desk.mayWrite) desk.reply(draft.parentId!, false)
  if (!store.thread?.waiting) void Promise.resolve(store.recordVisit()).catch(() => {})
})
function replyAt(postId: string) {
  desk.reply(postId)
  focusPost(postId)
}
</script>

<template>
  <ActivityPage
    v-model:list-open="listOpen"
    :activity="activity"
    :keys="keys"
    :own-at="mine?.shownAt ?? null"
  >
    <div class="talk">
      <main ref="scroller">
        <section v-if="asksOpening" class="opening">
          <h2>
            {{ activity.writeFirst || activity.hiddenUntil ? 'Write before you read' : 'Open the talk' }}
          </h2>
          <p v-if="activity.talk.namesHidden" class="names">
            Names are hidden from classmates: in each thread you go by another name. Staff know who wrote.
          </p>
          <p v-if="store.thread?.waiting && activity.hiddenUntil">
            The others’ posts are shown to everyone {{ dayTime(activity.hiddenUntil) }}. Until then each
            writes without having read.
          </p>
          <p v-else-if="store.thread?.waiting">
            The others’ posts appear here as soon as your own is in. Take a view of your own first; you can
            change it for {{ activity.editMinutes }} minutes after posting.
          </p>
          <p v-if="closed" class="late">
            This closed {{ dayTime(activity.closesAt) }}. What you post now is added and counts as late.
          </p>
          <WriteBox
            :place="{ activityId: activity.id, parentId: null }"
            label="Your opening post"
            :min-words="minOpening"
            :stored="store.draftAt(null)"
            :autofocus="false"
            :attach="desk.attach"
            @posted="openingPosted"
          />
        </section>
        <template v-if="!store.thread?.waiting">
          <div class="sort">
            <span
              ><b>{{ openings.length }}</b>
              {{
                byQuestion
                  ? plural(openings.length, 'question')
                  : `opening ${plural(openings.length, 'post')}`
              }}, <b>{{ replies }}</b> {{ plural(replies, 'reply', 'replies') }}</span
            >
            <form class="find" role="search" @submit.prevent="search">
              <input
                v-model="words"
                class="in"
                type="search"
                placeholder="find in this talk"
                aria-label="Find in this talk"
                @input="words.trim() === '' && endSearch()"
                @keydown.esc="endSearch"
              />
            </form>
            <button v-if="mayOpen && !opening" class="link" type="button" @click="opening = true">
              {{ byQuestion ? 'put a question' : 'open a thread' }}
            </button>
            <span class="grow" />
            <template v-if="found"
              ><span role="status"
                ><b>{{ found.size }}</b> {{ plural(found.size, 'post holds', 'posts hold') }} “{{
                  words.trim()
                }}”</span
              ><button class="link" type="button" @click="endSearch">everything</button></template
            >
            <template v-else-if="onlyFrom"
              ><span>{{
                onlyFrom === 'held' ? 'held for approval' : `only ${theirs[0]?.author.name ?? 'one person'}`
              }}</span
              ><button class="link" type="button" @click="onlyFrom = null">everyone</button></template
            >
            <template v-else-if="onlyCircle"
              ><span>only {{ store.thread?.circles.find(c => c.id === onlyCircle)?.title }}</span
              ><button class="link" type="button" @click="onlyCircle = null">all of them</button></template
            >
            <span v-else class="orders" role="group" aria-label="Order"
              ><button
                v-for="[value, label] in ORDERS"
                :key="value"
                type="button"
                :class="{ on: order === value }"
                :aria-pressed="order === value"
                @click="order = value"
              >
                {{ label }}
              </button></span
            >
          </div>
          <div v-if="questionsLeft.length > 0" class="questions">
            <p>
              <b
                >{{ capital(inWords(questionsLeft.length)) }}
                {{ plural(questionsLeft.length, 'question') }} to answer.</b
              >
              {{ activity.writeFirst ? 'The others’ answers to a question appear once yours is in.' : '' }}
            </p>
            <p v-for="(q, n) in questionsLeft" :key="q.id">
              <button class="link" type="button" @click="replyAt(q.id)">answer question {{ n + 1 }}</button
              >{{ ' '
              }}<span class="muted">{{
                (q.html ?? '')
                  .replace(/<[^>]+>/g, ' ')
                  .trim()
                  .slice(0, 110)
              }}</span>
            </p>
          </div>
          <div v-if="opening" class="opening">
            <WriteBox
              :place="{ activityId: activity.id, parentId: null }"
              :label="byQuestion ? 'A question for all' : 'A new thread'"
              :min-words="1"
              :stored="store.draftAt(null)"
              :attach="desk.attach"
              closable
              @posted="openingPosted"
              @away="opening = false"
            />
          </div>
          <div class="thread">
            <TalkRows
              ref="rowList"
              :rows="rows"
              :desk="desk"
              :scroller="scroller"
              :opening="byQuestion ? 'question' : 'opening post'"
            />
            <p v-if="found && found.size === 0" class="empty">
              No post that you can read holds these words. Try one of them alone.
            </p>
            <p v-else-if="threads.length === 0 && order === 'onlyNew'" class="empty">
              Nothing new since you were last here.
            </p>
            <p v-else-if="threads.length === 0" class="empty">
              Nobody has written yet. The first post sets length and tone: a view, one passage it rests on,
              and what it cannot show.
            </p>
          </div>
        </template>
        <ArrivedBar
          v-if="live.arrived.value.length > 0"
          :words="arrivedWords"
          @read="goToArrived"
          @later="live.seen()"
        />
        <div v-if="store.thread?.waiting" class="veil" aria-hidden="true">
          <i v-for="n in 5" :key="n" :style="{ width: `${[92, 78, 85, 64, 88][n - 1]}%` }" />
        </div>
      </main>
      <TalkMargin
        :activity="activity"
        :checks="store.thread?.checks ?? []"
        :contributions="store.whole.filter(() => !store.thread?.waiting)"
        :not-heard="store.thread?.notHeard ?? []"
        :counts="{
          fresh: fresh.length,
          unanswered: unanswered.length,
          instructor: staffWords.length,
          held: held.length,
        }"
        :is-staff="seminar.isStaff"
        :names-hidden="activity.talk.namesHidden && !seminar.isStaff"
        :only-from="onlyFrom"
        :lonely="lonely"
        :circles="store.thread?.circles ?? []"
        :only-circle="onlyCircle"
        @circle="onlyCircle = $event"
        @jump="jump"
        @go-to="focusPost"
        @only="onlyFrom = $event"
        ><LookAlikes v-if="seminar.isStaff" :activity-id="activity.id" @go-to="focusPost" /><TalkOut
          :activity="activity"
      /></TalkMargin>
    </div>
  </ActivityPage>
</template>

<style scoped>
.talk {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 322px;
}
main {
  background: var(--sheet);
  border-right: 1px solid var(--line);
  overflow-y: auto;
  position: relative;
}
.sort {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  min-height: 34px;
  padding: 4px 22px 4px 20px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  border-bottom: 1px solid var(--line-soft);
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 5;
}
.sort b {
  color: var(--ink);
}
.orders {
  display: flex;
  gap: 16px;
  flex-wrap: wrap;
}
.orders button {
  background: none;
  border: 0;
  padding: 5px 0;
  color: inherit;
  cursor: pointer;
}
.orders .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
.thread {
  padding: 12px 138px 60px 118px;
}
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
  padding: 20px 0;
}
.opening {
  padding: 18px 40px 22px;
  max-width: 860px;
}
.opening h2 {
  font: 600 1.125rem/1.3 var(--read);
}
.opening > p {
  color: var(--ink-2);
  margin: 3px 0 12px;
  max-width: 62ch;
}
.opening .late {
  color: var(--ember);
}
.questions {
  padding: 12px 22px 10px 20px;
  background: var(--ember-soft);
  font-size: 0.84375rem;
  display: grid;
  gap: 4px;
}
.find .in {
  padding: 2px 8px;
  font-size: 0.78125rem;
  width: 11rem;
}
.names {
  color: var(--ink);
}
.veil {
  padding: 18px 40px;
  display: grid;
  gap: 12px;
  max-width: 860px;
}
.veil i {
  height: 11px;
  border-radius: 3px;
  background: var(--line-soft);
}
@media (max-width: 1000px) {
  .talk {
    grid-template-columns: 1fr;
  }
  main {
    border-right: 0;
    order: 1;
  }
  .talk :deep(.margin) {
    order: 0;
    border-bottom: 1px solid var(--line);
  }
}
@media (max-width: 760px) {
  .talk :deep(.margin) {
    order: 2;
    border-top: 1px solid var(--line);
    border-bottom: 0;
  }
  .thread {
    padding: 12px 14px 60px 22px;
  }
  .opening,
  .veil {
    padding: 16px 14px;
  }
  .sort {
    padding: 6px 14px;
    position: static;
  }
}
</style>
