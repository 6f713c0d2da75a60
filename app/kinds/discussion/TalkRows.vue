<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import type { ThreadRow } from '#core/contributing/threadRows'
import type { ContributionView } from '#shared/contributing/thread'
import { plural } from '#core/language'
import { isPrinting, useBeforePrint } from '~/composables/shell/printing'
import { useThreadStore } from '~/stores/thread'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import WriteBox from '~/components/contributing/WriteBox.vue'
import TalkPost from './TalkPost.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The rows of a talk: all of a short one, and of a long one those about to be seen. */
const props = defineProps<{
  rows: readonly ThreadRow<ContributionView>[]
  desk: TalkDesk
  scroller: HTMLElement | null
  opening?: string
}>()
const store = useThreadStore()
const SHORT = 150 // rows that stand whole
const AHEAD = 12 // rows drawn before they come into view
const list = ref<HTMLElement | null>(null)
const isVirtual = computed(() => props.rows.length > SHORT && !isPrinting.value)
const above = ref(0) // pixels of the scroller before the first row
const guess = (row: ThreadRow<ContributionView>): number => {
  if (row.kind === 'fold') return 44
  if (row.kind === 'write') return 190
  if (row.item.view === 'place') return 54
  return 58 + Math.ceil(Math.min(row.item.words, 60) / 13) * 24
}

const virtual = useVirtualizer(
  computed(() => ({
    count: isVirtual.value ? props.rows.length : 0,
    getScrollElement: () => props.scroller,
    estimateSize: (i: number) => guess(props.rows[i]!),
    getItemKey: (i: number) => props.rows[i]!.key,
    overscan: AHEAD,
    scrollMargin: above.value,
    initialRect: { width: 900, height: 900 },
  })),
)
const window_ = computed(() => virtual.value.getVirtualItems())
const shown = computed(() =>
  isVirtual.value
    ? window_.value.map(v => ({ row: props.rows[v.index]!, index: v.index })).filter(x => x.row)
    : props.rows.map((row, index) => ({ row, index })),
)
const before = computed(() => (isVirtual.value ? (window_.value[0]?.start ?? 0) - above.value : 0))
const after = computed(() =>
  isVirtual.value
    ? Math.max(0, virtual.value.getTotalSize() - ((window_.value.at(-1)?.end ?? 0) - above.value))
    : 0,
)
const measureOffset = () => {
  if (list.value && props.scroller)
    above.value =
      list.value.getBoundingClientRect().top -
      props.scroller.getBoundingClientRect().top +
      props.scroller.scrollTop
}
onMounted(() => {
  measureOffset()
  // the rest follows by itself, so that nothing stands blank for long
  if (isVirtual.value) void store.needTexts(missing(0, props.rows.length), false)
})
watch(() => props.scroller, measureOffset)
useBeforePrint(() => store.needTexts(missing(0, props.rows.length)))
const measure = (element: unknown) => {
  if (isVirtual.value && element) virtual.value.measureElement(element as HTMLElement)
}

// words of what is about to be seen are fetched first
const missing = (from: number, to: number) =>
  props.rows
    .slice(Math.max(0, from), to)
    .flatMap(r => (r.kind === 'post' && r.item.view === 'whole' && r.item.html === null ? [r.item.id] : []))
watch(
  () => (isVirtual.value && import.meta.client ? `${window_.value[0]?.index ?? 0}` : ''),
  at => {
    if (at === '') return
    const first = Number(at)
    const ids = missing(first - 40, first + 120)
    if (ids.length > 0) void store.needTexts(ids)
  },
  { immediate: true },
)

/** Rows that arrive above must not move what is being read: the row at the top of the view stays where it is. */
let anchor: { key: string; top: number } | null = null
function hold() {
  const first =
    props.scroller &&
    ([...(list.value?.children ?? [])].find(
      e =>
        (e as HTMLElement).dataset.key &&
        e.getBoundingClientRect().bottom > props.scroller!.getBoundingClientRect().top + 40,
    ) as HTMLElement | undefined)
  anchor = first ? { key: first.dataset.key!, top: first.getBoundingClientRect().top } : null
}
watch(
  () => props.rows,
  async () => {
    if (!isVirtual.value || !anchor) return
    const { key, top } = anchor
    anchor = null
    await nextTick()
    const index = props.rows.findIndex(r => r.key === key)
    const element = list.value?.querySelector<HTMLElement>(`[data-key="${key}"]`)
    if (element) props.scroller!.scrollTop += element.getBoundingClientRect().top - top
    else if (index >= 0) virtual.value.scrollToIndex(index, { align: 'start' })
  },
)

/** Brings a row into the middle of the view, drawn or not. */
async function show(id: string) {
  const index = props.rows.findIndex(r => r.key === id)
  if (index < 0) return
  if (isVirtual.value) {
    virtual.value.scrollToIndex(index, { align: 'center' })
    // the rows between are measured on the way, which moves the aim: a second look settles it
    await nextTick()
    await new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve)))
    virtual.value.scrollToIndex(index, { align: 'center' })
    await new Promise(resolve => requestAnimationFrame(resolve))
  }
  await nextTick()
  const element = document.getElementById(`c-${id}`)
  element?.focus({ preventScroll: true })
  if (!isVirtual.value)
    element?.scrollIntoView({
      block: 'center',
      behavior: matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth',
    })
}
defineExpose({ show, hold })
</script>

<template>
  <div
    ref="list"
    class="rows"
    :style="isVirtual ? { paddingTop: `${before}px`, paddingBottom: `${after}px` } : {}"
  >
    <div
      v-for="{ row, index } in shown"
      :key="row.key"
      :ref="measure"
      :data-index="index"
      :data-key="row.key"
      class="row"
    >
      <TalkPost v-if="row.kind === 'post'" :row="row" :desk="desk" :opening="opening" />
      <div v-else-if="row.kind === 'fold'" class="folded" :style="{ '--d': Math.min(row.depth, 2) }">
        <b>{{ row.answers }} {{ plural(row.answers, 'reply', 'replies') }}</b
        ><span v-if="row.fresh" class="nw">{{ row.fresh }} new</span
        ><TextButton class="small" @click="desk.foldThread(row.parentId, false)"> unfold </TextButton>
      </div>
      <div v-else class="writing no-print" :style="{ '--d': Math.min(row.depth, 2) }">
        <WriteBox
          :target="{ activityId: desk.activityId, parentId: row.parentId }"
          :label="`Your reply to ${desk.authorOf(row.parentId) ?? 'it'}`"
          :min-words="desk.minWordsBelow(row.parentId)"
          :stored="desk.draftAt(row.parentId)"
          :takes-up="desk.takesUp.value"
          :autofocus="desk.caretIn.value"
          :attach="desk.attach"
          closable
          @posted="desk.posted"
          @away="desk.closeWriting"
          @drop-passage="desk.dropPassage"
          >To {{ desk.authorOf(row.parentId) ?? 'it' }}</WriteBox
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.rows {
  overflow-anchor: auto;
}
.row {
  display: flow-root;
}
.row:first-child :deep(.root) {
  padding-top: 0;
}
.folded {
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 0.8125rem;
  height: 44px;
  padding: 14px 0 0 calc(var(--d) * 42px);
}
.nw {
  color: var(--ember);
  font-weight: 650;
}
.writing {
  padding: 14px 0 0 calc(var(--d) * 42px);
  margin-right: -116px;
}
@media (max-width: 760px) {
  .writing,
  .folded {
    padding-left: calc(var(--d) * 18px);
    margin-right: 0;
  }
}
</style>
