<script setup lang="ts">
import { isSet } from '#core/contributing/reading/reading'
import type { NoteDetail } from '#shared/contributing/reading'
import { capital, inWords, plural } from '../../../composables/planning/expectationWords'
import { useLiveTalk } from '../../../composables/contributing/useLiveTalk'
import { useTalkDesk } from '../../../composables/contributing/useTalkDesk'
import { useChoice, type Choice } from '../../../composables/contributing/reading/useChoice'
import { useMargin, type Filter } from '../../../composables/contributing/reading/useMargin'
import { usePlayer } from '../../../composables/contributing/reading/usePlayer'
import { openPaper, type OpenPaper } from '../../../composables/contributing/reading/usePaper'
import { useKeys, type Key } from '../../../composables/shell/useKeys'
import { useTimes } from '../../../composables/planning/useTimes'
import { useNotices } from '../../../stores/notices'
import { useReadingStore } from '../../../stores/reading'
import { useSeminarStore } from '../../../stores/seminar'
import { useThreadStore } from '../../../stores/thread'
import ActivityPage from '../ActivityPage.vue'
import ArrivedBar from '../ArrivedBar.vue'
import AskedLine from './AskedLine.vue'
import NoteSlip from './NoteSlip.vue'
import NotesInOut from './NotesInOut.vue'
import PageStrip from './PageStrip.vue'
import PlayerBar from './PlayerBar.vue'
import SideNote from './SideNote.vue'
import TextRow from './TextRow.vue'

/** A text that is read together: its pages, the talk in its margin, and where on it the talk is. */
const thread = useThreadStore()
const store = useReadingStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const activity = computed(() => thread.activity!)
const { error, refresh: again } = await useAsyncData(`reading-${activity.value.id}`, async () => { await store.load(activity.value.id); return true })
const view = computed(() => store.view)
const text = computed(() => view.value?.text ?? null)
const parts = computed(() => text.value?.parts ?? [])
const margin = useMargin()
const choice = useChoice()
const player = usePlayer(() => text.value?.cues ?? [])
const { desk } = useTalkDesk(id => focusNote(id))
const live = useLiveTalk(() => {}, () => void store.load(activity.value.id).catch(() => {}))
const word = computed(() => text.value?.form === 'paper' ? 'Page' : text.value?.form === 'recording' ? 'From' : 'Section')
const labelOf = (n: number) => `${word.value.toLowerCase()} ${parts.value[n - 1]?.label ?? n}`
const scroller = ref<HTMLElement | null>(null)
const rows = new Map<number, InstanceType<typeof TextRow>>()
const here = ref(1)
const lit = ref<string | null>(null)
const openNotes = reactive(new Set<string>())
const narrow = ref(false)
const zoom = ref(1)
const column = ref(690)
const width = computed(() => Math.round(Math.min(Math.max(280, column.value), 640) * zoom.value))
const closedPages = computed(() => view.value?.writeFirst === 'page' && seminar.isStudent ? new Set(parts.value.map(p => p.number).filter(n => !margin.all.value.some(m => m.c.author.isMe && m.c.note.part === n))) : new Set<number>())

// -- the paper itself
const paper = shallowRef<OpenPaper | null>(null)
const paperProblem = ref(false)
async function open() {
  const file = text.value?.form === 'paper' ? text.value.file : null
  if (!file) return
  const before = paper.value
  paperProblem.value = false
  try { paper.value = await openPaper(file.url) }
  catch { paperProblem.value = true }
  await before?.close()
}
watch(() => text.value?.file?.url, (now, before) => { if (now !== before && import.meta.client) void open() })

