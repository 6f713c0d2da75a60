<script setup lang="ts">
import { v4 } from 'uuid'
import type { WholeContribution } from '#shared/contributing/thread'
import { initialOf, useLexiconFilter } from '~/kinds/lexicon/useLexiconFilter'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useTermsStore } from '~/stores/terms'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ArrivedBar from '~/components/contributing/ArrivedBar.vue'
import EntryArticle from '~/components/contributing/EntryArticle.vue'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import IndexList from '~/components/contributing/IndexList.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import LexiconToolbar from './LexiconToolbar.vue'
import DailyTerm from './DailyTerm.vue'
import TermsInOut from './TermsInOut.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The seminar's own dictionary: browsed by letter, category, author or date, searched, written, talked about. */
const store = useThreadStore()
const terms = useTermsStore()
const route = useRoute()
const notices = useNotices()
const { dayTime } = useTimes()
const { desk } = useTalkDesk(focusTerm)
const live = useLiveTalk(() => {})
const activity = computed(() => store.activity!)
const settings = computed(() => activity.value.lexicon!)
const waiting = computed(() => store.thread?.waiting === true)
const writing = ref<string | null>(null) // the draft key of the term being written
const filter = useLexiconFilter(() => settings.value)
const {
  words,
  letter,
  category,
  author,
  period,
  order,
  all,
  categories,
  authors,
  added,
  found,
  narrowed,
  everything,
} = filter
const MOST = 60 // terms drawn at once; more come as one reads on
const drawn = ref(MOST)

const shownCount = computed(() => all.value.filter(t => t.state === 'shown').length)
const held = computed(() => all.value.filter(t => t.state === 'awaitingApproval'))
const shown = computed(() => found.value.slice(0, drawn.value))
const nodes = computed(() => new Map(store.roots.map(r => [r.item.id, r])))
const ofTheDay = computed(() => all.value.find(t => t.id === terms.view?.ofTheDay) ?? null)
const drafts = computed(() =>
  (store.thread?.drafts ?? []).filter(d => d.parentId === null && d.slot !== writing.value),
)
const minWords = computed(() => {
  const r = activity.value.expectations.map(e => e.rule).find(x => x.kind === 'entries')
  return r && 'minWords' in r ? r.minWords : 1
})
watch([words, letter, category, author, period, order], () => {
  drawn.value = MOST
})
watch(
  shown,
  list => {
    const missing = list.filter(t => t.html === null).map(t => t.id)
    if (missing.length > 0) void store.needTexts(missing)
  },
  { immediate: true },
)
watch(shownCount, () => {
  if (activity.value) void terms.load(activity.value.seminarId).catch(() => {})
})
async function focusTerm(id: string) {
  const root = store.byId.get(id)?.view === 'whole' ? (store.byId.get(id) as WholeContribution).threadId : id
  if (!found.value.some(t => t.id === root)) everything()
  drawn.value = Math.max(drawn.value, found.value.findIndex(t => t.id === root) + 5)
  await nextTick()
  const element = document.getElementById(`c-${id}`)
  element?.focus({ preventScroll: true })
  element?.scrollIntoView({ block: 'center' })
}
const arrivedWords = computed(() => {
  const last = live.arrived.value.at(-1)
  if (!last) return ''
  const { givenName } = last.author
  return last.parentId ? `${givenName} commented just now.` : `${givenName} added a term just now.`
})
function goToArrived() {
  const [first] = live.arrived.value
  live.seen()
  if (first) void focusTerm(first.id)
}
function posted(id: string, state: 'shown' | 'awaitingApproval' | 'scheduled') {
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
function step(by: number) {
  const at = shown.value.findIndex(t => `c-${t.id}` === document.activeElement?.id)
  const next = shown.value[at < 0 ? 0 : Math.min(shown.value.length - 1, Math.max(0, at + by))]
  if (next) void focusTerm(next.id)
}
const toolbar = ref<InstanceType<typeof LexiconToolbar> | null>(null)
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next term', run: () => step(1) },
  { keys: 'k', does: 'the one before', run: () => step(-1) },
  { keys: '/', does: 'search the lexicon', run: () => toolbar.value?.focus() },
  {
    keys: 'c',
    does: 'comment on the term you are at',
    run: () => {
      const t = shown.value.find(x => `c-${x.id}` === document.activeElement?.id)
      if (t && desk.mayWrite) desk.reply(t.id)
    },
  },
  {
    keys: 'w',
    does: 'write a term',
    run: () => {
      if (desk.mayWrite && !writing.value) writing.value = v4()
    },
  },
])
useKeys(() => keys.value)
const end = ref<HTMLElement | null>(null)
let watcher: IntersectionObserver | undefined
onMounted(() => {
  if (location.hash.startsWith('#c-')) void focusTerm(location.hash.slice(3))
  if (!waiting.value) void Promise.resolve(store.recordVisit()).catch(() => {})
  watcher = new IntersectionObserver(
    ([e]) => {
      if (e?.isIntersecting && drawn.value < found.value.length) drawn.value += MOST
    },
    { rootMargin: '600px' },
  )
  if (end.value) watcher.observe(end.value)
})
onBeforeUnmount(() => watcher?.disconnect())
watch(
  () => route.hash,
  hash => {
    if (hash.startsWith('#c-')) void focusTerm(hash.slice(3))
  },
)
</script>

