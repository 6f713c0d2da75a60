<script setup lang="ts">
import { isSet } from '#core/contributing/reading/reading'
import { capital, inWords, plural } from '#core/language'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { readingKeys } from '~/composables/contributing/reading/readingKeys'
import { useChoice } from '~/composables/contributing/reading/useChoice'
import { useFind } from '~/composables/contributing/reading/useFind'
import { useMargin, type Filter } from '~/composables/contributing/reading/useMargin'
import { usePaper } from '~/composables/contributing/reading/usePaper'
import { usePlayer } from '~/composables/contributing/reading/usePlayer'
import { slotOf, useNoteComposer } from '~/composables/contributing/reading/useNoteComposer'
import { useWay } from '~/composables/contributing/reading/useWay'
import { useKeys } from '~/composables/shell/useKeys'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import { useReadingStore } from '~/stores/reading'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '../ActivityPage.vue'
import ArrivedBar from '../ArrivedBar.vue'
import AskedLine from './AskedLine.vue'
import LostNotes from './LostNotes.vue'
import NoteComposer from './NoteComposer.vue'
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
const { error, refresh: again } = await useAsyncData(`reading-${activity.value.id}`, async () => {
  await store.load(activity.value.id)
  return true
})
const view = computed(() => store.view)
const text = computed(() => view.value?.text ?? null)
const parts = computed(() => text.value?.parts ?? [])
const margin = useMargin()
const choice = useChoice()
const way = useWay(margin, choice, ids => composer.readBelow(ids))
const { scroller, here, lit, openNotes, narrow, found, show, focusNote, step, follow } = way
const { desk } = useTalkDesk(id => focusNote(id))
const composer = useNoteComposer(
  margin,
  choice,
  () => way,
  () => desk,
)
const { composedNote, place: composerElement } = composer
const find = useFind(way)
const { words, field: findField } = find
const player = usePlayer(() => text.value?.cues ?? [])
const {
  paper,
  problem: paperProblem,
  open: openPaper,
} = usePaper(() => (text.value?.form === 'paper' ? (text.value.file?.url ?? null) : null))
const live = useLiveTalk(
  () => {},
  () => void store.load(activity.value.id).catch(() => {}),
)
const word = computed(() => {
  if (text.value?.form === 'paper') return 'Page'
  if (text.value?.form === 'recording') return 'From'
  return 'Section'
})
const labelOf = (n: number) => `${word.value.toLowerCase()} ${parts.value[n - 1]?.label ?? n}`
const zoom = ref(1)
const zoomBy = (factor: number) => {
  zoom.value = Math.min(3, Math.max(0.6, zoom.value * factor))
}
const column = ref(690)
const width = computed(() => Math.round(Math.min(Math.max(280, column.value), 640) * zoom.value))
const closedPages = computed(() =>
  view.value?.writeFirst === 'page' && seminar.isStudent
    ? new Set(parts.value.map(p => p.number).filter(n => !way.hasOwn(n)))
    : new Set<number>(),
)
const keys = computed(() =>
  readingKeys(text.value?.form ?? null, { way, composer, find, margin, player, desk, zoomBy }),
)
const { listOpen } = useKeys(() => keys.value)

const settle = async (id: string, settled: boolean) => {
  try {
    await store.settle(id, settled)
    await thread.refresh()
    notices.say(settled ? 'It has its answer.' : 'Open again.', {
      label: 'Undo',
      run: () => void settle(id, !settled),
    })
  } catch (problem) {
    notices.warn(problem)
  }
}
const toggle = (id: string) => {
  if (!openNotes.delete(id)) openNotes.add(id)
}