// -- choosing words and writing beside them
interface Slip extends Choice { readonly kind: NoteDetail['kind'] | null, readonly to: NoteDetail['to'], readonly read: readonly string[] }
const slip = shallowRef<Slip | null>(null)
const slipEl = shallowRef<HTMLElement | null>(null)
const wantsTarget = computed(() => slip.value?.kind === 'link' && slip.value.to === null)
const chosen = computed(() => slip.value?.passage ? [{ start: slip.value.passage.start, end: slip.value.passage.end }] : [])
const note = computed<NoteDetail>(() => ({ kind: slip.value?.kind ?? 'note', part: slip.value?.part ?? 1, passage: slip.value?.passage ?? null, area: slip.value?.area ?? null, time: null, tags: [], to: slip.value?.to ?? null }))
const slotOf = (c: Choice) => c.passage ? `words ${c.passage.start}-${c.passage.end}` : `area ${c.part} ${c.area ? [c.area.x, c.area.y, c.area.width, c.area.height].map(n => n.toFixed(3)).join(' ') : ''}`
const already = computed(() => slip.value?.passage ? margin.all.value.filter(m => m.c.note.at && m.c.note.at.start < slip.value!.passage!.end && m.c.note.at.end > slip.value!.passage!.start).length : 0)
const drafts = computed(() => (thread.thread?.drafts ?? []).filter(d => d.parentId === null && d.note && d.slot !== (slip.value?.kind ? slotOf(slip.value) : null)))
const minWords = (kind: NoteDetail['kind']) => { const rule = activity.value.expectations.map(e => e.rule).find(r => r.kind === (kind === 'question' ? 'questions' : 'entries')) ?? activity.value.expectations.map(e => e.rule).find(r => r.kind === 'entries'); return rule && 'minWords' in rule ? rule.minWords : 1 }
let openings = 0
async function openSlip(next: Slip) {
  if (slip.value) closeSlip()
  slip.value = next
  const mine = ++openings
  const place = await rows.get(next.endPart)?.openAt(next.passage, next.area) ?? null
  if (mine !== openings) return // other words were chosen meanwhile
  slipEl.value = place
  getSelection()?.removeAllRanges()
  if (!slipEl.value) { slip.value = null; return }
  intoView()
}
const intoView = () => void nextTick(() => slipEl.value?.scrollIntoView({ block: 'nearest' }))
function closeSlip() {
  openings++
  const at = slip.value?.endPart
  slipEl.value = null
  slip.value = null
  // what stood in the gap leaves before the gap closes
  void nextTick(() => { if (at !== undefined && slip.value?.endPart !== at) rows.get(at)?.close() })
}
async function chose(next: Choice | null) {
  if (!next) return
  if (wantsTarget.value && slip.value && next.passage) { slip.value = { ...slip.value, to: { part: next.part, passage: next.passage } }; getSelection()?.removeAllRanges(); notices.say('Linked. Say why it leads there.'); return }
  if (slip.value?.kind) return // one is being written: choosing words elsewhere does not take it away
  await openSlip({ ...next, kind: null, to: null, read: [] })
}
function released() {
  setTimeout(() => {
    const now = choice.chosenNow()
    if (now) { void chose(choice.toChoice(now.start, now.end)); return }
    if (slip.value && !slip.value.kind && slip.value.read.length === 0) closeSlip()
  })
}
let touch: ReturnType<typeof setTimeout> | undefined
function selectionMoved() {
  if (!matchMedia('(pointer: coarse)').matches) return
  clearTimeout(touch)
  touch = setTimeout(() => { const now = choice.chosenNow(); if (now) void chose(choice.toChoice(now.start, now.end)) }, 500)
}
function kindOf(kind: NoteDetail['kind']) {
  if (!slip.value) return
  slip.value = { ...slip.value, kind }
  setTimeout(intoView, 60) // the editor comes in a moment later
}
async function posted(id: string, state: string) {
  closeSlip()
  await thread.refresh()
  notices.say(state === 'awaitingApproval' ? 'Handed in. The others see it once it is approved.' : 'In the margin.', activity.value.talk.withdrawMinutes > 0 ? { label: 'Withdraw it', run: () => desk.withdraw(id) } : undefined)
  await focusNote(id)
}
async function goOn(d: (typeof drafts.value)[number]) {
  const n = d.note!
  await show(n.part)
  const c: Choice = { passage: n.passage, area: n.area, part: n.part, endPart: n.passage ? parts.value.findLast(p => p.start < n.passage!.end)?.number ?? n.part : n.part }
  await openSlip({ ...c, kind: n.kind, to: n.to, read: [] })
}
async function away() {
  closeSlip()
  await thread.refresh().catch(() => {})
}
function area(part: number, a: NonNullable<NoteDetail['area']>) { void openSlip({ passage: null, area: a, part, endPart: part, kind: 'note', to: null, read: [] }) }

