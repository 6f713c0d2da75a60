<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { v4 } from 'uuid'
import type { WholeContribution } from '#shared/contributing/thread'
import { entryPeriods, periodOf } from '~/composables/contributing/entryPeriods'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ArrivedBar from '~/components/contributing/ArrivedBar.vue'
import EntryArticle from '~/components/contributing/EntryArticle.vue'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import IndexList from '~/components/contributing/IndexList.vue'
import LookAlikes from '~/components/contributing/LookAlikes.vue'
import TalkOut from '~/components/contributing/TalkOut.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** A blog: entries over time with comments; one stream for the class, or each student's own. Which of the two is only a way of looking. */
const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { date, dayTime } = useTimes()
const { desk } = useTalkDesk(focusEntry)
const live = useLiveTalk(() => {})
const activity = computed(() => store.activity!)
const talk = computed(() => activity.value.talk)
const byPerson = computed(() => talk.value.layout === 'own')
const author = ref<string | null>(null)
const period = ref<string | null>(null)
const writing = ref<string | null>(null) // slot of the entry being written
const waiting = computed(() => store.thread?.waiting === true)

async function focusEntry(id: string) {
  const at = store.byId.get(id)
  if (at?.view === 'whole') {
    const entry = entries.value.find(e => e.id === at.threadId)
    if (entry && author.value && author.value !== entry.author.id) author.value = null
    period.value = null
  }
  await nextTick()
  const element = document.getElementById(`c-${id}`)
  element?.focus({ preventScroll: true })
  element?.scrollIntoView({ block: 'center' })
}
const entries = computed(() =>
  store.whole.filter(c => c.parentId === null && (!c.withdrawn || c.author.isMe)),
)
const periods = computed(() => (seminar.shell ? entryPeriods(seminar.shell, talk.value.indexBy) : []))
const counts = computed(() =>
  periods.value
    .map(p => ({
      id: p.key,
      label: p.label,
      count: ofAuthor.value.filter(e => periodOf(periods.value, e.shownAt)?.key === p.key).length,
    }))
    .filter(p => p.count > 0),
)
const authors = computed(() => {
  const byId = new Map<string, { id: string; name: string; isMe: boolean; count: number; last: string }>()
  for (const e of entries.value) {
    if (e.state !== 'shown') continue
    const a = byId.get(e.author.id) ?? {
      id: e.author.id,
      name: e.author.isMe ? 'You' : e.author.name,
      isMe: e.author.isMe,
      count: 0,
      last: '',
    }
    byId.set(e.author.id, { ...a, count: a.count + 1, last: e.shownAt > a.last ? e.shownAt : a.last })
  }
  return [...byId.values()].sort(
    (a, b) =>
      Number(b.isMe) - Number(a.isMe) || a.name.split(' ').at(-1)!.localeCompare(b.name.split(' ').at(-1)!),
  )
})
const shownAuthor = computed(() => author.value ?? (byPerson.value ? (authors.value[0]?.id ?? null) : null))
const ofAuthor = computed(() =>
  shownAuthor.value ? entries.value.filter(e => e.author.id === shownAuthor.value) : entries.value,
)
const shown = computed(() => {
  const list = ofAuthor.value.filter(
    e => !period.value || periodOf(periods.value, e.shownAt)?.key === period.value,
  )
  const newest = [...list].sort((a, b) => b.shownAt.localeCompare(a.shownAt))
  return [...newest.filter(e => e.onTop), ...newest.filter(e => !e.onTop)]
})
const nodeOf = (id: string) => store.roots.find(r => r.item.id === id)!
const drafts = computed(() =>
  (store.thread?.drafts ?? []).filter(d => d.parentId === null && d.slot !== writing.value),
)
const minWords = computed(() =>
  activity.value.expectations.map(e => e.rule).find(r => r.kind === 'entries' || r.kind === 'weeklyEntries'),
)
const comments = computed(() => store.whole.filter(c => c.parentId !== null && !c.withdrawn).length)
const fresh = computed(() => store.whole.filter(c => c.isNew))
const arrivedWords = (last: (typeof live.arrived.value)[number]) =>
  `${last.author.givenName} ${last.parentId ? 'commented' : 'posted an entry'} just now.`
function goToArrived() {
  const [first] = live.arrived.value
  live.seen()
  if (first) void focusEntry(first.id)
}
async function posted(id: string, state: 'shown' | 'awaitingApproval' | 'scheduled') {
  writing.value = null
  desk.posted(id, state)
}
async function closeWriting() {
  writing.value = null
  try {
    await store.refresh()
  } catch (error) {
    notices.warn(error)
  }
}
function step(list: readonly WholeContribution[], by: number) {
  if (list.length === 0) return
  const at = list.findIndex(c => `c-${c.id}` === document.activeElement?.id)
  const neighbourIndex = () => {
    if (at < 0) return by > 0 ? 0 : list.length - 1
    return at + by + list.length
  }
  void focusEntry(list[neighbourIndex() % list.length]!.id)
}
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next entry', run: () => step(shown.value, 1) },
  { keys: 'k', does: 'the one before', run: () => step(shown.value, -1) },
  { keys: 'u', does: 'the next new entry or comment', run: () => step(fresh.value, 1) },
  {
    keys: 'c',
    does: 'comment on the entry you are at',
    run: () => {
      const e = shown.value.find(x => `c-${x.id}` === document.activeElement?.id)
      if (e && desk.mayWrite) desk.reply(e.id)
    },
  },
  {
    keys: 'w',
    does: 'write an entry',
    run: () => {
      if (desk.mayWrite && !writing.value) writing.value = v4()
    },
  },
])
useKeys(() => keys.value)
onMounted(() => {
  if (location.hash.startsWith('#c-')) void focusEntry(location.hash.slice(3))
  if (!waiting.value) void Promise.resolve(store.recordVisit()).catch(() => {})
})
function showAllEntries() {
  author.value = null
  period.value = null
}
</script>

