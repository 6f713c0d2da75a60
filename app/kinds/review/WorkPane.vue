<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import type { Passage, ReviewDesk } from '#shared/kinds/review/review'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The work one reviews, and passages in it that are remarked on. */
const props = defineProps<{
  work: NonNullable<ReviewDesk['work']>
  called: string
  passages: readonly Passage[]
  lit: number | null
  open: boolean
}>()
const emit = defineEmits<{ passage: [passage: Passage] }>()
const text = ref<HTMLElement | null>(null)
const chosen = shallowRef<{ passage: Passage; x: number; y: number } | null>(null)
const CONTEXT = 32 // characters kept before and after, as the W3C text quote selector has them
const texts = reactive(new Map<number, string>())
const openFiles = reactive(new Set<number>())
const textId = (i: number) => `work-text-${i}`

async function unfold(file: NonNullable<ReviewDesk['work']>['files'][number]) {
  if (openFiles.delete(file.place)) return
  openFiles.add(file.place)
  if (!file.hasText || texts.has(file.place)) return
  const answer = await fetch(`${file.url}?text=1`).catch(() => null)
  texts.set(
    file.place,
    answer?.ok ? await answer.text() : '<p>Its text cannot be shown just now. Download it as a file.</p>',
  )
  void nextTick(paint)
}

/** What is selected in the work, with where it stands in the work's text. */
function readSelection() {
  const selection = window.getSelection()
  const root = text.value
  if (!props.open || !root || !selection || selection.isCollapsed || selection.rangeCount === 0) {
    chosen.value = null
    return
  }
  const range = selection.getRangeAt(0)
  if (!root.contains(range.commonAncestorContainer)) {
    chosen.value = null
    return
  }
  const exact = selection.toString().trim()
  if (exact.length < 2 || exact.length > 1500) {
    chosen.value = null
    return
  }
  const whole = root.textContent ?? ''
  const before = document.createRange()
  before.selectNodeContents(root)
  before.setEnd(range.startContainer, range.startOffset)
  const flat = range.toString().trim()
  const start = Math.max(0, whole.indexOf(flat, Math.max(0, before.toString().length - 2)))
  const box = range.getBoundingClientRect()
  const frame = root.getBoundingClientRect()
  chosen.value = {
    passage: {
      exact: flat,
      prefix: whole.slice(Math.max(0, start - CONTEXT), start),
      suffix: whole.slice(start + flat.length, start + flat.length + CONTEXT),
      start,
      note: '',
    },
    x: Math.max(0, box.left - frame.left),
    y: box.bottom - frame.top + 6,
  }
}
function take() {
  if (!chosen.value) return
  emit('passage', chosen.value.passage)
  window.getSelection()?.removeAllRanges()
  chosen.value = null
}

/** Ranges of the passages in the page, by their place in the work's text. */
function rangesOf(list: readonly Passage[]): Range[] {
  const root = text.value
  if (!root) return []
  const whole = root.textContent ?? ''
  return list.flatMap(p => {
    const from = whole.startsWith(p.exact, p.start) ? p.start : whole.indexOf(p.exact)
    if (from < 0) return []
    const range = document.createRange()
    let at = 0
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const length = node.textContent?.length ?? 0
      if (at <= from && from < at + length) range.setStart(node, from - at)
      if (at < from + p.exact.length && from + p.exact.length <= at + length) {
        range.setEnd(node, from + p.exact.length - at)
        return [range]
      }
      at += length
    }
    return []
  })
}
function paint() {
  if (typeof CSS === 'undefined' || !('highlights' in CSS)) return
  CSS.highlights.set('remarked', new Highlight(...rangesOf(props.passages)))
  CSS.highlights.set(
    'remarked-now',
    new Highlight(...rangesOf(props.lit === null ? [] : [props.passages[props.lit]!].filter(Boolean))),
  )
}
watch(
  () => [props.passages, props.lit],
  () => void nextTick(paint),
  { deep: true },
)
watch(
  () => props.lit,
  i => {
    if (i !== null)
      rangesOf([props.passages[i]!].filter(Boolean))[0]?.startContainer.parentElement?.scrollIntoView({
        block: 'nearest',
      })
  },
)
onMounted(() => {
  paint()
  document.addEventListener('selectionchange', readSelection)
})
onBeforeUnmount(() => {
  document.removeEventListener('selectionchange', readSelection)
  if (typeof CSS !== 'undefined' && 'highlights' in CSS) {
    CSS.highlights.delete('remarked')
    CSS.highlights.delete('remarked-now')
  }
})
</script>

