<script setup lang="ts">
import type { RichNode } from '#core/contributing/richText'
import type { PagePassage, VersionSaved } from '#shared/kinds/wiki/wiki'
import { useLivePages } from '~/kinds/wiki/useLivePages'
import { useWikiActs } from '~/kinds/wiki/useWikiActs'
import { useTimes } from '~/composables/planning/useTimes'
import { sentenceKeys } from '~/composables/shell/sentenceKeys'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import { useWikiStore } from '~/stores/wiki'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import PageArticle from './PageArticle.vue'
import PageComments from './PageComments.vue'
import PageTree from './PageTree.vue'
import WikiInOut from './WikiInOut.vue'

const PageEditor = defineAsyncComponent(() => import('./PageEditor.vue'))
/** A wiki: its pages in their tree, the page one is at, and the talk about it beside it. */
const thread = useThreadStore()
const store = useWikiStore()
const seminar = useSeminarStore()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { dayTime } = useTimes()
const activity = computed(() => thread.activity!)
const queried = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : null)
const { error, refresh: again } = await useAsyncData(`wiki-${activity.value.id}`, async () => {
  await store.load(activity.value.id, queried('group'), queried('page'))
  return true
})
const view = computed(() => store.view)
const page = computed(() => store.page)
const may = computed(() => view.value?.may ?? { write: false, comment: false })
const middle = ref<HTMLElement | null>(null)
const writing = ref(false)
const passage = shallowRef<PagePassage | null>(null)
const lit = ref<string | null>(null)
const talk = ref<InstanceType<typeof PageComments> | null>(null)
const base = computed(() => `/seminars/${activity.value.seminarId}/activities/${activity.value.id}`)
const historyTo = computed(
  () =>
    `${base.value}/history?${view.value?.groupId ? `group=${view.value.groupId}&` : ''}page=${page.value?.id ?? ''}`,
)
const phaseWords = computed(() => {
  const v = view.value
  if (!v?.phase || !v.until) return may.value.write ? null : 'Writing is over. Everything stays to be read.'
  const until = dayTime(v.until)
  if (v.phase === 'write') return `Writing together until ${until}.`
  if (v.phase === 'respond') return `The pages rest while they are commented on, until ${until}.`
  return `Revising until ${until}: act on the comments.`
})

const acts = useWikiActs(open)
const { attempt, refreshChecks } = acts
async function open(id: string) {
  writing.value = false
  passage.value = null
  await attempt(() => store.open(id))
  void router.replace({
    query: { ...(view.value?.groupId && { group: view.value.groupId }), page: id },
    hash: '',
  })
  // where the tree stands above the page, the page comes into view
  if (window.innerWidth <= 1000) middle.value?.scrollIntoView()
}
async function group(id: string | null) {
  writing.value = false
  await attempt(() => store.load(activity.value.id, id, null))
  void router.replace({ query: id ? { group: id } : {} })
}
async function make(title: string) {
  const id = await attempt(() => store.make(title))
  if (!id) return
  await open(id)
  writing.value = page.value?.number === 0
}
async function saved({ number, joined, isNew }: VersionSaved) {
  writing.value = false
  await attempt(async () => {
    await store.refresh()
    refreshChecks()
  })
  const said = joined
    ? `Saved as version ${number}, joined with what others had saved.`
    : `Saved as version ${number}.`
  notices.say(
    isNew ? said : `Nothing had to be saved: what you chose stands in version ${number} already.`,
    number > 1
      ? {
          label: 'See what changed',
          run: () => void navigateTo(`${historyTo.value}&a=${number - 1}&b=${number}`),
        }
      : undefined,
  )
}
async function closeEditor(said: string | null) {
  writing.value = false
  await attempt(() => store.refresh())
  if (said) notices.say(said)
}
const send = async (doc: RichNode, on: PagePassage | null, parentId: string | null, key: string) => {
  await store.comment(page.value!.id, doc, on, parentId, key)
  refreshChecks()
}
function goToComment(id: string) {
  lit.value = id
  document.getElementById(`c-${id}`)?.scrollIntoView({ block: 'center' })
  document.getElementById(`c-${id}`)?.focus({ preventScroll: true })
}
function turn(by: number) {
  const list = store.inTree
  const at = list.findIndex(p => p.line.id === page.value?.id)
  const next = list[Math.min(list.length - 1, Math.max(0, at + by))]
  if (next && next.line.id !== page.value?.id) void open(next.line.id)
}
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next page', run: () => turn(1) },
  { keys: 'k', does: 'the page before', run: () => turn(-1) },
  {
    keys: 'e',
    does: 'write on the page',
    run: () => {
      if (may.value.write && page.value) writing.value = true
    },
  },
  {
    keys: 'c',
    does: 'comment on the chosen words, or on the page',
    run: () => {
      if (may.value.comment && page.value && !writing.value) void talk.value?.begin(null)
    },
  },
  {
    keys: 'h',
    does: 'versions and changes',
    run: () => {
      if (page.value) void navigateTo(historyTo.value)
    },
  },
  { keys: 'Shift+Arrows', does: 'move the page that has the focus in the tree', run: null },
  ...sentenceKeys(() => [...document.querySelectorAll<HTMLElement>('.prose.text > *')]),
])
useKeys(() => keys.value)