// -- going about in it
const frame = () => new Promise(requestAnimationFrame)
/** Brings a page into view and waits until its words are there. */
async function show(part: number) {
  const el = rows.get(part)?.row
  el?.scrollIntoView({ block: 'start' })
  here.value = part
  for (let i = 0; i < 240 && !choice.drawn.has(part) && !parts.value[part - 1]?.drawnOnly; i++) await frame()
}
async function focusNote(id: string) {
  const root = margin.all.value.find(m => m.c.id === id || m.replies.some(r => r.id === id))
  if (!root) return
  if (!margin.shown.value.includes(root)) { margin.filter.value = 'everyone'; margin.tag.value = null; await nextTick() }
  if (root.replies.length > 2 && root.c.id !== id) openNotes.add(root.c.id)
  if (!choice.drawn.has(root.c.note.part)) await show(root.c.note.part)
  lit.value = root.c.id
  await nextTick()
  if (narrow.value) { await pick([root.c.id]); return }
  const at = root.c.note.at
  const box = at ? choice.drawn.get(root.c.note.part)?.lines(at.start, at.end)[0] : undefined
  if (box && scroller.value && (box.top < scroller.value.getBoundingClientRect().top + 60 || box.bottom > scroller.value.getBoundingClientRect().bottom - 120)) scroller.value.scrollBy({ top: box.top - scroller.value.getBoundingClientRect().top - 180 })
  const el = document.getElementById(`c-${id}`) ?? document.getElementById(`c-${root.c.id}`)
  el?.focus({ preventScroll: true })
  await frame()
  if (el && scroller.value && (el.getBoundingClientRect().bottom > scroller.value.getBoundingClientRect().bottom || el.getBoundingClientRect().top < scroller.value.getBoundingClientRect().top)) el.scrollIntoView({ block: 'nearest' })
}
/** A passage is picked in the text: its notes beside it, or, where there is no margin, below its line. */
async function pick(ids: readonly string[]) {
  const first = margin.all.value.find(m => m.c.id === ids[0])
  if (!first || slip.value?.kind) return
  if (!narrow.value) { await focusNote(first.c.id); return }
  const { note: n } = first.c
  lit.value = first.c.id
  await openSlip({ passage: n.at && n.passage ? { ...n.passage, ...n.at } : null, area: n.area, part: n.part, endPart: n.at ? parts.value.findLast(p => p.start < n.at!.end)?.number ?? n.part : n.part, kind: null, to: null, read: ids })
}
const read = computed(() => (slip.value?.read ?? []).flatMap(id => margin.shown.value.filter(m => m.c.id === id)))
function step(by: number, list = margin.inOrder.value) {
  if (list.length === 0) return
  const now = list.findIndex(m => m.c.id === lit.value)
  const before = now >= 0 ? now : by > 0 ? list.findIndex(m => m.c.note.part >= here.value) - 1 : list.findLastIndex(m => m.c.note.part <= here.value) + 1
  void focusNote(list[(before + by + list.length) % list.length]!.c.id)
}
function nextOwn() {
  const mine = parts.value.filter(p => isSet(view.value!, p.number))
  const next = mine.find(p => p.number > here.value && !margin.all.value.some(m => m.c.author.isMe && m.c.note.part === p.number)) ?? mine.find(p => !margin.all.value.some(m => m.c.author.isMe && m.c.note.part === p.number)) ?? mine.find(p => p.number > here.value) ?? mine[0]
  if (next) void show(next.number)
}
async function follow(id: string) {
  const to = margin.all.value.find(m => m.c.id === id)?.c.note
  const stands = to?.toAt
  if (!to?.to || !stands) { notices.say('The words it leads to are not in this version of the text.'); return }
  const part = parts.value.findLast(p => p.start <= stands.start)?.number ?? to.to.part
  await show(part)
  found.value = [stands]
  await nextTick()
  const box = choice.drawn.get(part)?.lines(stands.start, stands.end)[0]
  if (box && scroller.value) scroller.value.scrollBy({ top: box.top - scroller.value.getBoundingClientRect().top - 160 })
}
const settle = (id: string, settled: boolean) => attempt(async () => {
  await store.settle(id, settled)
  await thread.refresh()
  notices.say(settled ? 'It has its answer.' : 'Open again.', { label: 'Undo', run: () => void settle(id, !settled) })
})
async function attempt(act: () => Promise<void>) {
  try { await act() }
  catch (problem) { notices.warn(problem) }
}