<template>
  <section class="work" tabindex="0" aria-label="The work">
    <p class="who">
      <b>{{ called }}</b><em v-if="work.title">“{{ work.title }}”</em
      ><span class="hint">{{ work.onPaper ? 'on paper' : `${work.words} words` }}</span>
    </p>
    <p v-if="work.onPaper" class="hint">This was handed in on paper; your instructor gives it to you.</p>
    <div v-else ref="text" class="text">
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
      <div class="prose" dir="auto" v-html="work.html" />
      <template v-for="f in work.files.filter(f => !work.html.includes(f.url))" :key="f.place">
        <figure v-if="f.type.startsWith('image/')"><img :src="f.url" :alt="f.name" loading="lazy" /></figure>
        <div v-else class="file">
          <TextButton
            :aria-expanded="openFiles.has(f.place)"
            :aria-controls="textId(f.place)"
            @click="unfold(f)"
          >
            {{ openFiles.has(f.place) ? 'fold' : 'read' }} {{ f.name }}</TextButton
          >{{ ' ' }}<a class="hint" :href="f.url" :download="f.name">as a file</a>
          <template v-if="openFiles.has(f.place)">
            <iframe v-if="f.type === 'application/pdf'" :id="textId(f.place)" :src="f.url" :title="f.name" />
            <!-- eslint-disable vue/no-v-html -- sanitised on the server when it was uploaded -->
            <div
              v-else
              :id="textId(f.place)"
              class="sheet prose"
              dir="auto"
              v-html="texts.get(f.place) ?? '…'"
            />
            <!-- eslint-enable vue/no-v-html -->
          </template>
        </div>
      </template>
      <PlainButton
        v-if="chosen"
        class="take"
        :style="{ left: `${chosen.x}px`, top: `${chosen.y}px` }"
        @mousedown.prevent
        @click="take"
      >
        Remark on this <KeyHint of="e" />
      </PlainButton>
    </div>
    <slot />
  </section>
</template>

<style scoped>
.work {
  overflow-y: auto;
  background: var(--sheet);
  padding: 18px 44px 60px 40px;
  border-right: 1px solid var(--line);
  min-width: 0;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  margin-bottom: 12px;
}
.who em {
  font: italic 400 1rem/1.4 var(--read);
  color: var(--ink-2);
}
.who b {
  font: 600 1.125rem/1.3 var(--read);
  border-left: 4px solid var(--k-review);
  padding-left: 9px;
}
.text {
  position: relative;
  max-width: 42em;
}
.text > .prose {
  font-size: 1.03125rem;
  line-height: 1.65;
}
figure img {
  max-width: 100%;
  border-radius: var(--r);
  border: 1px solid var(--line);
}
.file {
  margin-top: 14px;
  font-size: 0.8125rem;
}
iframe {
  display: block;
  width: 100%;
  height: 70vh;
  border: 1px solid var(--line);
  border-radius: var(--r);
  margin-top: 6px;
}
.sheet {
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--paper);
  padding: 14px 20px;
  margin-top: 6px;
}
.take {
  position: absolute;
  z-index: 3;
  background: var(--harbour);
  color: var(--on-harbour);
  border: 0;
  border-radius: var(--r);
  padding: 7px 11px;
  font: 600 0.8125rem/1 var(--ui);
  cursor: pointer;
  box-shadow: 0 4px 14px rgb(0 0 0 / 0.2);
}
.take kbd {
  background: transparent;
  color: inherit;
  border-color: color-mix(in srgb, currentcolor 35%, transparent);
}
@media (max-width: 1000px) {
  .work {
    border-right: 0;
    border-bottom: 1px solid var(--line);
    padding: 14px;
    overflow: visible;
  }
}
</style>

<style>
::highlight(remarked) {
  background-color: color-mix(in srgb, var(--cited) 55%, transparent);
}
::highlight(remarked-now) {
  background-color: var(--cited);
}
</style>