// what is being said stays in sight, unless something is being written
const follows = ref(true)
watch(player.currentLineStart, start => {
  if (start === null || !follows.value || !player.playing.value || composedNote.value) return
  const part = way.partAt(start)
  if (!choice.drawn.has(part)) {
    void show(part)
    return
  }
  const cue = text.value!.cues.find(c => c.start === start)!
  const box = choice.drawn.get(part)!.lines(cue.start, cue.end)[0]
  const edges = scroller.value?.getBoundingClientRect()
  if (box && edges && (box.bottom > edges.bottom - 80 || box.top < edges.top))
    way.bring(part, cue, 120, matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth')
})

let sized: ResizeObserver | undefined
onMounted(async () => {
  sized = new ResizeObserver(() => {
    narrow.value = window.innerWidth <= 1000
    const el = scroller.value?.querySelector<HTMLElement>('.text')
    if (el) column.value = el.clientWidth - 2 * Number.parseFloat(getComputedStyle(el).paddingLeft || '0')
  })
  if (scroller.value) sized.observe(scroller.value)
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  if (target) await focusNote(target)
  else if ((view.value?.from ?? 1) > 1) await show(view.value!.from)
  // the notes of the pages that are read first came with the page; the others come once these stand there
  if (thread.thread?.more) {
    await way.drawn(here.value)
    await thread.refresh().catch(problem => notices.warn(problem))
  }
  void Promise.resolve(thread.recordVisit()).catch(() => {})
})
onBeforeUnmount(() => sized?.disconnect())
// pages on which nothing changes get the very same, so that they are not drawn anew
const NONE: never[] = []
const within = (list: ReadonlyArray<{ start: number; end: number }>, p: { start: number; end: number }) =>
  list.length === 0 || !list.some(s => s.start < p.end && s.end > p.start)
    ? NONE
    : list.filter(s => s.start < p.end && s.end > p.start)
function nearBy(n: number) {
  void store.needParts([n, n + 1].filter(x => x <= parts.value.length)).catch(() => {})
  const missing = (margin.byPart.value.get(n) ?? [])
    .flatMap(m => [m.c, ...m.replies])
    .filter(c => c.html === null)
    .map(c => c.id)
  if (missing.length > 0) void thread.needTexts(missing)
}
const FILTERS = computed<ReadonlyArray<readonly [Filter, string]>>(() => [
  ['everyone', 'everyone'],
  ...(margin.hasGroup.value ? [['group', 'my group'] as const] : []),
  ['mine', 'mine'],
  ['open', `questions without an answer (${margin.openQuestions.value.length})`],
])
const setWords = computed(() => {
  const v = view.value
  if (!v?.text || (v.from === 1 && (v.to === null || v.to >= parts.value.length))) return null
  const [a, b] = [parts.value[v.from - 1]?.label, parts.value[(v.to ?? parts.value.length) - 1]?.label]
  return `${a === b ? `${word.value} ${a} is` : `${word.value}s ${a}–${b} are`} ${seminar.isStaff ? 'set' : 'yours'}; the rest is context.`
})
const minutes = computed(() => {
  const set = parts.value.filter(p => isSet(view.value!, p.number)).reduce((s, p) => s + p.words, 0)
  return text.value?.form === 'recording' || set === 0 ? null : Math.max(1, Math.round(set / 220))
})
const arrivedWords = computed(() => {
  const n = live.arrived.value.length
  const last = live.arrived.value.at(-1)
  if (n === 0 || !last) return ''
  if (n > 1) return `${capital(inWords(n))} new notes and answers have come.`
  if (last.parentId) return `${last.author.givenName} answered a note just now.`
  return `${last.author.givenName} wrote in the margin just now.`
})
function goToArrived() {
  const [first] = live.arrived.value
  live.seen()
  if (first) void focusNote(first.id)
}
const noteTimes = computed(() =>
  margin.all.value.flatMap(m => (m.c.note.time ? [[m.c.note.time[0], m.c.note.time[1]] as const] : [])),
)
const heatTo = computed(() => `/seminars/${activity.value.seminarId}/activities/${activity.value.id}/heat`)
</script>

<template>
  <ActivityPage v-model:list-open="listOpen" :activity="activity" :keys="keys">
    <div v-if="error || !view" class="alone">
      <p class="empty">{{ error?.message ?? 'The text could not be fetched.' }}</p>
      <p><v-btn @click="again()">Try again</v-btn></p>
    </div>
    <div v-else-if="!text" class="alone">
      <p class="empty">
        {{
          seminar.isStaff
            ? 'No text has been chosen yet. Add one to the library, then choose it, and the pages that are to be read, in the plan of this reading.'
            : 'The text to be read is not here yet.'
        }}
      </p>
      <p v-if="seminar.shell?.role === 'instructor'">
        <NuxtLink :to="`/seminars/${activity.seminarId}/library`">To the library</NuxtLink>
      </p>
    </div>
    <div v-else class="desk">
      <div class="top">
        <AskedLine :activity="activity" :checks="thread.thread?.checks ?? []">
          <NuxtLink v-if="seminar.isStaff" :to="heatTo">Where the talk is, to show in class</NuxtLink>
          <span v-if="composer.drafts.value.length > 0" class="drafts"
            >begun:
            <button
              v-for="d in composer.drafts.value"
              :key="d.id"
              class="link"
              type="button"
              @click="composer.goOn(d)"
            >
              “{{ (d.note!.passage?.exact ?? labelOf(d.note!.part)).slice(0, 34)
              }}{{ (d.note!.passage?.exact.length ?? 0) > 34 ? ' …' : '' }}”
            </button></span
          >
        </AskedLine>
        <div class="filter" role="group" aria-label="Whose notes">
          <button
            v-for="[value, label] in FILTERS"
            :key="value"
            type="button"
            :class="{ on: margin.filter.value === value }"
            :aria-pressed="margin.filter.value === value"
            @click="margin.filter.value = value"
          >
            {{ label }}
          </button>
          <button v-if="margin.tag.value" class="link" type="button" @click="margin.tag.value = null">
            only “{{ margin.tag.value }}” ×
          </button>
        </div>
      </div>
      <div class="body">
        <PageStrip
          :parts="parts"
          :notes="margin.byPart.value"
          :from="view.from"
          :to="view.to"
          :here="here"
          :word="word"
          :closed-pages="closedPages"
          @go="show"
        >
          <div class="aside">
            <p v-if="setWords" class="say">{{ setWords }}</p>
            <p v-if="thread.thread?.waiting" class="say">
              {{
                activity.hiddenUntil
                  ? `The others’ notes are shown to everyone ${dayTime(activity.hiddenUntil)}.`
                  : 'The others’ notes appear once one of your own is in.'
              }}
            </p>
            <form class="find" role="search" @submit.prevent="find.find(1)">
              <input
                ref="findField"
                v-model="words"
                class="in"
                type="search"
                placeholder="find in the text"
                aria-label="Find in the text"
                @keydown.esc="find.end"
                @input="words.trim() === '' && find.end()"
              /><span v-if="find.said.value" class="hint num" role="status">{{ find.said.value }}</span>
            </form>
            <p v-if="margin.tags.value.length > 0" class="tags">
              <button
                v-for="t in margin.tags.value"
                :key="t"
                type="button"
                :class="{ on: margin.tag.value === t }"
                :aria-pressed="margin.tag.value === t"
                @click="margin.tag.value = margin.tag.value === t ? null : t"
              >
                {{ t }}
              </button>
            </p>
            <p class="key" aria-hidden="true">
              <span><i />one note</span><span><i class="many" />many</span><span><i class="own" />yours</span>
            </p>
          </div>
        </PageStrip>
        <main
          ref="scroller"
          tabindex="-1"
          @scroll.passive="way.scrolled"
          @mouseup="composer.released"
          @keyup.shift="composer.released"
        >
          <p v-if="paperProblem" class="empty broken" role="alert">
            The paper could not be opened here. Its notes can be read all the same.
            <button class="link" type="button" @click="openPaper()">Try again</button>
          </p>
          <video
            v-if="text.form === 'recording' && text.file?.type.startsWith('video/')"
            :ref="player.media"
            class="film"
            :src="text.file.url"
            preload="metadata"
            v-on="player.events"
          />
          <TextRow
            v-for="p in parts"
            :key="p.number"
            :ref="row => way.keepRow(p.number, row)"
            :part="p"
            :text="text"
            :paper="paper"
            :html="store.html.get(p.number) ?? null"
            :width="width"
            :notes="margin.byPart.value.get(p.number) ?? NONE"
            :passages="margin.passages.value.get(p.number) ?? NONE"
            :chosen="within(composer.chosen.value, p)"
            :found="within(found, p)"
            :lit="lit !== null && margin.partOf.value.get(lit) === p.number ? lit : null"
            :open-notes="openNotes"
            :desk="desk"
            :is-set="isSet(view, p.number)"
            :closed="closedPages.has(p.number)"
            :current-line-start="
              player.currentLineStart.value !== null &&
              player.currentLineStart.value >= p.start &&
              player.currentLineStart.value <= p.end
                ? player.currentLineStart.value
                : null
            "
            :page="word"
            :label-of="labelOf"
            @words="choice.setWords"
            @near="nearBy"
            @pick="composer.pick"
            @area="composer.noteArea(p.number, $event)"
            @whole="composer.noteArea(p.number, { x: 0, y: 0, width: 1, height: 1 })"
            @play="player.play"
            @toggle="toggle"
            @follow="follow"
            @light="lit = $event ?? lit"
            @settle="settle"
            @tag="margin.tag.value = $event"
            @jump="focusNote"
          />
          <LostNotes
            :notes="margin.lost.value"
            :desk="desk"
            :open-notes="openNotes"
            :lit="lit"
            @toggle="toggle"
            @settle="settle"
          />
          <Teleport v-if="composedNote && composerElement" :to="composerElement">
            <div v-if="composedNote.read.length > 0" class="below">
              <SideNote
                v-for="m in composer.read.value"
                :key="m.c.id"
                :note="m"
                :letter="null"
                :desk="desk"
                :open="openNotes.has(m.c.id)"
                :lit="false"
                :target="m.c.note.to?.passage.exact ?? null"
                :target-page="m.c.note.to ? labelOf(m.c.note.to.part) : null"
                @toggle="toggle(m.c.id)"
                @follow="follow(m.c.id)"
                @settle="s => settle(m.c.id, s)"
                @tag="margin.tag.value = $event"
                @play="player.play"
              />
              <p><button class="link" type="button" @click="composer.close">close</button></p>
            </div>
            <NoteComposer
              v-else
              :key="slotOf(composedNote)"
              :activity-id="activity.id"
              :note="composer.note.value"
              :kind="composedNote.kind"
              :already="composer.already.value"
              :may-write="desk.mayWrite"
              :min-words="composer.minWords"
              :stored="thread.draftAt(null, slotOf(composedNote))"
              :place="slotOf(composedNote)"
              @kind="composer.setKind"
              @posted="composer.posted"
              @away="composer.away"
              @target="composer.target"
            />
          </Teleport>
        </main>
      </div>
      <ArrivedBar
        v-if="live.arrived.value.length > 0"
        :words="arrivedWords"
        @read="goToArrived"
        @later="live.seen()"
      />
      <footer>
        <template v-if="text.form === 'recording' && text.file">
          <audio
            v-if="text.file.type.startsWith('audio/')"
            :ref="player.media"
            :src="text.file.url"
            preload="metadata"
            v-on="player.events"
          />
          <PlayerBar
            :at="player.at.value"
            :length="player.length.value"
            :playing="player.playing.value"
            :speed="player.speed.value"
            :problem="player.problem.value"
            :follows="follows"
            :notes="noteTimes"
            @toggle="player.toggle"
            @seek="player.seek"
            @speed="player.speed.value = $event"
            @follow="follows = $event"
          />
        </template>
        <template v-else>
          <span class="muted">{{ text.title }}{{ text.credit ? ` · ${text.credit}` : '' }}</span>
          <span v-if="minutes" class="muted">{{ minutes }} {{ plural(minutes, 'minute') }} to read</span>
          <span v-if="text.form === 'paper'" class="zoom"
            ><button class="link" type="button" aria-label="Smaller" @click="zoomBy(1 / 1.2)">−</button
            ><span class="num">{{ Math.round(zoom * 100) }} %</span
            ><button class="link" type="button" aria-label="Larger" @click="zoomBy(1.2)">+</button></span
          >
          <span class="grow" />
        </template>
        <NotesInOut :activity="activity" :form="text.form" @taken="thread.refresh()" />
        <span class="hints"
          ><button class="link" type="button" @click="step(1)">next note <kbd>j</kbd></button
          ><button
            class="link"
            type="button"
            :disabled="margin.openQuestions.value.length === 0"
            @click="step(1, margin.openQuestions.value)"
          >
            next open question <kbd>u</kbd></button
          ><button v-if="seminar.isStudent" class="link" type="button" @click="way.nextOwn">
            next page of yours <kbd>]</kbd>
          </button></span
        >
      </footer>
    </div>
  </ActivityPage>
