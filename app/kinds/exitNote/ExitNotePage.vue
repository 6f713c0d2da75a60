<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useLetterKeys } from '~/composables/shell/keyList'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ProseRecordings from '~/components/contributing/ProseRecordings.vue'
import ProseText from '~/components/contributing/ProseText.vue'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import EntryArticle from '~/components/contributing/EntryArticle.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import TextButton from '~/components/controls/TextButton.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** An exit note: one question, one short answer each; staff go through them in one list with two keys. */
const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const letters = useLetterKeys()
const api = useApi()
const { shortDayTime, dayTime } = useTimes()
const { desk } = useTalkDesk(async () => {})
useLiveTalk(() => {})
const activity = computed(() => store.activity!)
const mine = computed(() =>
  store.roots.find(r => r.item.view === 'whole' && r.item.author.isMe && !r.item.withdrawn),
)
const minWords = computed(
  () => activity.value.expectations.map(e => e.rule).find(r => r.kind === 'entries')?.minWords ?? 1,
)
const closed = computed(() => activity.value.closesAt < (seminar.shell?.now ?? ''))
const answers = computed(() =>
  store.whole
    .filter(c => c.parentId === null && !c.withdrawn && !c.author.isStaff)
    .sort((a, b) => a.author.name.split(' ').at(-1)!.localeCompare(b.author.name.split(' ').at(-1)!)),
)
/** What was just decided by a key and is on its way, by answer. */
const deciding = reactive(new Map<string, boolean | null>())
const doneOf = (id: string, stored: boolean | null) => (deciding.has(id) ? deciding.get(id)! : stored)
const left = computed(() => answers.value.filter(a => doneOf(a.id, a.done) === null).length)
// the answer at hand is known by itself, not by its place: others may come in above it
const hereId = ref<string | null>(null)
const at = computed(() =>
  Math.max(
    0,
    answers.value.findIndex(a => a.id === hereId.value),
  ),
)
const here = computed(() => answers.value[at.value] ?? null)

let sending: Promise<unknown> = Promise.resolve()
/** Marks one answer, after those before it; what was decided is shown at once, and undone where it is refused. */
function mark(id: string, done: boolean | null, undo = true): Promise<void> {
  const answer = answers.value.find(a => a.id === id)
  const before = answer ? doneOf(id, answer.done) : null
  deciding.set(id, done)
  const mine = sending.then(() => sendMark(id, done))
  sending = mine
  return mine.then(isStored => {
    if (isStored && undo)
      notices.say(`${answer?.author.name ?? 'This answer'}: ${judgementOf(done)}`, {
        label: 'Undo',
        run: () => mark(id, before, false),
      })
  })
}
async function sendMark(id: string, done: boolean | null): Promise<boolean> {
  try {
    await api.call(contributingEndpoints.markContribution, {
      params: { contributionId: id },
      body: { done, points: null },
    })
    await store.refresh()
    return true
  } catch (error) {
    notices.warn(error)
    return false
  } finally {
    deciding.delete(id)
  }
}
function judgementOf(done: boolean | null) {
  if (done === null) return 'not marked.'
  return done ? 'done.' : 'not done.'
}
function go(by: number) {
  const next = answers.value[Math.max(0, Math.min(answers.value.length - 1, at.value + by))]
  hereId.value = next?.id ?? null
  void nextTick(() => document.querySelector<HTMLElement>(`[data-answer="${next?.id}"]`)?.focus())
}
/** What was written under an answer, in order. */
const wordsTo = (id: string) =>
  (store.roots.find(r => r.item.id === id)?.replies ?? []).flatMap(({ item }) =>
    item.view === 'whole' && !item.withdrawn ? [item] : [],
  )
function writeHere() {
  if (here.value && desk.mayAnswer(here.value)) desk.reply(here.value.id)
}
function markHere(done: boolean) {
  if (!here.value) return
  void mark(here.value.id, done)
  go(1)
}
const keys = computed<Key[]>(() =>
  seminar.isStaff
    ? [
        { keys: 'j', does: 'the next answer', run: () => go(1) },
        { keys: 'k', does: 'the one before', run: () => go(-1) },
        { keys: 'd', does: 'done, and on', run: () => markHere(true) },
        { keys: 'x', does: 'not done, and on', run: () => markHere(false) },
        { keys: 'w', does: 'write a word to this student', run: () => writeHere() },
      ]
    : [],
)
useKeys(() => keys.value)
onMounted(() => void Promise.resolve(store.recordVisit()).catch(() => {}))
const leftWords = computed(() => {
  if (left.value > 0 && answers.value.length > 0) return `, ${inWords(left.value)} to mark`
  if (answers.value.length > 0) return ', all marked'
  return ''
})
</script>

