<script setup lang="ts">
import { isPrinting } from '~/composables/shell/printing'
import type { Passage } from '#core/kinds/reading/passages'
import type { PartView, ReadingView } from '#shared/kinds/reading/reading'
import { caretAtPoint } from '~/kinds/reading/gapInText'
import { PartText } from '~/kinds/reading/partText'
import type { MarginNote } from '~/kinds/reading/useMargin'
import { sidenoteTops } from '~/kinds/reading/sidenoteTops'
import type { OpenPaper } from '~/kinds/reading/usePaper'
import { useTextOverlay, type Stretch } from '~/kinds/reading/useTextOverlay'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import SheetArticle from './SheetArticle.vue'
import SheetPaper from './SheetPaper.vue'
import SheetTranscript from './SheetTranscript.vue'
import SideNote from './SideNote.vue'
import TextOverlay from './TextOverlay.vue'
import TextButton from '~/components/controls/TextButton.vue'

/**
 * What is drawn of one page, section or stretch and its margin: lines under what was noted, a letter for each passage, and
 * the notes level with their words. It stands in a `RowPlace`, which keeps its room when it is out of sight.
 */
const props = defineProps<{
  part: PartView
  text: NonNullable<ReadingView['text']>
  /** Of its text before it is drawn, in pixels. */ height: number
  paper: OpenPaper | null
  html: string | null
  width: number
  notes: readonly MarginNote[]
  passages: readonly Passage[]
  chosen: readonly Stretch[]
  found: readonly Stretch[]
  lit: string | null
  openNotes: ReadonlySet<string>
  desk: TalkDesk
  isSet: boolean
  closed: boolean
  currentLineStart: number | null
  page: string
  labelOf: (part: number) => string
}>()
const emit = defineEmits<{
  words: [part: number, words: PartText | null]
  hold: [isHeld: boolean]
  room: [margin: number]
  pick: [ids: readonly string[]]
  area: [area: { x: number; y: number; width: number; height: number }]
  play: [at: number]
  toggle: [id: string]
  follow: [id: string]
  light: [id: string | null]
  settle: [id: string, settled: boolean]
  tag: [tag: string]
  jump: [id: string]
  whole: []
}>()
const sheetBox = ref<HTMLElement | null>(null)
const margin = ref<HTMLElement | null>(null)
const sheet = ref<{
  part: (y: number, range: Range | null) => HTMLElement | null | Promise<HTMLElement | null>
  close: () => void
} | null>(null)
const failed = ref(false)
let words: PartText | null = null

let resized: ResizeObserver | undefined
function watchSizes() {
  resized?.disconnect()
  resized ??= new ResizeObserver(layAll)
  if (sheetBox.value) resized.observe(sheetBox.value)
  if (!margin.value) return
  resized.observe(margin.value)
  for (const at of margin.value.querySelectorAll(':scope > .at')) resized.observe(at)
}
onMounted(() => {
  watchSizes()
  layAll()
})
onBeforeUnmount(() => {
  resized?.disconnect()
  words = null
  emit('words', props.part.number, null)
})
function drawn(root: HTMLElement) {
  words = new PartText(root, props.part.start)
  emit('words', props.part.number, words)
  layAll()
}

// -- lines and letters over the text
const { laid, lay } = useTextOverlay(
  () => props,
  () => (words && sheetBox.value ? { words, box: sheetBox.value.getBoundingClientRect() } : null),
)

// -- notes level with their lines
const order = computed(() => {
  const letterOf = new Map(props.passages.flatMap(p => p.ids.map(id => [id, p] as const)))
  return [...props.notes]
    .sort(
      (a, b) =>
        (a.c.note.at?.start ?? 0) - (b.c.note.at?.start ?? 0) ||
        (b.c.note.at?.end ?? 0) - (a.c.note.at?.end ?? 0) ||
        a.c.shownAt.localeCompare(b.c.shownAt),
    )
    .map(note => ({ note, passage: letterOf.get(note.c.id) ?? null }))
})
const tops = shallowRef<ReadonlyMap<string, number>>(new Map())
const marginHeight = ref(0)
function layMargin() {
  if (!margin.value || margin.value.offsetParent === null) return
  const boxes = [...margin.value.querySelectorAll<HTMLElement>(':scope > .at')]
  const height = sheetBox.value?.offsetHeight ?? 0
  const placed = sidenoteTops(boxes, props.notes, laid.value.letters, height)
  tops.value = placed.tops
  marginHeight.value = placed.height
  emit('room', placed.height)
}
let waits = 0
function layAll() {
  cancelAnimationFrame(waits)
  waits = requestAnimationFrame(() => {
    lay()
    layMargin()
  })
}
onBeforeUnmount(() => cancelAnimationFrame(waits))
watch(
  () => [props.passages, props.chosen, props.found, props.lit],
  () => layAll(),
)
watch(order, async () => {
  await nextTick()
  watchSizes()
  layAll()
})