</template>

<style scoped>
.alone {
  padding: 40px 20px;
  max-width: 40rem;
  margin: 0 auto;
}
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
}
.desk {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  position: relative;
  --margin-width: clamp(340px, 33.5vw, 560px);
  --gutter: 40px;
}
.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) calc(var(--margin-width) + 10px);
  border-bottom: 1px solid var(--line);
}
.drafts .link {
  margin-left: 6px;
  font: italic 400 0.8125rem/1.3 var(--read);
}
.filter {
  display: flex;
  align-items: center;
  gap: 4px 15px;
  flex-wrap: wrap;
  font-size: 0.78125rem;
  color: var(--ink-2);
  padding: 4px 20px 4px 22px;
  border-left: 1px solid var(--line);
}
.filter > button {
  background: none;
  border: 0;
  padding: 5px 0;
  color: inherit;
  cursor: pointer;
  font: inherit;
}
.filter .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr);
}
main {
  overflow-y: auto;
  overflow-x: hidden;
  position: relative;
  outline: none;
  background: var(--sheet);
}
.aside {
  padding-right: 12px;
  display: grid;
  gap: 8px;
  margin-top: auto;
}
.say {
  font: 400 0.8125rem/1.4 var(--read);
  color: var(--ink-2);
}
.find .in {
  width: 100%;
  padding: 3px 8px;
  font-size: 0.78125rem;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}
