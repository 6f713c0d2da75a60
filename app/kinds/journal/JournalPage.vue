<script setup lang="ts">
import type { WholeContribution } from '#shared/contributing/thread'
import { entryPeriods, periodOf } from '~/composables/contributing/entryPeriods'
import { journalAuthors } from '~/composables/contributing/journalAuthors'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import EntryCalendar from '~/components/contributing/EntryCalendar.vue'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import ProseText from '~/components/contributing/ProseText.vue'
import LookAlikes from '~/components/contributing/LookAlikes.vue'
import TalkOut from '~/components/contributing/TalkOut.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import JournalEntry from './JournalEntry.vue'
import JournalPeople from './JournalPeople.vue'
import OpenEntryDialog from './OpenEntryDialog.vue'

/**
 * A journal: between one student and staff, prompt by prompt, with a dialogue under each entry. Staff turn
 * from one student's to the next.
 */
const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { day, dayTime } = useTimes()
const { desk } = useTalkDesk(focusEntry)
useLiveTalk(() => {})
const activity = computed(() => store.activity!)
const talk = computed(() => activity.value.talk)
const whose = ref<string | null>(null) // staff, or a class that reads along: whose journal is open
const free = ref(false) // a further entry is being begun
const closed = computed(() => activity.value.closesAt < (seminar.shell?.now ?? ''))

async function focusEntry(id: string) {
  await nextTick()
  const element = document.getElementById(`c-${id}`)
  element?.focus({ preventScroll: true })
  element?.scrollIntoView({ block: 'center' })
}
const entries = computed(() =>
  store.whole.filter(c => c.parentId === null && (!c.withdrawn || c.author.isMe)),
)
const authors = computed(() => journalAuthors(entries.value, store.whole))
const shownId = computed(
  () =>
    whose.value ??
    (seminar.isStudent ? (authors.value.find(a => a.isMe)?.id ?? null) : (authors.value[0]?.id ?? null)),
)
const isOwn = computed(
  () =>
    seminar.isStudent &&
    (whose.value === null || authors.value.find(a => a.id === whose.value)?.isMe === true),
)
const ofOne = computed(() =>
  isOwn.value
    ? entries.value.filter(e => e.author.isMe)
    : entries.value.filter(e => e.author.id === shownId.value),
)
const periods = computed(() => (seminar.shell ? entryPeriods(seminar.shell, talk.value.indexBy) : []))
const nodeOf = (id: string) => store.roots.find(r => r.item.id === id)!

/** The journal from its newest period on: the prompts that came out in it, each with its answers, then what was written freely. */
const pages = computed(() =>
  periods.value
    .map(period => ({
      period,
      prompts: activity.value.prompts
        .filter(p => periodOf(periods.value, p.releaseAt)?.key === period.key)
        .map(prompt => ({ prompt, entries: ofOne.value.filter(e => e.promptId === prompt.id) })),
      entries: ofOne.value.filter(
        e =>
          !activity.value.prompts.some(p => p.id === e.promptId) &&
          periodOf(periods.value, e.shownAt)?.key === period.key,
      ),
    }))
    .filter((page, i) => page.prompts.length > 0 || page.entries.length > 0 || (i === 0 && isOwn.value)),
)
const wordsAsked = computed(() =>
  activity.value.expectations
    .map(e => e.rule)
    .find(r => r.kind === 'prompts' || r.kind === 'weeklyEntries' || r.kind === 'entries'),
)
const minWords = computed(() =>
  wordsAsked.value && 'minWords' in wordsAsked.value ? wordsAsked.value.minWords : 1,
)
const thisWeek = computed(() => seminar.shell?.weeks.find(w => w.number === seminar.shell!.week))
/** Without prompts, this week's entry is asked for in its place. */
const asksWeekly = computed(
  () =>
    isOwn.value &&
    desk.mayWrite &&
    activity.value.prompts.length === 0 &&
    !ofOne.value.some(e => thisWeek.value && e.shownAt >= thisWeek.value.startsAt && !e.withdrawn),
)

