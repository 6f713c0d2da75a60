import type { NoteDetail } from '#shared/kinds/reading/reading'
import type { DraftView } from '#shared/contributing/thread'
import { useNotices } from '~/stores/notices'
import { useThreadStore } from '~/stores/thread'
import type { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import type { Choice, useChoice } from './useChoice'
import type { useMargin } from './useMargin'
import type { useReadingNavigation } from './useReadingNavigation'

type Kind = NoteDetail['kind']
/** What stands in the place where the text has parted: the question what is to be written, the writing, or notes to be read. */
export interface ComposedNote extends Choice {
  readonly kind: Kind | null
  readonly to: NoteDetail['to']
  readonly read: readonly string[]
}
const fresh = { kind: null, to: null, read: [] } as const

/** Where a note's draft is kept: at the words, or the area, it is about. */
export const draftKeyOf = (c: Choice): string =>
  c.passage
    ? `words ${c.passage.start}-${c.passage.end}`
    : `area ${c.part} ${c.area ? [c.area.x, c.area.y, c.area.width, c.area.height].map(n => n.toFixed(3)).join(' ') : ''}`

/** Choosing words and writing beside them, between the lines of the text. */
export function useNoteComposer(
  margin: ReturnType<typeof useMargin>,
  choice: ReturnType<typeof useChoice>,
  navigation: () => ReturnType<typeof useReadingNavigation>,
  desk: () => ReturnType<typeof useTalkDesk>['desk'],
) {
  const thread = useThreadStore()
  const notices = useNotices()
  const composedNote = shallowRef<ComposedNote | null>(null)
  const element = shallowRef<HTMLElement | null>(null) // where the text has parted
  const wantsTarget = computed(() => composedNote.value?.kind === 'link' && composedNote.value.to === null)
  const chosen = computed(() =>
    composedNote.value?.passage
      ? [{ start: composedNote.value.passage.start, end: composedNote.value.passage.end }]
      : [],
  )
  const note = computed<NoteDetail>(() => ({
    kind: composedNote.value?.kind ?? 'note',
    part: composedNote.value?.part ?? 1,
    passage: composedNote.value?.passage ?? null,
    area: composedNote.value?.area ?? null,
    time: null,
    tags: [],
    to: composedNote.value?.to ?? null,
  }))
  const already = computed(() =>
    composedNote.value?.passage
      ? margin.all.value.filter(
          m =>
            m.c.note.at &&
            m.c.note.at.start < composedNote.value!.passage!.end &&
            m.c.note.at.end > composedNote.value!.passage!.start,
        ).length
      : 0,
  )
  /** Notes that were begun elsewhere. */
  const drafts = computed(() =>
    (thread.thread?.drafts ?? []).filter(
      d =>
        d.parentId === null &&
        d.note &&
        d.slot !== (composedNote.value?.kind ? draftKeyOf(composedNote.value) : null),
    ),
  )
  const read = computed(() =>
    (composedNote.value?.read ?? []).flatMap(id => margin.shown.value.filter(m => m.c.id === id)),
  )
  const minWords = (kind: Kind): number => {
    const rules = thread.activity!.expectations.map(e => e.rule)
    const rule =
      rules.find(r => r.kind === (kind === 'question' ? 'questions' : 'entries')) ??
      rules.find(r => r.kind === 'entries')
    return rule && 'minWords' in rule ? rule.minWords : 1
  }

  let openings = 0
  async function open(next: ComposedNote) {
    if (composedNote.value) close()
    composedNote.value = next
    const mine = ++openings
    const opened = (await navigation().rows.get(next.endPart)?.openAt(next.passage, next.area)) ?? null
    if (mine !== openings) return // other words were chosen meanwhile
    element.value = opened
    getSelection()?.removeAllRanges()
    if (!opened) {
      composedNote.value = null
      return
    }
    intoView()
  }
  const intoView = () => void nextTick(() => element.value?.scrollIntoView({ block: 'nearest' }))
  function close() {
    openings++
    const at = composedNote.value?.endPart
    element.value = null
    composedNote.value = null
    // what stood in the gap leaves before the gap closes
    void nextTick(() => {
      if (at !== undefined && composedNote.value?.endPart !== at) navigation().rows.get(at)?.close()
    })
  }
  async function chose(next: Choice | null) {
    if (!next) return
    if (wantsTarget.value && composedNote.value && next.passage) {
      composedNote.value = { ...composedNote.value, to: { part: next.part, passage: next.passage } }
      getSelection()?.removeAllRanges()
      notices.say('Linked. Say why it leads there.')
      return
    }
    if (composedNote.value?.kind) return // one is being written: choosing words elsewhere does not take it away
    await open({ ...next, ...fresh })
  }
  /** The pointer was let go: what is chosen then is what is meant. */
  function released() {
    setTimeout(() => {
      const now = choice.chosenNow()
      if (now) {
        void chose(choice.toChoice(now.start, now.end))
        return
      }
      if (composedNote.value && !composedNote.value.kind && composedNote.value.read.length === 0) close()
    })
  }
  let touch: ReturnType<typeof setTimeout> | undefined
  function selectionMoved() {
    if (!matchMedia('(pointer: coarse)').matches) return
    clearTimeout(touch)
    touch = setTimeout(() => {
      const now = choice.chosenNow()
      if (now) void chose(choice.toChoice(now.start, now.end))
    }, 500)
  }
  onMounted(() => document.addEventListener('selectionchange', selectionMoved))
  onBeforeUnmount(() => {
    document.removeEventListener('selectionchange', selectionMoved)
    clearTimeout(touch)
  })

  /** The next sentence, or the one before, from what is chosen or from the page one is at; a page that is not drawn yet is waited for. */
  async function sentence(by: 1 | -1) {
    const { here, drawn } = navigation()
    if (!composedNote.value) await drawn(here.value)
    const findFrom = () => {
      if (composedNote.value?.passage)
        return by > 0 ? composedNote.value.passage.end : composedNote.value.passage.start
      return choice.drawn.get(here.value)?.[by > 0 ? 'start' : 'end'] ?? 0
    }
    const from = findFrom()
    await chose(choice.sentence(from, by))
  }
  function stretch(by: 1 | -1) {
    if (composedNote.value && !composedNote.value.kind) void chose(choice.stretched(composedNote.value, by))
  }
  function setKind(kind: Kind) {
    if (!composedNote.value) return
    composedNote.value = { ...composedNote.value, kind }
    setTimeout(intoView, 60) // the editor comes in a moment later
  }
  /** Writes beside what is chosen, also when it was chosen only this moment. */
  async function take(kind: Kind) {
    const now = composedNote.value ? null : choice.chosenNow()
    if (now) await chose(choice.toChoice(now.start, now.end))
    if (!composedNote.value)
      notices.say('Choose words first: with the pointer, or sentence by sentence with the keys . and ,')
    else if (!composedNote.value.kind && composedNote.value.read.length === 0 && desk().mayWrite)
      setKind(kind)
  }
  async function posted(id: string, state: string) {
    close()
    await thread.refresh()
    notices.say(
      state === 'awaitingApproval' ? 'Handed in. The others see it once it is approved.' : 'In the margin.',
      thread.activity!.talk.withdrawMinutes > 0
        ? { label: 'Withdraw it', run: () => desk().withdraw(id) }
        : undefined,
    )
    if (!composedNote.value) await navigation().focusNote(id) // unless the next words are chosen already
  }
  async function goOn({ note: begun }: DraftView) {
    const n = begun!
    await navigation().show(n.part)
    await open({
      passage: n.passage,
      area: n.area,
      part: n.part,
      endPart: n.passage ? navigation().endPartOf(n.passage.end, n.part) : n.part,
      kind: n.kind,
      to: n.to,
      read: [],
    })
  }
  async function away() {
    close()
    await thread.refresh().catch(() => {})
  }
  function noteArea(part: number, area: NonNullable<NoteDetail['area']>) {
    void open({ ...fresh, passage: null, area, part, endPart: part, kind: 'note' })
  }
  const noteCue = async (start: number, end: number) => {
    await navigation().show(navigation().partAt(start))
    await chose(choice.toChoice(start, end))
  }
  /** Opens the text below the line of a note, and shows it and what else stands on these words there. */
  async function readBelow(ids: readonly string[]) {
    const first = margin.all.value.find(m => m.c.id === ids[0])
    if (!first) return
    const { note: n } = first.c
    await open({
      ...fresh,
      passage: n.at && n.passage ? { ...n.passage, ...n.at } : null,
      area: n.area,
      part: n.part,
      endPart: n.at ? navigation().endPartOf(n.at.end, n.part) : n.part,
      read: ids,
    })
  }
  /** A passage is picked in the text: its notes beside it, or, where there is no margin, below its line. */
  async function pick(ids: readonly string[]) {
    if (!ids[0] || composedNote.value?.kind) return
    if (!navigation().narrow.value) {
      await navigation().focusNote(ids[0])
      return
    }
    navigation().lit.value = ids[0]
    await readBelow(ids)
  }
  const target = () => {
    if (composedNote.value) composedNote.value = { ...composedNote.value, to: null }
  }
  return {
    composedNote,
    element,
    chosen,
    note,
    already,
    drafts,
    read,
    minWords,
    close,
    released,
    sentence,
    stretch,
    take,
    setKind,
    posted,
    goOn,
    away,
    noteArea,
    noteCue,
    readBelow,
    pick,
    target,
  }
}