.tags button {
  background: none;
  border: 0;
  border-bottom: 1px solid var(--spine);
  border-radius: 0;
  padding: 0;
  font: italic 400 0.8125rem/1.35 var(--read);
  color: var(--ink-2);
  cursor: pointer;
}
.tags .on {
  color: var(--ink);
  border-bottom: 2px solid var(--harbour);
}
.key span {
  display: grid;
  grid-template-columns: 38px 1fr;
  align-items: center;
  font-size: 0.75rem;
  line-height: 20px;
  color: var(--ink-2);
}
.key i {
  display: block;
  height: 0;
  width: 28px;
  border-bottom: 1px solid var(--k-reading);
}
.key .many {
  border-bottom-width: 4px;
}
.key .own {
  border-bottom: 2px dashed var(--harbour);
}
.film {
  display: block;
  max-height: 260px;
  max-width: 620px;
  width: 100%;
  margin: 12px auto;
  background: #000;
}
.below {
  background: var(--paper);
  border-block: 1px solid var(--line);
  padding: 10px 14px 6px 22px;
  display: grid;
  gap: 10px;
}
.below .link {
  font: 500 0.8125rem/1.4 var(--ui);
}
.broken {
  padding: 14px var(--gutter);
}
footer {
  flex: none;
  min-height: 34px;
  border-top: 1px solid var(--line);
  display: flex;
  align-items: center;
  gap: 4px 16px;
  padding: 3px 20px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  flex-wrap: wrap;
}
footer > .muted {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 26rem;
}
.zoom {
  display: flex;
  gap: 8px;
  align-items: center;
}
.zoom .link {
  font: 600 1rem/1 var(--ui);
  text-decoration: none;
  padding: 4px 6px;
}
.hints {
  display: flex;
  gap: 16px;
}
.hints .link {
  font: inherit;
  color: inherit;
  text-decoration: none;
}
.hints .link:hover {
  text-decoration: underline;
}
.grow {
  flex: 1;
}
@media (max-width: 1000px) {
  .desk {
    --gutter: 20px;
  }
  .top,
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .filter {
    border-left: 0;
    border-top: 1px solid var(--line-soft);
    padding: 2px 14px;
  }
  main {
    overflow: visible;
  }
  .aside .key,
  .aside .tags {
    display: none;
  }
  .body > .strip {
    position: sticky;
    top: 0;
    z-index: 8;
    background: var(--paper);
  }
  .hints kbd {
    display: none;
  }
}
@media (max-width: 760px) {
  .desk {
    --gutter: 14px;
  }
  footer {
    padding: 4px 14px;
  }
}
</style>
