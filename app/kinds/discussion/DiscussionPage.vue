<script setup lang="ts">
import { capital, inWords, plural } from '#core/language'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { useTalkFilter } from '~/composables/contributing/useTalkFilter'
import { useTalkKeys, type TalkList } from '~/composables/contributing/useTalkKeys'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ArrivedBar from '~/components/contributing/ArrivedBar.vue'
import LookAlikes from '~/components/contributing/LookAlikes.vue'
import TalkOut from '~/components/contributing/TalkOut.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import QuestionsLeft from './QuestionsLeft.vue'
import TalkMargin from './TalkMargin.vue'
import TalkRows from './TalkRows.vue'
import TalkToolbar from './TalkToolbar.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** A discussion: the talk in threads, what is asked of its reader, and beside it what to go to. */
const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const rowList = ref<InstanceType<typeof TalkRows> | null>(null)
const scroller = ref<HTMLElement | null>(null)
const { desk, uncover } = useTalkDesk(id => focusPost(id))
const live = useLiveTalk(() => rowList.value?.hold())
const activity = computed(() => store.activity!)
const filter = useTalkFilter(desk)
const { rows, threads, held, onlyFrom, onlyGroup, found, order } = filter
const byQuestion = computed(() => activity.value.talk.threads === 'staff')
const opening = ref(false) // a further thread is being begun
async function focusPost(id: string) {
  filter.include(id)
  uncover(id)
  await nextTick()
  await rowList.value?.show(id)
}
const arrivedWords = computed(() => {
  const [last] = live.arrived.value.slice(-1)
  if (!last) return ''
  if (live.arrived.value.length > 1)
    return `${capital(inWords(live.arrived.value.length))} new posts have come.`
  if (!last.parentId) return `${last.author.givenName} opened a thread just now.`
  return `${last.author.givenName} answered ${desk.authorOf(last.parentId) ?? 'a post'} just now.`
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
/** Opening posts that their writer has withdrawn and can put back. */
const takenOut = computed(() =>
  store.whole.filter(c => c.author.isMe && c.parentId === null && c.withdrawn && c.mayPutBack),
)
const takesWords = computed(() => desk.mayWrite && (seminar.isStaff || !desk.isClosedToWords(null)))
const asksOpening = computed(() => seminar.isStudent && !byQuestion.value && !mine.value && takesWords.value)
/** Questions that this reader has not answered. */
const questionsLeft = computed(() =>
  byQuestion.value && seminar.isStudent && takesWords.value
    ? openings.value.filter(q => q.author.isStaff && !own.value.some(c => c.promptId === q.id))
    : [],
)
const mayOpen = computed(
  () =>
    takesWords.value &&
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
const { jump } = useTalkKeys(desk, (list: TalkList) => lists[list].value, focusPost)
const groupTitle = computed(() => store.thread?.circles.find(c => c.id === onlyGroup.value)?.title)
const counts = computed(() => ({
  fresh: fresh.value.length,
  unanswered: unanswered.value.length,
  instructor: staffWords.value.length,
  held: held.value.length,
}))

function othersSentence(others: number) {
  if (others <= 0) return 'You are the first.'
  return `${capital(inWords(others))} ${plural(others, 'classmate has', 'classmates have')} written too.`
}
async function openingPosted(id: string, state: string) {
  opening.value = false
  await store.refresh()
  if (state === 'awaitingApproval') {
    notices.say('Your post is handed in. The others see it once it is approved.')
    return focusPost(id)
  }
  notices.say(`Your opening post is in. ${othersSentence(openings.value.length - 1)}`, {
    label: 'Withdraw it',
    run: () => desk.withdraw(id),
  })
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
  <ActivityPage :activity="activity" :own-at="mine?.shownAt ?? null">
    <div class="talk">
      <main ref="scroller">
        <section v-if="asksOpening" class="opening no-print">
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
          <p v-for="c in takenOut" :key="c.id" class="taken-out">
            You have withdrawn your opening post of {{ dayTime(c.shownAt) }}.
            <TextButton @click="desk.putBack(c.id)">Restore</TextButton>
          </p>
          <WriteBox
            :target="{ activityId: activity.id, parentId: null }"
            label="Your opening post"
            :min-words="minOpening"
            :stored="store.draftAt(null)"
            :autofocus="false"
            :attach="desk.attach"
            @posted="openingPosted"
          />
        </section>
        <p v-else-if="store.thread?.waiting && desk.isClosedToWords(null)" class="opening">
          This discussion is closed to new words. The others’ posts can be read by those who have written
          here.
        </p>
        <template v-if="!store.thread?.waiting">
          <TalkToolbar
            class="no-print"
            :filter="filter"
            :openings="openings.length"
            :replies="replies"
            :by-question="byQuestion"
            :may-open="mayOpen && !opening"
            :group-title="groupTitle"
            :may-close="seminar.isStaff && desk.mayWrite"
            :closed="desk.isClosedToWords(null)"
            @close="desk.closeToWords(null, $event)"
            @open="opening = true"
          />
          <QuestionsLeft
            v-if="questionsLeft.length > 0"
            :questions="questionsLeft"
            :write-first="activity.writeFirst"
            @answer="replyAt"
          />
          <div v-if="opening" class="opening">
            <WriteBox
              :target="{ activityId: activity.id, parentId: null }"
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
        class="no-print"
        :activity="activity"
        :checks="store.thread?.checks ?? []"
        :contributions="store.whole.filter(() => !store.thread?.waiting)"
        :not-heard="store.thread?.notHeard ?? []"
        :counts="counts"
        :is-staff="seminar.isStaff"
        :names-hidden="activity.talk.namesHidden && !seminar.isStaff"
        :only-from="onlyFrom"
        :lonely="lonely"
        :groups="store.thread?.circles ?? []"
        :only-group="onlyGroup"
        @group="onlyGroup = $event"
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
.taken-out {
  padding: 8px 12px;
  margin-bottom: 8px;
  border-radius: var(--r);
  background: var(--ember-soft);
}
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
}
</style>
