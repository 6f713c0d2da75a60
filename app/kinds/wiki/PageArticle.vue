<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import LineInput from '~/components/controls/LineInput.vue'
import { markPassages } from '#core/contributing/markPassages'
import type { PageLine, PageView, PagePassage } from '#shared/kinds/wiki/wiki'
import { inWords, listed, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useTermsStore } from '~/stores/terms'
import { useWikiStore } from '~/stores/wiki'
import TextButton from '~/components/controls/TextButton.vue'

/** A page as it is read: its text with links to other pages, passages that are talked about, and what leads here. */
const props = defineProps<{
  page: PageView
  line: PageLine
  mayWrite: boolean
  mayComment: boolean
  isStaff: boolean
  historyTo: string
  /** The comment whose passage is pointed out. */ lit: string | null
}>()
const emit = defineEmits<{
  write: []
  open: [id: string]
  make: [title: string]
  choose: [passage: PagePassage | null]
  claim: [claimed: boolean]
  rename: [title: string]
  remove: []
  comment: [id: string]
}>()
const store = useWikiStore()
const terms = useTermsStore()
const { shortDayTime } = useTimes()
const prose = ref<HTMLElement | null>(null)
const renaming = ref(false)
const title = ref('')
const latest = computed(() => props.page.versions[0] ?? null)
const talked = computed(() => props.page.comments.filter(c => c.passage && !c.withdrawn))
const html = computed(() => {
  // links lead to their page in this wiki, by its name or one it had; to pages that are not there they look wanted
  const linked = props.page.html.replace(
    /<a class="page-link" data-page="([^"]*)" href="[^"]*"/g,
    (_, at: string) => {
      const to = store.pageOf(decode(at))
      return to
        ? `<a class="page-link" data-page="${at}" href="?${store.view?.groupId ? `group=${store.view.groupId}&amp;` : ''}page=${to.id}"`
        : `<a class="page-link wanted" data-page="${at}" href="#"`
    },
  )
  return terms.link(
    markPassages(
      linked,
      talked.value.map(c => ({
        exact: c.passage!.exact,
        open: `<mark class="talked${c.resolved ? ' done' : ''}${c.id === props.lit ? ' lit' : ''}" data-comment="${c.id}">`,
        close: '</mark>',
      })),
    ),
  )
})
const decode = (text: string) =>
  text
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')

function click(event: MouseEvent) {
  const target = event.target as Element
  const link = target.closest<HTMLElement>('a.page-link')
  if (link) {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return // in a window of its own
    event.preventDefault()
    const to = link.dataset.page ?? ''
    const found = store.pageOf(to)
    if (found) emit('open', found.id)
    else if (props.mayWrite) emit('make', to)
    return
  }
  const mark = target.closest<HTMLElement>('mark.talked')
  if (mark && !target.closest('a')) emit('comment', mark.dataset.comment!)
}
const CONTEXT = 32 // characters kept before and after, as the W3C text quote selector has them
/** The words chosen on the page, with what stands around them. */
function chosen() {
  const selection = window.getSelection()
  // the number of a footnote is not part of what was chosen
  const part = selection && selection.rangeCount > 0 ? selection.getRangeAt(0).cloneContents() : null
  const notes = part?.querySelectorAll('sup') ?? []
  notes.forEach(n => n.remove())
  const words =
    (notes.length > 0 ? part!.textContent : (selection?.toString() ?? ''))?.replace(/\s+/g, ' ').trim() ?? ''
  if (
    !selection ||
    selection.rangeCount === 0 ||
    !prose.value?.contains(selection.getRangeAt(0).commonAncestorContainer) ||
    words.length < 3 ||
    words.length > 500
  ) {
    emit('choose', null)
    return
  }
  const all = prose.value.textContent!.replace(/\s+/g, ' ')
  const at = all.indexOf(words)
  emit('choose', {
    exact: words,
    prefix: at > 0 ? all.slice(Math.max(0, at - CONTEXT), at) : '',
    suffix: at >= 0 ? all.slice(at + words.length, at + words.length + CONTEXT) : '',
  })
}
function rename() {
  renaming.value = false
  if (title.value.trim() && title.value.trim() !== props.page.title) emit('rename', title.value.trim())
}
function startRenaming() {
  renaming.value = true
  title.value = props.page.title
}
const writeVerb = computed(() => {
  if (props.page.draft) return 'Go on with your draft'
  if (props.page.number === 0) return 'Begin the page'
  return 'Write on it'
})
</script>