<template>
  <ActivityPage :activity="activity">
    <div class="spread">
      <main>
        <LexiconToolbar
          ref="toolbar"
          :filter="filter"
          :count="waiting ? null : shownCount"
          :may-write="desk.mayWrite && !writing"
          @write="writing = v4()"
        />
        <WriteBox
          v-if="writing"
          :key="writing"
          class="new"
          :target="{ activityId: activity.id, parentId: null, slot: writing }"
          label="Its definition"
          :min-words="minWords"
          :stored="store.draftAt(null, writing)"
          :attach="desk.attach"
          :lexicon="settings"
          closable
          :verb="activity.talk.approval && !desk.isStaff ? 'Hand it in' : 'Add it'"
          @posted="posted"
          @away="closeWriting"
        />
        <section v-if="drafts.length > 0" class="drafts" aria-label="Your drafts">
          <p v-for="d in drafts" :key="d.id">
            <b>{{ d.term?.term || 'A term without its word' }}</b>{{ ' '
            }}<span class="muted">in draft, {{ d.words }} words, saved {{ dayTime(d.savedAt) }}</span
            >{{ ' ' }}<TextButton @click="writing = d.slot">go on writing</TextButton>
          </p>
        </section>
        <p v-if="waiting" class="empty">The others’ terms appear here as soon as your first is in.</p>
        <div class="terms">
          <template v-for="(t, i) in shown" :key="t.id">
            <h2
              v-if="order === 'letters' && (i === 0 || initialOf(shown[i - 1]!) !== initialOf(t))"
              class="initial"
            >
              {{ initialOf(t) }}
            </h2>
            <EntryArticle
              class="one"
              :node="nodes.get(t.id)!"
              :desk="desk"
              authored
              titled
              :lexicon="settings"
              verb="comment"
            >
              <template #meta
                ><template v-if="t.term.category"> · {{ t.term.category }}</template></template
              >
              <template #below
                ><p v-if="t.term.forms.length > 0 || t.term.sources" class="more">
                  <template v-if="t.term.forms.length > 0"
                    >also <i>{{ t.term.forms.join(', ') }}</i></template
                  ><template v-if="t.term.forms.length > 0 && t.term.sources"> · </template
                  ><template v-if="t.term.sources">source: {{ t.term.sources }}</template>
                </p></template
              >
            </EntryArticle>
          </template>
        </div>
        <div ref="end" class="end" />
        <p v-if="shown.length === 0 && !waiting" class="empty">
          <template v-if="narrowed">No term here in this choice.</template>
          <template v-else>
            No terms yet. A first one sets the tone: the word as the sources write it, what it means in one
            sentence, and where you met it.
          </template>
        </p>
        <ArrivedBar
          v-if="live.arrived.value.length > 0"
          :words="arrivedWords"
          @read="goToArrived"
          @later="live.seen()"
        />
      </main>
      <aside>
        <IndexList
          v-if="desk.isStaff"
          :title="`${capital(inWords(held.length))} ${plural(held.length, 'waits', 'wait')} for you`"
          hint="shown once approved"
          :items="held.map(t => ({ id: t.id, label: t.term.term, note: t.author.givenName }))"
          :chosen="null"
          @choose="focusTerm"
        />
        <ExpectationMargin :activity="activity" :checks="store.thread?.checks ?? []" />
        <DailyTerm v-if="ofTheDay" :term="ofTheDay" @choose="focusTerm" />
        <IndexList
          title="By category"
          :items="categories"
          :chosen="category"
          @choose="category = category === $event ? null : $event"
        />
        <IndexList
          v-if="!(activity.talk.namesHidden && !desk.isStaff)"
          title="By author"
          hint="choose one to read only theirs"
          :items="authors"
          :chosen="author"
          @choose="author = author === $event ? null : $event"
        />
        <IndexList
          :title="`By ${activity.talk.indexBy}`"
          :items="added"
          :chosen="period"
          @choose="period = period === $event ? null : $event"
        />
        <TermsInOut :activity="activity" :may-import="desk.isStaff" @taken="store.refresh()" />
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
.new {
  margin: 16px 0 20px;
  max-width: 50em;
}
.drafts {
  background: var(--paper);
  border-radius: var(--r);
  padding: 8px 12px;
  margin-top: 14px;
  font-size: 0.84375rem;
  display: grid;
  gap: 4px;
  max-width: 50em;
}
.initial {
  font: 600 1.625rem/1 var(--read);
  color: var(--k-lexicon);
  margin: 22px 0 4px;
  border-bottom: 1px solid var(--line-soft);
  padding-bottom: 6px;
  max-width: 43.75rem;
}
.one {
  padding: 12px 0 14px;
  max-width: 50em;
}
.one + .one {
  border-top: 1px solid var(--line-soft);
}
.more {
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink-3);
  margin-top: 3px;
  overflow-wrap: anywhere;
}
.more i {
  font: italic 400 0.875rem/1.4 var(--read);
  color: var(--ink-2);
}
.end {
  height: 1px;
}
@media (min-width: 1500px) {
  .terms {
    columns: 2;
    column-gap: 56px;
  }
  .terms > * {
    break-inside: avoid;
  }
  .initial {
    break-after: avoid;
  }
}
aside {
  padding: 14px 20px 24px;
  overflow-y: auto;
}
aside section + section,
aside :deep(section + section) {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 12px;
}
aside h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
aside h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
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