async function open(entry: WholeContribution, opened: boolean) {
  try {
    await store.openForReplies(entry.id, opened)
    notices.say(
      opened
        ? 'The class can read this entry now, and the talk under it.'
        : 'Between you and staff again. Whoever has read it has read it.',
      { label: 'Undo', run: () => void open(entry, !opened) },
    )
  } catch (error) {
    notices.warn(error)
  }
}
const asking = ref<string | null>(null) // the entry that is about to be opened
async function posted(id: string, state: 'shown' | 'awaitingApproval' | 'scheduled') {
  free.value = false
  desk.posted(id, state)
}
function turn(by: number) {
  const at = authors.value.findIndex(a => a.id === shownId.value)
  const next = authors.value[(at + by + authors.value.length) % authors.value.length]
  if (next) whose.value = next.id
}
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next person’s journal', run: () => turn(1) },
  { keys: 'k', does: 'the one before', run: () => turn(-1) },
  {
    keys: 'r',
    does: 'answer the entry you are at',
    run: () => {
      const e = ofOne.value.find(x => `c-${x.id}` === document.activeElement?.id) ?? ofOne.value.at(-1)
      if (e && desk.mayWrite) desk.reply(e.id)
    },
  },
])
useKeys(() => keys.value)
onMounted(() => {
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  const at = target ? store.byId.get(target) : undefined
  if (at?.view === 'whole') {
    whose.value = entries.value.find(e => e.id === at.threadId)?.author.id ?? null
    void focusEntry(at.id)
  }
  void Promise.resolve(store.recordVisit()).catch(() => {})
})
function openAsked() {
  open(
    entries.value.find(e => e.id === asking.value)!,
    true,
  )
  asking.value = null
}
const openingSentence = computed(() => {
  if (talk.value.opening === 'class') return 'The class reads along here.'
  if (talk.value.opening === 'author')
    return 'Between you and staff, except for entries you open to the class.'
  return 'Between you and staff. No classmate reads it.'
})
</script>

<template>
  <ActivityPage :activity="activity">
    <div class="spread" :class="{ alone: authors.length <= 1 && seminar.isStudent }">
      <JournalPeople
        v-if="authors.length > 1 || !seminar.isStudent"
        :authors="authors"
        :shown-id="shownId"
        :is-student="seminar.isStudent"
        :not-heard="store.thread?.notHeard ?? []"
        @choose="whose = $event"
      />
      <main>
        <h2 v-if="!isOwn && shownId" class="whose">{{ authors.find(a => a.id === shownId)?.name }}</h2>
        <p v-if="isOwn" class="private">
          {{ openingSentence }}
        </p>
        <p v-if="closed && isOwn" class="late">
          This closed {{ dayTime(activity.closesAt) }}. What you add now counts as late.
        </p>
        <section v-if="asksWeekly" class="prompt">
          <p class="label">This week’s entry</p>
          <WriteBox
            :target="{ activityId: activity.id, parentId: null }"
            label="This week’s entry"
            :min-words="minWords"
            :stored="store.draftAt(null)"
            :autofocus="false"
            :attach="desk.attach"
            verb="Post"
            @posted="posted"
          />
        </section>
        <section v-for="page in pages" :key="page.period.key" class="page">
          <h2>
            {{ page.period.label }} <span>{{ day(page.period.startsAt) }}</span>
          </h2>
          <div v-for="p in page.prompts" :key="p.prompt.id" class="prompt">
            <div class="asked">
              <b class="num">{{ p.prompt.number }}</b> <ProseText :html="p.prompt.html" />
            </div>
            <JournalEntry
              v-for="e in p.entries"
              :key="e.id"
              :node="nodeOf(e.id)"
              :desk="desk"
              :opening="talk.opening"
              @open="asking = $event.id"
              @close="open($event, false)"
            />
            <WriteBox
              v-if="isOwn && desk.mayWrite && !p.entries.some(e => !e.withdrawn)"
              :target="{ activityId: activity.id, parentId: null, slot: p.prompt.id, promptId: p.prompt.id }"
              :label="`Your answer to ${p.prompt.number}`"
              :min-words="minWords"
              :stored="store.draftAt(null, p.prompt.id)"
              :autofocus="false"
              :attach="desk.attach"
              verb="Post"
              @posted="posted"
            />
            <p v-else-if="p.entries.length === 0" class="hint">Not answered yet.</p>
          </div>
          <JournalEntry
            v-for="e in page.entries"
            :key="e.id"
            :node="nodeOf(e.id)"
            :desk="desk"
            :opening="talk.opening"
            @open="asking = $event.id"
            @close="open($event, false)"
          />
        </section>
        <p v-if="pages.length === 0 && !asksWeekly" class="empty">
          {{
            seminar.isStudent
              ? 'Your journal begins with its first prompt. It is between you and staff.'
              : 'Nobody has written yet. Entries appear here person by person; only staff and their author read them.'
          }}
        </p>
        <template v-if="isOwn && desk.mayWrite">
          <WriteBox
            v-if="free"
            :target="{ activityId: activity.id, parentId: null, slot: 'free' }"
            label="Another entry"
            :min-words="1"
            :stored="store.draftAt(null, 'free')"
            :attach="desk.attach"
            closable
            verb="Post"
            @posted="posted"
            @away="free = false"
          />
          <v-btn v-else-if="!asksWeekly" @click="free = true">Write another entry</v-btn>
        </template>
      </main>
      <aside>
        <ExpectationMargin :activity="activity" :checks="store.thread?.checks ?? []" />
        <section v-if="ofOne.length > 0">
          <h2>
            {{
              isOwn
                ? 'Your entries'
                : `${capital(inWords(ofOne.length))} ${plural(ofOne.length, 'entry', 'entries')}`
            }}
          </h2>
          <EntryCalendar :entries="ofOne" @go-to="focusEntry" />
        </section>
        <LookAlikes v-if="desk.isStaff" :activity-id="activity.id" @go-to="focusEntry" />
        <TalkOut :activity="activity" />
      </aside>
    </div>
    <OpenEntryDialog
      :model-value="asking !== null"
      :whose="desk.isStaff ? 'its author’s' : 'your'"
      @update:model-value="asking = null"
      @opened="openAsked"
    />
  </ActivityPage>