<template>
  <ActivityPage :activity="activity" brief="below">
    <main>
      <ProseText class="question" :html="activity.briefHtml" />
      <ProseRecordings :html="activity.briefHtml" :may-add="seminar.isStaff" />
      <template v-if="seminar.isStudent">
        <template v-if="mine"
          ><EntryArticle :node="mine" :desk="desk" verb="answer" />
          <p
            v-if="mine.item.view === 'whole' && mine.item.done !== null"
            class="said"
            :class="{ yes: mine.item.done }"
          >
            {{
              mine.item.done
                ? 'Marked as done.'
                : 'Read, and not taken as done. Write to your instructor if you wonder why.'
            }}
          </p></template
        >
        <template v-else-if="desk.mayWrite">
          <p v-if="closed" class="late">
            This closed {{ dayTime(activity.closesAt) }}. An answer now counts as late.
          </p>
          <WriteBox
            :target="{ activityId: activity.id, parentId: null }"
            label="Your answer"
            :min-words="minWords"
            :stored="store.draftAt(null)"
            :attach="desk.attach"
            verb="Hand it in"
            @posted="desk.posted"
          />
        </template>
      </template>
      <template v-else>
        <p class="sum">
          <b>{{ answers.length }}</b> {{ plural(answers.length, 'answer is', 'answers are') }} in{{
            leftWords
          }}.<span v-if="seminar.isStaff && letters && answers.length > 0" class="keys"
            ><KeyHint of="j" /> <KeyHint of="k" /> move, <KeyHint of="d" /> done, <KeyHint of="x" /> not done,
            <KeyHint of="w" /> a word</span
          >
        </p>
        <ol v-if="answers.length > 0">
          <li
            v-for="a in answers"
            :key="a.id"
            :data-answer="a.id"
            :class="{
              here: a.id === here?.id && seminar.isStaff,
              yes: doneOf(a.id, a.done) === true,
              no: doneOf(a.id, a.done) === false,
            }"
            tabindex="-1"
            @click="hereId = a.id"
            @focus="hereId = a.id"
          >
            <p class="who">
              <b>{{ a.author.name }}</b><span class="muted"
                >{{ shortDayTime(a.shownAt) }}{{ a.shownAt > activity.closesAt ? ', late' : '' }} ·
                {{ a.words }} words</span
              >
            </p>
            <ProseText :html="a.html ?? ''" />
            <p v-if="seminar.isStaff" class="mark">
              <ChipButton
                :class="{ on: doneOf(a.id, a.done) === true }"
                :aria-pressed="doneOf(a.id, a.done) === true"
                @click.stop="mark(a.id, doneOf(a.id, a.done) === true ? null : true)"
              >
                done</ChipButton
              ><ChipButton
                :class="{ on: doneOf(a.id, a.done) === false }"
                :aria-pressed="doneOf(a.id, a.done) === false"
                @click.stop="mark(a.id, doneOf(a.id, a.done) === false ? null : false)"
              >
                not done</ChipButton
              ><TextButton v-if="desk.mayAnswer(a)" class="word" @click.stop="desk.reply(a.id)"
                >write a word</TextButton
              >
            </p>
            <div v-if="wordsTo(a.id).length > 0 || desk.replyTo.value === a.id" class="words">
              <div v-for="w in wordsTo(a.id)" :key="w.id" class="said">
                <b>{{ w.author.isMe ? 'you' : w.author.givenName }}</b><ProseText :html="w.html ?? ''" />
              </div>
              <WriteBox
                v-if="desk.replyTo.value === a.id"
                :target="{ activityId: activity.id, parentId: a.id }"
                :label="`Your word to ${a.author.givenName}`"
                :min-words="1"
                :stored="desk.draftAt(a.id)"
                :attach="desk.attach"
                autofocus
                closable
                @posted="desk.posted"
                @away="desk.closeWriting"
                >To {{ a.author.givenName }}</WriteBox
              >
            </div>
          </li>
        </ol>
        <p v-else class="empty">
          No answers yet. They appear here as they come in, and are marked in one list with two keys.
        </p>
        <p v-if="(store.thread?.notHeard.length ?? 0) > 0" class="muted small">
          {{ capital(inWords(store.thread!.notHeard.length)) }}
          {{ plural(store.thread!.notHeard.length, 'has', 'have') }} not answered:
          {{ store.thread!.notHeard.join(', ') }}.
        </p>
      </template>
    </main>
  </ActivityPage>
</template>

<style scoped>
main {
  flex: 1;
  overflow-y: auto;
  background: var(--sheet);
  padding: 20px max(20px, calc(50% - 410px)) 60px;
}
.question {
  font: 500 1.1875rem/1.5 var(--read);
  border-left: 4px solid var(--k-exitNote);
  padding-left: 14px;
  margin-bottom: 18px;
}
.sum {
  display: flex;
  gap: 6px 14px;
  flex-wrap: wrap;
  font-size: 0.84375rem;
  color: var(--ink-2);
  margin-bottom: 6px;
}
.sum b {
  color: var(--ink);
}
.keys {
  margin-left: auto;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0 0 14px;
  border-top: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) auto;
  gap: 4px 18px;
  padding: 9px 10px;
  border-bottom: 1px solid var(--line-soft);
  outline: none;
  align-items: start;
}
.here {
  background: var(--paper);
  box-shadow: -3px 0 0 var(--ember);
  border-radius: 0;
}
.who {
  display: grid;
  font-size: 0.8125rem;
  line-height: 18px;
}
.who span {
  font-size: 0.75rem;
}
.prose {
  font-size: 0.96875rem;
  line-height: 1.5;
}
.mark {
  display: flex;
  gap: 6px;
}
.word {
  align-self: center;
  white-space: nowrap;
}
.words {
  grid-column: 2 / -1;
  display: grid;
  gap: 6px;
}
.words .said {
  margin: 0;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 10px;
  font-size: 0.875rem;
}
.said {
  margin-top: 14px;
  color: var(--ink-2);
}
.said.yes {
  color: var(--moss);
  font-weight: 600;
}
.late {
  color: var(--ember);
  margin-bottom: 8px;
}
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
  padding: 16px 0;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .words {
    grid-column: 1;
  }
  main {
    padding: 14px;
  }
}
</style>
