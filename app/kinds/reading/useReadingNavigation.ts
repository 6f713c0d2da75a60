import { isSet } from '#core/kinds/reading/reading'
import type TextRow from '~/kinds/reading/TextRow.vue'
import { useNotices } from '~/stores/notices'
import { useReadingStore } from '~/stores/reading'
import { useThreadStore } from '~/stores/thread'
import type { useChoice } from './useChoice'
import { useReadingScroll } from './useReadingScroll'
import type { MarginNote, useMargin } from './useMargin'

type Row = InstanceType<typeof TextRow>
const isWriting = () => document.activeElement?.closest('[contenteditable="true"], input, textarea') != null
const MOST_FRAMES = 240 // that a page is waited for

/**
 * Going about in a text: from page to page, note to note, and along links. `below` shows notes where there is no margin
 * to show them in.
 */
export function useReadingNavigation(
  margin: ReturnType<typeof useMargin>,
  choice: ReturnType<typeof useChoice>,
  below: (ids: readonly string[]) => Promise<void>,
) {
  const store = useReadingStore()
  const thread = useThreadStore()
  const notices = useNotices()
  const parts = computed(() => store.view?.text?.parts ?? [])
  const scroll = useReadingScroll(choice.drawn)
  const { scroller, narrow, here, edges } = scroll
  const rows = new Map<number, Row>() // of those that are drawn
  const keepRow = (n: number, row: unknown) => {
    if (row) rows.set(n, row as Row)
    else rows.delete(n)
  }
  const lit = ref<string | null>(null) // the note one is at
  const openNotes = reactive(new Set<string>())
  const found = shallowRef<ReadonlyArray<{ readonly start: number; readonly end: number }>>([]) // lit up in the text
  const partAt = (offset: number) => parts.value.findLast(p => p.start <= offset)?.number ?? 1
  const endPartOf = (end: number, part: number) => parts.value.findLast(p => p.start < end)?.number ?? part

  const frame = () => new Promise(requestAnimationFrame)
  /** Waits until the words of a page that is in sight are there. */
  async function drawn(part: number) {
    for (let i = 0; i < MOST_FRAMES && !choice.drawn.has(part) && !parts.value[part - 1]?.drawnOnly; i++)
      await frame()
  }
  /** Brings a page into view and waits until its words are there. */
  async function show(part: number) {
    scroll.places.get(part)?.row?.scrollIntoView({ block: 'start' })
    here.value = part
    await drawn(part)
  }
  /** Brings words into view, so far below the upper edge. */
  function bring(
    part: number,
    { start, end }: { readonly start: number; readonly end: number },
    below_: number,
    behavior: ScrollBehavior = 'auto',
  ) {
    const box = choice.drawn.get(part)?.lines(start, end)[0]
    if (box) scroll.scrollBy(box.top - edges().top - below_, behavior)
  }
  /** Lights words up and brings them into view. */
  async function lightUp(span: { readonly start: number; readonly end: number }) {
    const part = partAt(span.start)
    await show(part)
    await nextTick()
    bring(part, span, 160)
  }

  const rootOf = (id: string) => margin.all.value.find(m => m.c.id === id || m.replies.some(r => r.id === id))
  async function focusNote(id: string) {
    let root = rootOf(id)
    if (!root && thread.thread?.more) {
      await thread.refresh()
      root = rootOf(id)
    }
    if (!root) return
    if (!margin.shown.value.includes(root)) {
      margin.filter.value = 'everyone'
      margin.tag.value = null
      await nextTick()
    }
    if (root.replies.length > 2 && root.c.id !== id) openNotes.add(root.c.id)
    const { at, part } = root.c.note
    if (!choice.drawn.has(part)) await show(part)
    lit.value = root.c.id
    await nextTick()
    if (narrow.value) {
      await below([root.c.id])
      return
    }
    const box = at ? choice.drawn.get(part)?.lines(at.start, at.end)[0] : undefined
    if (at && box && scroller.value && (box.top < edges().top + 60 || box.bottom > edges().bottom - 120))
      bring(part, at, 180)
    if (isWriting()) return // whoever has begun to write meanwhile keeps the caret
    const el = document.getElementById(`c-${id}`) ?? document.getElementById(`c-${root.c.id}`)
    el?.focus({ preventScroll: true })
    await frame()
    if (
      el &&
      scroller.value &&
      (el.getBoundingClientRect().bottom > edges().bottom || el.getBoundingClientRect().top < edges().top)
    )
      el.scrollIntoView({ block: 'nearest' })
  }
  function step(by: number, list: readonly MarginNote[] = margin.inOrder.value) {
    if (list.length === 0) return
    const now = list.findIndex(m => m.c.id === lit.value)
    const findBefore = () => {
      if (now >= 0) return now
      if (by > 0) return list.findIndex(m => m.c.note.part >= here.value) - 1
      return list.findLastIndex(m => m.c.note.part <= here.value) + 1
    }
    const before = findBefore()
    void focusNote(list[(before + by + list.length) % list.length]!.c.id)
  }
  const hasOwn = (part: number) => margin.all.value.some(m => m.c.author.isMe && m.c.note.part === part)
  /** The next page that is set, first those without a note of one's own. */
  function nextOwn() {
    const mine = parts.value.filter(p => isSet(store.view!, p.number))
    const bare = mine.filter(p => !hasOwn(p.number))
    const next =
      bare.find(p => p.number > here.value) ?? bare[0] ?? mine.find(p => p.number > here.value) ?? mine[0]
    if (next) void show(next.number)
  }
  async function follow(id: string) {
    const to = margin.all.value.find(m => m.c.id === id)?.c.note
    if (!to?.to || !to.toAt) {
      notices.say('The words it leads to are not in this version of the text.')
      return
    }
    found.value = [to.toAt]
    await lightUp(to.toAt)
  }

  return {
    scroller,
    scrolled: scroll.scrolled,
    restore: scroll.restore,
    edges,
    keepPlace: scroll.keepPlace,
    rows,
    keepRow,
    here,
    lit,
    openNotes,
    narrow,
    found,
    partAt,
    endPartOf,
    drawn,
    show,
    bring,
    lightUp,
    focusNote,
    step,
    nextOwn,
    hasOwn,
    follow,
  }
}