// -- finding words in the text
const words = ref('')
const found = shallowRef<ReadonlyArray<{ start: number, end: number }>>([])
const foundAt = ref(-1)
const findField = ref<HTMLInputElement | null>(null)
let looked = ''
async function find(by: 1 | -1 = 1) {
  const q = words.value.trim()
  if (q.length < 2) { found.value = []; foundAt.value = -1; looked = ''; return }
  await attempt(async () => {
    if (q !== looked) {
      found.value = (await store.find(q)).places
      looked = q
      foundAt.value = found.value.findIndex(p => p.start >= (parts.value[here.value - 1]?.start ?? 0)) - 1
    }
    if (found.value.length === 0) return
    foundAt.value = (foundAt.value + by + found.value.length) % found.value.length
    const place = found.value[foundAt.value]!
    const part = parts.value.findLast(p => p.start <= place.start)!.number
    await show(part)
    await nextTick()
    const box = choice.drawn.get(part)?.lines(place.start, place.end)[0]
    if (box && scroller.value) scroller.value.scrollBy({ top: box.top - scroller.value.getBoundingClientRect().top - 160 })
  })
}
const endFind = () => { words.value = ''; found.value = []; looked = ''; foundAt.value = -1 }

// -- keys
function sentence(by: 1 | -1) {
  const from = slip.value?.passage ? by > 0 ? slip.value.passage.end : slip.value.passage.start : choice.drawn.get(here.value)?.[by > 0 ? 'start' : 'end'] ?? 0
  const next = choice.sentence(from, by)
  if (next) void chose(next)
}
function stretch(by: 1 | -1) {
  const next = slip.value && !slip.value.kind ? choice.stretched(slip.value, by) : null
  if (next) void chose(next)
}
const take = (kind: NoteDetail['kind']) => { if (slip.value && !slip.value.kind && slip.value.read.length === 0) { if (desk.mayWrite) kindOf(kind) } else if (!slip.value) notices.say('Choose words first: with the pointer, or sentence by sentence with the keys . and ,') }
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next note', run: () => step(1) },
  { keys: 'k', does: 'the note before', run: () => step(-1) },
  { keys: 'u', does: 'the next question without an answer', run: () => step(1, margin.openQuestions.value) },
  { keys: ']', does: 'the next page of yours, first those without a note of your own', run: nextOwn },
  { keys: '[', does: 'the page before', run: () => void show(Math.max(1, here.value - 1)) },
  { keys: '.', does: 'choose the next sentence', run: () => sentence(1) },
  { keys: ',', does: 'choose the sentence before', run: () => sentence(-1) },
  { keys: '>', does: 'one word more', run: () => stretch(1) },
  { keys: '<', does: 'one word less', run: () => stretch(-1) },
  { keys: 'n', does: 'a note on the chosen words', run: () => take('note') },
  { keys: 'q', does: 'a question about them', run: () => take('question') },
  { keys: 'l', does: 'a link from them to another passage', run: () => take('link') },
  { keys: 'r', does: 'answer the note you are at', run: () => { if (lit.value && desk.mayWrite) desk.reply(lit.value) } },
  { keys: '/', does: 'find words in the text', run: () => findField.value?.focus() },
  ...text.value?.form === 'recording' ? [{ keys: 'p', does: 'play or pause', run: player.toggle }, { keys: 't', does: 'choose what is being said', run: () => { const c = player.cue.value; if (c) { player.pause(); void show(parts.value.findLast(p => p.start <= c.start)!.number).then(() => chose(choice.toChoice(c.start, c.end))) } } }] : [],
  ...text.value?.form === 'paper' ? [{ keys: '+', does: 'larger', run: () => { zoom.value = Math.min(3, zoom.value * 1.2) } }, { keys: '-', does: 'smaller', run: () => { zoom.value = Math.max(0.6, zoom.value / 1.2) } }] : [],
  { keys: 'Escape', does: 'let the chosen words go', run: () => { if (slip.value && !slip.value.kind) closeSlip() } },
])
const { listOpen } = useKeys(() => keys.value)