// somebody comes to another page from outside: found by its words, or back in the browser's history
watch(
  () => [queried('group'), queried('page')] as const,
  ([inGroup, at]) => {
    if (at && at !== page.value?.id && route.params.activityId === activity.value.id) {
      writing.value = false
      void attempt(() => store.load(activity.value.id, inGroup ?? view.value?.groupId ?? null, at))
    }
  },
)
useLivePages(() => activity.value.id)
watch(page, (now, before) => {
  if (now || !before || !writing.value) return
  writing.value = false
  notices.say(
    `“${before.title}” was deleted while you wrote. Your draft is kept with it; restore the page to go on.`,
    acts.undo(async () => {
      await acts.putBack(before.id)
      writing.value = true
    }, 'Restore'),
  )
})
onMounted(() => {
  if (page.value?.draft && queried('page')) writing.value = true
  if (location.hash.startsWith('#c-')) goToComment(location.hash.slice(3))
})
const isOthers = computed(() => {
  const { wikis, groupId } = view.value ?? { wikis: [], groupId: null }
  return wikis.length > 1 && !wikis.find(w => w.groupId === groupId)?.isOwn && !seminar.isStaff
})
</script>

<template>
  <ActivityPage :activity="activity">
    <div v-if="error || !view" class="alone">
      <p class="empty">{{ error?.message ?? 'The wiki could not be fetched.' }}</p>
      <p><v-btn @click="again()">Try again</v-btn></p>
    </div>
    <div v-else-if="view.missing === 'group'" class="alone">
      <p class="empty">
        You are in no group for this wiki yet. Once you are in one, its pages stand here; write to your
        instructor if that should have happened by now.
      </p>
    </div>
    <div v-else-if="view.missing === 'hidden'" class="alone">
      <p class="empty">This wiki is not open to others yet.</p>
    </div>
    <div v-else class="spread">
      <PageTree
        :view="view"
        :current="page?.id ?? null"
        :may-write="may.write"
        @open="open"
        @group="group"
        @make="make"
        @move="acts.move"
        ><WikiInOut :activity-id="activity.id" :view="view" @taken="store.refresh()"
      /></PageTree>
      <main ref="middle">
        <p v-if="phaseWords" class="phase">
          {{ phaseWords }}<template v-if="isOthers"> This is another group’s wiki, to be read.</template>
        </p>
        <PageEditor
          v-if="writing && page"
          :key="page.id"
          :page="page"
          :activity-id="activity.id"
          @saved="saved"
          @away="closeEditor('Closed. Your draft is kept; only you see it.')"
          @discarded="closeEditor(null)"
        />
        <PageArticle
          v-else-if="page && store.line"
          :key="page.id"
          :page="page"
          :line="store.line"
          :may-write="may.write"
          :may-comment="may.comment"
          :is-staff="seminar.isStaff"
          :history-to="historyTo"
          :lit="lit"
          @write="writing = true"
          @open="open"
          @make="make"
          @choose="passage = may.comment ? $event : null"
          @claim="acts.claim"
          @rename="acts.rename"
          @remove="acts.remove"
          @comment="goToComment"
        />
        <div v-else class="empty">
          <p>
            {{
              may.write
                ? 'A wiki begins with one page. Take a word of the brief, claim its page, and write what you know; the others mend it.'
                : 'No pages have been written here yet.'
            }}
          </p>
          <p v-if="may.write && view.suggested.length > 0" class="first">
            <v-btn v-for="s in view.suggested.slice(0, 5)" :key="s" @click="make(s)">{{ s }}</v-btn>
          </p>
        </div>
      </main>
      <aside>
        <ExpectationMargin :activity="activity" :checks="thread.thread?.checks ?? []" />
        <PageComments
          v-if="page && page.number > 0"
          :key="page.id"
          ref="talk"
          :page="page"
          :may-comment="may.comment"
          :passage="passage"
          :lit="lit"
          :send="send"
          @drop-passage="passage = null"
          @lit="lit = $event"
          @resolve="acts.resolve"
          @withdraw="acts.withdraw"
        />
      </aside>
    </div>
  </ActivityPage>
</template>

<style scoped>
.spread {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 256px minmax(0, 1fr) 322px;
}
main {
  overflow-y: auto;
  background: var(--sheet);
  padding: 16px 40px 60px;
  min-width: 0;
}
.phase {
  font: italic 400 0.875rem/1.45 var(--read);
  color: var(--ink-3);
  margin-bottom: 8px;
}
aside {
  border-left: 1px solid var(--line);
  padding: 14px 20px 24px;
  overflow-y: auto;
}
aside > :deep(section + section) {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 12px;
}
.alone {
  padding: 30px 20px;
  max-width: 44rem;
}
.empty {
  font: 400 1.0625rem/1.6 var(--read);
  color: var(--ink-2);
  padding: 10px 0;
}
.first {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 14px;
}
@media (max-width: 1180px) {
  .spread {
    grid-template-columns: 220px minmax(0, 1fr) 290px;
  }
  main {
    padding: 16px 24px 50px;
  }
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }
  main,
  aside {
    overflow: visible;
    padding: 14px;
    border-left: 0;
  }
  aside {
    border-top: 1px solid var(--line);
  }
}
</style>