function clicked(event: MouseEvent) {
  const target = event.target as Element
  if (!words || target.closest('a, button, [data-not-text]') || !getSelection()?.isCollapsed) return
  const caret = caretAtPoint(event.clientX, event.clientY)
  if (!caret || !words.root.contains(caret.node)) return
  const at = words.offsetOf(caret.node, caret.offset)
  const over = props.passages.filter(p => p.start <= at && p.end >= at)
  if (over.length > 0)
    emit(
      'pick',
      over.flatMap(p => p.ids),
    )
}
/** Opens the text under a passage, or under an area, and gives the place that opened. */
async function openAt(
  stretch: Stretch | null,
  area: { y: number; height: number } | null,
): Promise<HTMLElement | null> {
  if (!sheet.value || !sheetBox.value) return null
  emit('hold', true)
  if (area) return sheet.value.part((area.y + area.height) * props.width * (props.part.aspect ?? 1) + 4, null)
  if (!stretch || !words) return null
  const range = words.range(Math.max(words.start, stretch.start), Math.min(words.end, stretch.end))
  const last = words.lines(Math.max(words.start, stretch.start), Math.min(words.end, stretch.end)).at(-1)
  if (!range || !last) return null
  return sheet.value.part(last.bottom - words.root.getBoundingClientRect().top + 4, range)
}
defineExpose({
  openAt,
  close: () => {
    sheet.value?.close()
    emit('hold', false)
  },
})
const leastHeight = computed(() =>
  props.text.form === 'paper' || (props.text.form === 'article' && props.html === null)
    ? `${props.height}px`
    : undefined,
)
const areas = computed(() => props.notes.filter(n => n.c.note.area))
const linesOf = computed(() =>
  props.text.cues.filter(
    c => c.start >= props.part.start && c.start < Math.max(props.part.end, props.part.start + 1),
  ),
)
const targetOf = (n: MarginNote) => n.c.note.to?.passage.exact ?? null
</script>

<template>
  <div
    class="text"
    :class="[text.form, { context: !isSet }]"
    :data-part="part.number"
    tabindex="-1"
    @click="clicked"
  >
    <header v-if="closed" class="runner">
      <span v-if="closed">write a note here, and the others’ appear</span>
    </header>
    <div
      ref="sheetBox"
      class="sheet"
      :lang="text.language ?? undefined"
      data-words
      :style="{ minHeight: leastHeight }"
    >
      <SheetPaper
        v-if="text.form === 'paper' && paper && !failed"
        ref="sheet"
        :open="paper"
        :number="part.number"
        :width="width"
        :aspect="part.aspect ?? 1.4"
        :drawn-only="part.drawnOnly"
        @drawn="drawn"
        @failed="failed = true"
        @area="emit('area', $event)"
      />
      <SheetArticle
        v-else-if="text.form === 'article' && html !== null"
        ref="sheet"
        :html="html"
        @drawn="drawn"
      />
      <SheetTranscript
        v-else-if="text.form === 'recording'"
        ref="sheet"
        :lines="linesOf"
        :current-line-start="currentLineStart"
        @drawn="drawn"
        @play="emit('play', $event)"
      />
      <p v-if="failed" class="empty">
        This page could not be drawn. Its notes stand beside it.
        <TextButton @click="failed = false">try again</TextButton>
      </p>
      <p v-else-if="text.form === 'article' && html === null" class="empty">…</p>
      <TextOverlay
        class="no-print"
        :glow="laid.glow"
        :found="laid.found"
        :chosen="laid.chosen"
        :lines="laid.lines"
        :letters="laid.letters"
        :areas="areas"
        :lit="lit"
        :width="width"
        :height="width * (part.aspect ?? 1)"
        @pick="emit('pick', $event)"
      />
      <p v-if="part.drawnOnly && desk.mayWrite" class="scan" data-not-text>
        This page is a picture. Draw a frame on it, or
        <TextButton @click="emit('whole')">note the whole page</TextButton>.
      </p>
    </div>
  </div>
  <aside
    ref="margin"
    class="margin"
    :style="{ minHeight: `${marginHeight}px` }"
    :aria-label="`Notes on ${page.toLowerCase()} ${part.label}`"
  >
    <div
      v-for="{ note, passage } in order"
      :key="note.c.id"
      class="at"
      :data-note="note.c.id"
      :style="{ transform: `translateY(${tops.get(note.c.id) ?? 0}px)` }"
    >
      <q v-if="isPrinting && note.c.note.passage" class="words">{{ note.c.note.passage.exact }}</q>
      <SideNote
        :note="note"
        :letter="passage?.letter ?? null"
        :desk="desk"
        :open="isPrinting || openNotes.has(note.c.id)"
        :lit="lit === note.c.id"
        :target="targetOf(note)"
        :target-page="note.c.note.to ? labelOf(note.c.note.to.part) : null"
        @toggle="emit('toggle', note.c.id)"
        @follow="emit('follow', note.c.id)"
        @light="emit('light', $event ? note.c.id : null)"
        @settle="emit('settle', note.c.id, $event)"
        @tag="emit('tag', $event)"
        @play="emit('play', $event)"
        @jump="emit('jump', note.c.id)"
      />
    </div>
  </aside>
</template>

<style scoped src="./row.css" />
<style scoped>
.runner {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font: italic 400 0.8125rem/1.5 var(--read);
  color: var(--ink-3);
  padding: 10px 0 4px;
}
.runner b {
  font: 600 0.8125rem/1.5 var(--read);
  color: var(--ink-2);
}
.sheet {
  position: relative;
  padding-bottom: 14px;
}
.text:is(.article, .recording) .sheet {
  padding-top: 14px;
}
.scan {
  font-size: 0.8125rem;
  color: var(--ink-2);
  padding: 6px 0;
  text-align: center;
}
.at {
  position: absolute;
  left: 42px;
  right: 18px;
  top: 0;
}
.empty {
  padding: 16px 0;
  color: var(--ink-2);
}
.text :deep(.text-gap) {
  display: block;
  margin: 4px calc(-1 * var(--gutter, 40px));
  position: relative;
  z-index: 5;
  text-indent: 0;
  font-size: 1rem;
}
@media print {
  .margin {
    display: block;
    min-height: 0 !important;
    border: 0;
    padding: 6px var(--gutter, 14px) 14px;
  }
  .at {
    position: static;
    transform: none !important;
    margin-bottom: 8px;
  }
}
</style>