<template>
  <article class="page" :aria-label="page.title">
    <header>
      <form v-if="renaming" class="renaming" @submit.prevent="rename">
        <LineInput
          v-model="title"
          class="in"
          maxlength="120"
          aria-label="Title of the page"
          autofocus
          @keydown.esc="renaming = false"
        /><v-btn type="submit">Rename it</v-btn><v-btn class="quiet" @click="renaming = false">Cancel</v-btn>
      </form>
      <h2 v-else>{{ page.title }}</h2>
      <p class="meta">
        <template v-if="line.claimedBy"
          >claimed by <b>{{ line.claimedBy.isMe ? 'you' : line.claimedBy.givenName }}</b></template
        ><template v-else>nobody looks after this page yet</template>
        <TextButton v-if="mayWrite && !isStaff && !line.claimedBy" @click="emit('claim', true)">
          claim it
        </TextButton>
        <TextButton
          v-else-if="mayWrite && line.claimedBy && (line.claimedBy.isMe || isStaff)"
          @click="emit('claim', false)"
        >
          release it
        </TextButton>
        <template v-if="latest"
          ><span>·</span
          ><span
            ><NuxtLink :to="historyTo" class="link">version {{ latest.number }}</NuxtLink
            >, {{ latest.author.isMe ? 'you' : latest.author.givenName }},
            {{ shortDayTime(latest.savedAt) }}</span
          ><span>·</span><span>{{ line.words }} {{ plural(line.words, 'word') }}</span></template
        >
        <span v-if="line.writing.length > 0" class="now"
          >{{ listed(line.writing.map(w => w.givenName)) }}
          {{ plural(line.writing.length, 'is', 'are') }} writing on it now</span
        >
      </p>
      <p class="acts">
        <v-btn v-if="mayWrite" class="main" @click="emit('write')">{{ writeVerb }} <KeyHint of="e" /></v-btn>
        <v-btn v-if="page.number > 0" :to="historyTo">Versions and changes <KeyHint of="h" /></v-btn>
        <TextButton v-if="mayWrite && !renaming" @click="startRenaming">rename</TextButton>
        <TextButton v-if="mayWrite" @click="emit('remove')">delete</TextButton>
      </p>
    </header>
    <!-- eslint-disable vue/no-v-html -- sanitised on the server when it was written -->
    <div
      v-if="page.number > 0"
      ref="prose"
      class="prose text"
      dir="auto"
      @click="click"
      @mouseup="chosen"
      @choose="chosen"
      @keyup="chosen"
      v-html="html"
    />
    <!-- eslint-enable vue/no-v-html -->
    <p v-else class="empty">
      {{
        line.claimedBy && !line.claimedBy.isMe
          ? `${line.claimedBy.givenName} has claimed this page. Nothing stands here yet.`
          : 'Nothing stands here yet. A first version may be three sentences and a question: others can only mend what is there.'
      }}
    </p>
    <footer v-if="store.linkedFrom.length > 0">
      <b>What links here</b>{{ ' '
      }}<template v-for="(p, i) in store.linkedFrom" :key="p.id"
        >{{ i > 0 ? ', ' : '' }}<TextButton @click="emit('open', p.id)">{{ p.title }}</TextButton></template
      ><span class="muted">
        · {{ inWords(store.linkedFrom.length) }} {{ plural(store.linkedFrom.length, 'page') }}</span
      >
    </footer>
  </article>
</template>

<style scoped>
.page {
  max-width: 46em;
}
h2 {
  font: 600 1.5rem/1.3 var(--read);
  overflow-wrap: anywhere;
}
.meta {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 7px;
  font-size: 0.8125rem;
  line-height: 19px;
  color: var(--ink-3);
  margin-top: 2px;
}
.meta b {
  color: var(--ink);
  font-weight: 600;
}
.now {
  color: var(--ember);
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin: 10px 0 16px;
  font-size: 0.8125rem;
}
.renaming {
  display: flex;
  gap: 8px;
}
.renaming .in {
  flex: 1;
  font: 600 1.25rem/1.3 var(--read);
}
.text {
  font-size: 1.0625rem;
  line-height: 1.6;
}
.text :deep(h3) {
  font: 600 1.25rem/1.35 var(--read);
  color: var(--ink);
  margin-top: 1.1em;
}
.text :deep(h4) {
  font: 600 1.0625rem/1.35 var(--read);
}
.text :deep(.page-link.wanted) {
  color: var(--ember);
  text-decoration-style: dashed;
}
.text :deep(mark.talked) {
  background: linear-gradient(transparent 72%, var(--cited) 72%);
  color: inherit;
  cursor: pointer;
}
.text :deep(mark.talked.done) {
  background: linear-gradient(transparent 88%, var(--moss) 88%, var(--moss) 94%, transparent 94%);
}
.text :deep(mark.talked.lit) {
  background: var(--cited);
}
.empty {
  font: 400 1.0625rem/1.6 var(--read);
  color: var(--ink-2);
}
footer {
  border-top: 1px solid var(--line-soft);
  margin-top: 26px;
  padding-top: 10px;
  font-size: 0.8125rem;
}
footer b {
  font-weight: 650;
  margin-right: 6px;
}
</style>