</template>

<style scoped>
.spread {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr) 286px;
}
.spread.alone {
  grid-template-columns: minmax(0, 1fr) 286px;
}
aside h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  margin-bottom: 8px;
  display: flex;
  justify-content: space-between;
}
main {
  overflow-y: auto;
  background: var(--sheet);
  padding: 16px 44px 60px 40px;
  border-right: 1px solid var(--line);
  outline: none;
}
.private {
  font: italic 400 0.9375rem/1.5 var(--read);
  color: var(--ink-2);
  border-left: 3px solid var(--k-journal);
  padding-left: 10px;
  margin-bottom: 14px;
}
.whose {
  font: 600 1.25rem/1.3 var(--read);
  margin-bottom: 12px;
}
.late {
  color: var(--ember);
  margin-bottom: 10px;
}
.page {
  padding-bottom: 26px;
  display: grid;
  gap: 20px;
  max-width: 50em;
}
.page > h2 {
  font: 600 1.125rem/1.3 var(--read);
  border-bottom: 1px solid var(--line);
  padding-bottom: 5px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.page > h2 span {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
}
.prompt {
  display: grid;
  gap: 10px;
  max-width: 50em;
  margin-bottom: 6px;
}
.asked {
  display: grid;
  grid-template-columns: 26px 1fr;
  align-items: baseline;
}
.asked b {
  font: 600 1.0625rem/1.4 var(--read);
  color: var(--k-journal);
}
.asked .prose {
  font: 500 1rem/1.5 var(--read);
  color: var(--ink);
}
.label {
  font: 600 1.0625rem/1.4 var(--read);
}
.prompt > :deep(.entry),
.prompt > .box,
.prompt > .hint {
  margin-left: 26px;
}
aside {
  padding: 14px 20px 24px;
  overflow-y: auto;
}
aside section + section {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 12px;
}
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
  padding: 20px 0;
}
@media (max-width: 1000px) {
  .spread,
  .spread.alone {
    grid-template-columns: minmax(0, 1fr);
  }
  main {
    border-right: 0;
    overflow: visible;
    padding: 14px;
  }
  aside {
    overflow: visible;
  }
  .prompt > :deep(.entry),
  .prompt > .box {
    margin-left: 0;
  }
}
</style>