<template>
  <ActivityPage :activity="activity">
    <div class="spread">
      <main>
        <div class="sort">
          <span v-if="!waiting"
            ><b>{{ entries.filter(e => e.state === 'shown').length }}</b>
            {{ plural(entries.length, 'entry', 'entries') }}, <b>{{ comments }}</b>
            {{ plural(comments, 'comment') }}</span
          >
          <template v-if="author || period"
            ><span
              >{{ author ? `only ${authors.find(a => a.id === author)?.name ?? 'one person'}` : ''
              }}{{ author && period ? ', ' : ''
              }}{{ period ? periods.find(p => p.key === period)?.label : '' }}</span
            ><TextButton @click="showAllEntries">everything</TextButton></template
          >
          <span class="grow" />
          <v-btn v-if="desk.mayWrite && !writing" class="main" @click="writing = v4()"
            >Write an entry <KeyHint of="w"
          /></v-btn>
        </div>
        <WriteBox
          v-if="writing"
          :key="writing"
          class="new"
          :target="{ activityId: activity.id, parentId: null, slot: writing }"
          label="Your entry"
          :min-words="minWords && 'minWords' in minWords ? minWords.minWords : 1"
          :stored="store.draftAt(null, writing)"
          :attach="desk.attach"
          titled
          timed
          closable
          verb="Post it"
          @posted="posted"
          @away="closeWriting"
        />
        <section v-if="drafts.length > 0" class="drafts" aria-label="Your drafts">
          <p v-for="d in drafts" :key="d.id">
            <b>{{ d.title || 'An entry without a title' }}</b>{{ ' '
            }}<span class="muted">in draft, {{ d.words }} words, saved {{ dayTime(d.savedAt) }}</span
            >{{ ' ' }}<TextButton @click="writing = d.slot">go on writing</TextButton>
          </p>
        </section>
        <p v-if="waiting" class="empty">The others’ entries appear here as soon as your first is in.</p>
        <EntryArticle
          v-for="e in shown"
          :key="e.id"
          class="one"
          :node="nodeOf(e.id)"
          :desk="desk"
          authored
          titled
          verb="comment"
        />
        <p v-if="shown.length === 0 && !waiting" class="empty">
          {{
            entries.length > 0
              ? 'Nothing here in this choice.'
              : 'No entries yet. A first one sets the tone: a title, one thing seen closely, and a question for the others.'
          }}
        </p>
        <ArrivedBar
          v-if="live.arrived.value.length > 0"
          :words="arrivedWords(live.arrived.value.at(-1)!)"
          @read="goToArrived"
          @later="live.seen()"
        />
      </main>
      <aside>
        <ExpectationMargin :activity="activity" :checks="store.thread?.checks ?? []" />
        <IndexList
          :title="`By ${talk.indexBy}`"
          :items="counts"
          :chosen="period"
          @choose="period = period === $event ? null : $event"
        />
        <IndexList
          v-if="!(talk.namesHidden && !desk.isStaff)"
          :title="byPerson ? 'Blogs' : 'Who has written'"
          :hint="byPerson ? 'one for each student' : 'choose one to read only theirs'"
          :items="authors.map(a => ({ id: a.id, label: a.name, note: date(a.last), count: a.count }))"
          :chosen="shownAuthor"
          @choose="author = author === $event && !byPerson ? null : $event"
        >
          <p v-if="(store.thread?.notHeard.length ?? 0) > 0" class="none">
            {{ capital(inWords(store.thread!.notHeard.length)) }}
            {{ plural(store.thread!.notHeard.length, 'has', 'have') }} none yet:
            {{ store.thread!.notHeard.join(', ') }}.
          </p>
        </IndexList>
        <LookAlikes v-if="desk.isStaff" :activity-id="activity.id" @go-to="focusEntry" />
        <TalkOut :activity="activity" />
      </aside>
    </div>
  </ActivityPage>
</template>

<style scoped>
.spread {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 322px;
}
main {
  overflow-y: auto;
  background: var(--sheet);
  border-right: 1px solid var(--line);
  padding: 0 44px 60px;
  position: relative;
}
.sort {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  min-height: 46px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  border-bottom: 1px solid var(--line-soft);
  margin-bottom: 16px;
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 5;
}
.sort b {
  color: var(--ink);
}
.new {
  margin-bottom: 20px;
  max-width: 50em;
}
.drafts {
  background: var(--paper);
  border-radius: var(--r);
  padding: 8px 12px;
  margin-bottom: 18px;
  font-size: 0.84375rem;
  display: grid;
  gap: 4px;
  max-width: 50em;
}
.one {
  padding: 0 0 22px;
  margin-bottom: 22px;
  border-bottom: 1px solid var(--line-soft);
  max-width: 52em;
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
.none {
  font-size: 0.78125rem;
  color: var(--ink-3);
  margin-top: 7px;
  line-height: 17px;
}
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
  padding: 20px 0;
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }
  main {
    border-right: 0;
    overflow: visible;
    padding: 0 14px 30px;
  }
  aside {
    overflow: visible;
    border-top: 1px solid var(--line);
  }
}
</style>