// -- following
const follows = ref(true)
watch(player.saying, (start) => {
  if (start === null || !follows.value || !player.playing.value || slip.value) return
  const part = parts.value.findLast(p => p.start <= start)!.number
  if (!choice.drawn.has(part)) { void show(part); return }
  const cue = text.value!.cues.find(c => c.start === start)!
  const box = choice.drawn.get(part)!.lines(cue.start, cue.end)[0]
  const view_ = scroller.value?.getBoundingClientRect()
  if (box && view_ && (box.bottom > view_.bottom - 80 || box.top < view_.top)) scroller.value!.scrollBy({ top: box.top - view_.top - 120, behavior: matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth' })
})
let scrolling = 0
function scrolled() {
  cancelAnimationFrame(scrolling)
  scrolling = requestAnimationFrame(() => {
    const top = (scroller.value?.getBoundingClientRect().top ?? 0) + 90
    let at_ = here.value
    for (const [n, row] of rows) { const box = row.row?.getBoundingClientRect(); if (box && box.top <= top && box.bottom > top) at_ = n }
    here.value = at_
  })
}
let sized: ResizeObserver | undefined
onMounted(async () => {
  sized = new ResizeObserver(() => {
    narrow.value = window.innerWidth <= 1000
    const el = scroller.value?.querySelector<HTMLElement>('.text')
    if (el) column.value = el.clientWidth - 2 * Number.parseFloat(getComputedStyle(el).paddingLeft || '0')
  })
  if (scroller.value) sized.observe(scroller.value)
  document.addEventListener('selectionchange', selectionMoved)
  void open()
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  if (target) await focusNote(target)
  else if ((view.value?.from ?? 1) > 1) await show(view.value!.from)
  void Promise.resolve(thread.recordVisit()).catch(() => {})
})
onBeforeUnmount(() => { sized?.disconnect(); document.removeEventListener('selectionchange', selectionMoved); cancelAnimationFrame(scrolling); clearTimeout(touch); void paper.value?.close() })
// pages on which nothing changes get the very same, so that they are not drawn anew
const NONE: never[] = []
const within = (list: ReadonlyArray<{ start: number, end: number }>, p: { start: number, end: number }) => list.length === 0 || !list.some(s => s.start < p.end && s.end > p.start) ? NONE : list.filter(s => s.start < p.end && s.end > p.start)
const keepRow = (n: number, row: unknown) => { if (row) rows.set(n, row as InstanceType<typeof TextRow>); else rows.delete(n) }
function nearBy(n: number) {
  void store.needParts([n, n + 1].filter(x => x <= parts.value.length)).catch(() => {})
  const missing = (margin.byPart.value.get(n) ?? []).flatMap(m => [m.c, ...m.replies]).filter(c => c.html === null).map(c => c.id)
  if (missing.length > 0) void thread.needTexts(missing)
}
const FILTERS = computed<ReadonlyArray<readonly [Filter, string]>>(() => [['everyone', 'everyone'], ...margin.hasGroup.value ? [['group', 'my group'] as const] : [], ['mine', 'mine'], ['open', `questions without an answer (${margin.openQuestions.value.length})`]])
const setWords = computed(() => {
  const v = view.value
  if (!v?.text || (v.from === 1 && (v.to === null || v.to >= parts.value.length))) return null
  const [a, b] = [parts.value[v.from - 1]?.label, parts.value[(v.to ?? parts.value.length) - 1]?.label]
  return `${a === b ? `${word.value} ${a} is` : `${word.value}s ${a}–${b} are`} ${seminar.isStaff ? 'set' : 'yours'}; the rest is context.`
})
const minutes = computed(() => text.value?.form === 'recording' ? null : Math.max(1, Math.round(parts.value.filter(p => isSet(view.value!, p.number)).reduce((s, p) => s + p.words, 0) / 220)))
const arrivedWords = computed(() => { const n = live.arrived.value.length; const last = live.arrived.value.at(-1); return n === 0 || !last ? '' : n > 1 ? `${capital(inWords(n))} new notes and answers have come.` : last.parentId ? `${last.author.givenName} answered a note just now.` : `${last.author.givenName} wrote in the margin just now.` })
function goToArrived() { const [first] = live.arrived.value; live.seen(); if (first) void focusNote(first.id) }
const noteTimes = computed(() => margin.all.value.flatMap(m => m.c.note.time ? [[m.c.note.time[0], m.c.note.time[1]] as const] : []))
const heatTo = computed(() => `/seminars/${activity.value.seminarId}/activities/${activity.value.id}/heat`)
</script>

<template>
  <ActivityPage v-model:list-open="listOpen" :activity="activity" :keys="keys">
    <div v-if="error || !view" class="alone"><p class="empty">{{ error?.message ?? 'The text could not be fetched.' }}</p><p><v-btn @click="again()">Try again</v-btn></p></div>
    <div v-else-if="!text" class="alone"><p class="empty">{{ seminar.isStaff ? 'No text has been chosen yet. Add one to the library, then choose it, and the pages that are to be read, in the plan of this reading.' : 'The text to be read is not here yet.' }}</p><p v-if="seminar.shell?.role === 'instructor'"><NuxtLink :to="`/seminars/${activity.seminarId}/library`">To the library</NuxtLink></p></div>
    <div v-else class="desk">
      <div class="top">
        <AskedLine :activity="activity" :checks="thread.thread?.checks ?? []">
          <NuxtLink v-if="seminar.isStaff" :to="heatTo">Where the talk is, to show in class</NuxtLink>
          <span v-if="drafts.length > 0" class="drafts">begun: <button v-for="d in drafts" :key="d.id" class="link" type="button" @click="goOn(d)">“{{ (d.note!.passage?.exact ?? labelOf(d.note!.part)).slice(0, 34) }}{{ (d.note!.passage?.exact.length ?? 0) > 34 ? ' …' : '' }}”</button></span>
        </AskedLine>
        <div class="filter" role="group" aria-label="Whose notes">
          <button v-for="[value, label] in FILTERS" :key="value" type="button" :class="{ on: margin.filter.value === value }" :aria-pressed="margin.filter.value === value" @click="margin.filter.value = value">{{ label }}</button>
          <button v-if="margin.tag.value" class="link" type="button" @click="margin.tag.value = null">only “{{ margin.tag.value }}” ×</button>
        </div>
      </div>
      <div class="body">
        <PageStrip :parts="parts" :notes="margin.byPart.value" :from="view.from" :to="view.to" :here="here" :word="word" :closed-pages="closedPages" @go="show">
          <div class="aside">
            <p v-if="setWords" class="say">{{ setWords }}</p>
            <p v-if="thread.thread?.waiting" class="say">{{ activity.hiddenUntil ? `The others’ notes are shown to everyone ${dayTime(activity.hiddenUntil)}.` : 'The others’ notes appear once one of your own is in.' }}</p>
            <form class="find" role="search" @submit.prevent="find(1)"><input ref="findField" v-model="words" class="in" type="search" placeholder="find in the text" aria-label="Find in the text" @keydown.esc="endFind" @input="words.trim() === '' && endFind()"><span v-if="looked" class="hint num" role="status">{{ found.length === 0 ? 'not in it' : `${foundAt + 1} of ${found.length}` }}</span></form>
            <p v-if="margin.tags.value.length > 0" class="tags"><button v-for="t in margin.tags.value" :key="t" type="button" :class="{ on: margin.tag.value === t }" :aria-pressed="margin.tag.value === t" @click="margin.tag.value = margin.tag.value === t ? null : t">{{ t }}</button></p>
            <p class="key" aria-hidden="true"><span><i />one note</span><span><i class="many" />many</span><span><i class="own" />yours</span></p>
          </div>
        </PageStrip>
        <main ref="scroller" tabindex="-1" @scroll.passive="scrolled" @mouseup="released" @keyup.shift="released">
          <p v-if="paperProblem" class="empty broken" role="alert">The paper could not be opened here. Its notes can be read all the same. <button class="link" type="button" @click="open()">Try again</button></p>
          <video v-if="text.form === 'recording' && text.file?.type.startsWith('video/')" :ref="player.media" class="film" :src="text.file.url" preload="metadata" v-on="player.events" />
          <TextRow
            v-for="p in parts" :key="p.number" :ref="row => keepRow(p.number, row)" :part="p" :text="text" :paper="paper" :html="store.html.get(p.number) ?? null" :width="width"
            :notes="margin.byPart.value.get(p.number) ?? NONE" :passages="margin.passages.value.get(p.number) ?? NONE" :chosen="within(chosen, p)" :found="within(found, p)" :lit="lit !== null && margin.partOf.value.get(lit) === p.number ? lit : null" :open-notes="openNotes" :desk="desk"
            :is-set="isSet(view, p.number)" :closed="closedPages.has(p.number)" :saying="player.saying.value !== null && player.saying.value >= p.start && player.saying.value <= p.end ? player.saying.value : null" :page="word" :label-of="labelOf"
            @words="choice.setWords" @near="nearBy" @pick="pick" @area="area(p.number, $event)" @whole="area(p.number, { x: 0, y: 0, width: 1, height: 1 })" @play="player.play" @toggle="openNotes.has($event) ? openNotes.delete($event) : openNotes.add($event)"
            @follow="follow" @light="lit = $event ?? lit" @settle="settle" @tag="margin.tag.value = $event" @jump="focusNote"
          />
          <section v-if="margin.lost.value.length > 0" class="lost" aria-label="Notes whose words are gone">
            <h2>{{ capital(inWords(margin.lost.value.length)) }} {{ plural(margin.lost.value.length, 'note whose words are', 'notes whose words are') }} no longer in this text</h2>
            <div v-for="m in margin.lost.value" :key="m.c.id"><p class="was">“{{ m.c.note.passage?.exact }}”</p><SideNote :note="m" :letter="null" :desk="desk" :open="openNotes.has(m.c.id)" :lit="lit === m.c.id" :target="null" :target-page="null" @toggle="openNotes.has(m.c.id) ? openNotes.delete(m.c.id) : openNotes.add(m.c.id)" @settle="(s) => settle(m.c.id, s)" /></div>
          </section>
          <Teleport v-if="slip && slipEl" :to="slipEl">
            <div v-if="slip.read.length > 0" class="below"><SideNote v-for="m in read" :key="m.c.id" :note="m" :letter="null" :desk="desk" :open="openNotes.has(m.c.id)" :lit="false" :target="m.c.note.to?.passage.exact ?? null" :target-page="m.c.note.to ? labelOf(m.c.note.to.part) : null" @toggle="openNotes.has(m.c.id) ? openNotes.delete(m.c.id) : openNotes.add(m.c.id)" @follow="follow(m.c.id)" @settle="(s) => settle(m.c.id, s)" @tag="margin.tag.value = $event" @play="player.play" /><p><button class="link" type="button" @click="closeSlip()">close</button></p></div>
            <NoteSlip v-else :key="slotOf(slip)" :activity-id="activity.id" :note="note" :kind="slip.kind" :already="already" :may-write="desk.mayWrite" :min-words="minWords" :stored="thread.draftAt(null, slotOf(slip))" :place="slotOf(slip)" @kind="kindOf" @posted="posted" @away="away" @target="slip = { ...slip, to: null }" />
          </Teleport>
        </main>
      </div>
      <ArrivedBar v-if="live.arrived.value.length > 0" :words="arrivedWords" @read="goToArrived" @later="live.seen()" />
      <footer>
        <template v-if="text.form === 'recording' && text.file">
          <audio v-if="text.file.type.startsWith('audio/')" :ref="player.media" :src="text.file.url" preload="metadata" v-on="player.events" />
          <PlayerBar :at="player.at.value" :length="player.length.value" :playing="player.playing.value" :speed="player.speed.value" :problem="player.problem.value" :follows="follows" :notes="noteTimes" @toggle="player.toggle" @seek="player.seek" @speed="player.speed.value = $event" @follow="follows = $event" />
        </template>
        <template v-else>
          <span class="muted">{{ text.title }}{{ text.credit ? ` · ${text.credit}` : '' }}</span>
          <span v-if="minutes" class="muted">{{ minutes }} {{ plural(minutes, 'minute') }} to read</span>
          <span v-if="text.form === 'paper'" class="zoom"><button class="link" type="button" aria-label="Smaller" @click="zoom = Math.max(0.6, zoom / 1.2)">−</button><span class="num">{{ Math.round(zoom * 100) }} %</span><button class="link" type="button" aria-label="Larger" @click="zoom = Math.min(3, zoom * 1.2)">+</button></span>
          <span class="grow" />
        </template>
        <NotesInOut :activity="activity" :form="text.form" @taken="thread.refresh()" />
        <span class="hints"><button class="link" type="button" @click="step(1)">next note <kbd>j</kbd></button><button class="link" type="button" :disabled="margin.openQuestions.value.length === 0" @click="step(1, margin.openQuestions.value)">next open question <kbd>u</kbd></button><button v-if="seminar.isStudent" class="link" type="button" @click="nextOwn">next page of yours <kbd>]</kbd></button></span>
      </footer>
    </div>
  </ActivityPage>
</template>

<style scoped>
.alone { padding: 40px 20px; max-width: 40rem; margin: 0 auto; }
.empty { color: var(--ink-2); font: 400 1rem/1.55 var(--read); }
.desk { flex: 1; min-height: 0; display: flex; flex-direction: column; position: relative; --margin-width: clamp(340px, 33.5vw, 560px); --gutter: 40px; }
.top { display: grid; grid-template-columns: minmax(0, 1fr) calc(var(--margin-width) + 10px); border-bottom: 1px solid var(--line); }
.drafts .link { margin-left: 6px; font: italic 400 0.8125rem/1.3 var(--read); }
.filter { display: flex; align-items: center; gap: 4px 15px; flex-wrap: wrap; font-size: 0.78125rem; color: var(--ink-2); padding: 4px 20px 4px 22px; border-left: 1px solid var(--line); }
.filter > button { background: none; border: 0; padding: 5px 0; color: inherit; cursor: pointer; font: inherit; }
.filter .on { color: var(--ink); font-weight: 650; box-shadow: 0 2px 0 var(--harbour); border-radius: 0; }
.body { flex: 1; min-height: 0; display: grid; grid-template-columns: 160px minmax(0, 1fr); }
main { overflow-y: auto; overflow-x: hidden; position: relative; outline: none; background: linear-gradient(to right, var(--sheet) calc(100% - var(--margin-width)), var(--paper) calc(100% - var(--margin-width))); }
.aside { padding-right: 12px; display: grid; gap: 8px; margin-top: auto; }
.say { font: 400 0.8125rem/1.4 var(--read); color: var(--ink-2); }
.find .in { width: 100%; padding: 3px 8px; font-size: 0.78125rem; }
.tags { display: flex; flex-wrap: wrap; gap: 2px 8px; }
.tags button { background: none; border: 0; border-bottom: 1px solid var(--spine); border-radius: 0; padding: 0; font: italic 400 0.8125rem/1.35 var(--read); color: var(--ink-2); cursor: pointer; }
.tags .on { color: var(--ink); border-bottom: 2px solid var(--harbour); }
.key span { display: grid; grid-template-columns: 38px 1fr; align-items: center; font-size: 0.75rem; line-height: 20px; color: var(--ink-2); }
.key i { display: block; height: 0; width: 28px; border-bottom: 1px solid var(--k-reading); }
.key .many { border-bottom-width: 4px; }
.key .own { border-bottom: 2px dashed var(--harbour); }
.film { display: block; max-height: 260px; max-width: 620px; width: 100%; margin: 12px auto; background: #000; }
.lost { padding: 16px var(--gutter) 40px; background: var(--sunken); border-top: 1px solid var(--line); }
.lost h2 { font: 600 1rem/1.3 var(--read); margin-bottom: 8px; }
.lost > div { padding: 8px 0 8px 20px; max-width: 44rem; border-top: 1px solid var(--line-soft); }
.was { font: italic 400 0.875rem/1.4 var(--read); color: var(--ink-3); text-decoration: line-through; }
.below { background: var(--paper); border-block: 1px solid var(--line); padding: 10px 14px 6px 22px; display: grid; gap: 10px; }
.below .link { font: 500 0.8125rem/1.4 var(--ui); }
.broken { padding: 14px var(--gutter); }
footer { flex: none; min-height: 34px; border-top: 1px solid var(--line); display: flex; align-items: center; gap: 4px 16px; padding: 3px 20px; font-size: 0.78125rem; color: var(--ink-2); flex-wrap: wrap; }
footer > .muted { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; max-width: 26rem; }
.zoom { display: flex; gap: 8px; align-items: center; }
.zoom .link { font: 600 1rem/1 var(--ui); text-decoration: none; padding: 4px 6px; }
.hints { display: flex; gap: 16px; }
.hints .link { font: inherit; color: inherit; text-decoration: none; }
.hints .link:hover { text-decoration: underline; }
.grow { flex: 1; }
@media (max-width: 1000px) {
  .desk { --gutter: 20px; }
  .top, .body { grid-template-columns: minmax(0, 1fr); }
  .filter { border-left: 0; border-top: 1px solid var(--line-soft); padding: 2px 14px; }
  main { overflow: visible; background: var(--sheet); }
  .aside .key, .aside .tags { display: none; }
  .body > .strip { position: sticky; top: 0; z-index: 8; background: var(--paper); }
  .hints kbd { display: none; }
}
@media (max-width: 760px) { .desk { --gutter: 14px; } footer { padding: 4px 14px; } }
</style>
