<script setup lang="ts">
import { isSet } from '#core/kinds/reading/reading'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { readingKeys } from '~/kinds/reading/readingKeys'
import { useChoice } from '~/kinds/reading/useChoice'
import { useFollowing } from '~/kinds/reading/useFollowing'
import { useFind } from '~/kinds/reading/useFind'
import { useMargin } from '~/kinds/reading/useMargin'
import { usePaper } from '~/kinds/reading/usePaper'
import { usePlayer } from '~/kinds/reading/usePlayer'
import { draftKeyOf, useNoteComposer } from '~/kinds/reading/useNoteComposer'
import { isPrinting } from '~/composables/shell/printing'
import { isPrintedWhole, usePrintedReading } from '~/kinds/reading/usePrintedReading'
import { useReadingSize, USUAL_ASPECT } from '~/kinds/reading/useReadingSize'
import { useReadingWords } from '~/kinds/reading/useReadingWords'
import { useReadingNavigation } from '~/kinds/reading/useReadingNavigation'
import { useKeys } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useReadingStore } from '~/stores/reading'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ArrivedBar from '~/components/contributing/ArrivedBar.vue'
import AskedLine from './AskedLine.vue'
import BegunNotes from './BegunNotes.vue'
import LostNotes from './LostNotes.vue'
import NoteComposer from './NoteComposer.vue'
import NoText from './NoText.vue'
import NotesFilter from './NotesFilter.vue'
import PageStrip from './PageStrip.vue'
import ReadBelow from './ReadBelow.vue'
import ReadingFoot from './ReadingFoot.vue'
import ReadingTools from './ReadingTools.vue'
import RowPlace from './RowPlace.vue'
import TextRow from './TextRow.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** A text that is read together: its pages, the talk in its margin, and where on it the talk is. */
const thread = useThreadStore()
const store = useReadingStore()
const seminar = useSeminarStore()
const notices = useNotices()
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
const navigation = useReadingNavigation(margin, choice, ids => composer.readBelow(ids))
const { scroller, here, lit, openNotes, narrow, found, show, focusNote, step, follow } = navigation
const { desk } = useTalkDesk(id => focusNote(id))
const composer = useNoteComposer(
  margin,
  choice,
  () => navigation,
  () => desk,
)
const { composedNote, element: composerElement } = composer
const find = useFind(navigation)
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
const { zoom, zoomBy, width, heightOf } = useReadingSize(scroller, narrow, scale =>
  // words of an article are laid anew, pages of a paper are larger or smaller
  navigation.restore(text.value?.form === 'paper' ? scale : null),
)
const closedPages = computed(() =>
  view.value?.writeFirst === 'page' && seminar.isStudent
    ? new Set(parts.value.map(p => p.number).filter(n => !navigation.hasOwn(n)))
    : new Set<number>(),
)
const keys = computed(() =>
  readingKeys(text.value?.form ?? null, { navigation, composer, find, margin, player, desk, zoomBy }),
)
useKeys(() => keys.value)
usePrintedReading(navigation.drawn)

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

const { follows } = useFollowing(
  () => text.value,
  player,
  navigation,
  choice,
  () => Boolean(composedNote.value),
)

onMounted(async () => {
  await nextTick() // pages have the height that their width gives them
  const target = location.hash.startsWith('#c-') ? location.hash.slice(3) : null
  if (target) await focusNote(target)
  else if ((view.value?.from ?? 1) > 1) await show(view.value!.from)
  // the notes of the pages that are read first came with the page; the others come once these stand there
  if (thread.thread?.more) {
    await navigation.drawn(here.value)
    await thread.refresh().catch(problem => notices.warn(problem))
  }
  void Promise.resolve(thread.recordVisit()).catch(() => {})
})
// pages on which nothing changes get the very same, so that they are not drawn anew
const NONE: never[] = []
const within = (list: ReadonlyArray<{ start: number; end: number }>, p: { start: number; end: number }) =>
  list.some(s => s.start < p.end && s.end > p.start)
    ? list.filter(s => s.start < p.end && s.end > p.start)
    : NONE
function nearBy(n: number) {
  void store.needParts([n, n + 1].filter(x => x <= parts.value.length)).catch(() => {})
  const missing = (margin.byPart.value.get(n) ?? [])
    .flatMap(m => [m.c, ...m.replies])
    .filter(c => c.html === null)
    .map(c => c.id)
  if (missing.length > 0) void thread.needTexts(missing)
}
const { setWords, waitingWords, minutes, arrivedWords } = useReadingWords(word, live.arrived)
function goToArrived() {
  const [first] = live.arrived.value
  live.seen()
  if (first) void focusNote(first.id)
}
const lineIn = (p: { start: number; end: number }) => {
  const start = player.currentLineStart.value
  return start !== null && start >= p.start && start <= p.end ? start : null
}
const litIn = (part: number) =>
  lit.value !== null && margin.partOf.value.get(lit.value) === part ? lit.value : null
const base = computed(() => `/seminars/${activity.value.seminarId}`)
const libraryTo = computed(() => (seminar.shell?.role === 'instructor' ? `${base.value}/library` : null))
const heatTo = computed(() => `${base.value}/activities/${activity.value.id}/heat`)
</script>

<template>
  <ActivityPage :activity="activity">
    <div v-if="error || !view" class="alone">
      <p class="empty">{{ error?.message ?? 'The text could not be fetched.' }}</p>
      <p><v-btn @click="again()">Try again</v-btn></p>
    </div>
    <NoText v-else-if="!text" class="alone" :is-staff="seminar.isStaff" :library-to="libraryTo" />
    <div v-else class="desk">
      <section class="top no-print" aria-label="What is asked, and whose notes are shown">
        <AskedLine :activity="activity" :checks="thread.thread?.checks ?? []">
          <NuxtLink v-if="seminar.isStaff" :to="heatTo">Where the talk is, to show in class</NuxtLink>
          <BegunNotes :composer="composer" :label-of="labelOf" />
        </AskedLine>
        <NotesFilter :margin="margin" />
      </section>
      <div class="body">
        <PageStrip
          class="no-print"
          :parts="parts"
          :notes="margin.byPart.value"
          :from="view.from"
          :to="view.to"
          :here="here"
          :word="word"
          :closed-pages="closedPages"
          @go="show"
        >
          <ReadingTools :find="find" :margin="margin" :set-words="setWords" :waiting-words="waitingWords" />
        </PageStrip>
        <main
          ref="scroller"
          tabindex="-1"
          :style="{ '--zoom': zoom }"
          @scroll.passive="navigation.scrolled"
          @mouseup="composer.released"
          @keyup.shift="composer.released"
        >
          <p v-if="paperProblem" class="empty broken" role="alert">
            The paper could not be opened here. Its notes can be read all the same.
            <TextButton @click="openPaper()">Try again</TextButton>
          </p>
          <video
            v-if="text.form === 'recording' && text.file?.type.startsWith('video/')"
            :ref="player.media"
            class="film"
            :src="text.file.url"
            preload="metadata"
            v-on="player.events"
          />
          <div class="row ruler" aria-hidden="true"><div class="text" /></div>
          <RowPlace
            v-for="p in parts"
            :key="p.number"
            :ref="place => navigation.keepPlace(p.number, place)"
            v-slot="{ hold, keepRoom }"
            :number="p.number"
            :label="`${word} ${p.label}`"
            :class="{ context: !isSet(view, p.number) }"
            :height="heightOf(text.form, p)"
            :aspect="text.form === 'paper' ? (p.aspect ?? USUAL_ASPECT) : null"
            :narrow="narrow"
            :always="isPrinting && isPrintedWhole(text)"
            @near="nearBy"
          >
            <TextRow
              :ref="row => navigation.keepRow(p.number, row)"
              :part="p"
              :text="text"
              :height="heightOf(text.form, p)"
              :paper="paper"
              :html="store.html.get(p.number) ?? null"
              :width="width"
              :notes="margin.byPart.value.get(p.number) ?? NONE"
              :passages="margin.passages.value.get(p.number) ?? NONE"
              :chosen="within(composer.chosen.value, p)"
              :found="within(found, p)"
              :lit="litIn(p.number)"
              :open-notes="openNotes"
              :desk="desk"
              :is-set="isSet(view, p.number)"
              :closed="closedPages.has(p.number)"
              :current-line-start="lineIn(p)"
              :page="word"
              :label-of="labelOf"
              @hold="hold"
              @room="keepRoom"
              @words="choice.setWords"
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
          </RowPlace>
          <LostNotes
            :notes="margin.lost.value"
            :desk="desk"
            :open-notes="openNotes"
            :lit="lit"
            @toggle="toggle"
            @settle="settle"
          />
          <Teleport v-if="composedNote && composerElement" :to="composerElement">
            <ReadBelow
              v-if="composedNote.read.length > 0"
              :notes="composer.read.value"
              :desk="desk"
              :open-notes="openNotes"
              :label-of="labelOf"
              @toggle="toggle"
              @follow="follow"
              @settle="settle"
              @tag="margin.tag.value = $event"
              @play="player.play"
              @close="composer.close"
            />
            <NoteComposer
              v-else
              :key="draftKeyOf(composedNote)"
              :activity-id="activity.id"
              :note="composer.note.value"
              :kind="composedNote.kind"
              :already="composer.already.value"
              :may-write="desk.mayWrite"
              :min-words="composer.minWords"
              :stored="thread.draftAt(null, draftKeyOf(composedNote))"
              :draft-key="draftKeyOf(composedNote)"
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
      <ReadingFoot
        v-model:follows="follows"
        :activity="activity"
        :text="text"
        :margin="margin"
        :player="player"
        :minutes="minutes"
        :zoom="zoom"
        :is-student="seminar.isStudent"
        @zoom="zoomBy"
        @step="step(1, $event)"
        @next-own="navigation.nextOwn"
        @taken="thread.refresh()"
      />
    </div>
  </ActivityPage>
</template>

<style scoped src="./row.css" />
<style scoped>
/* tells how wide a text is where none is drawn yet */
.ruler {
  height: 0;
  overflow: hidden;
}
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
.film {
  display: block;
  max-height: 260px;
  max-width: 620px;
  width: 100%;
  margin: 12px auto;
  background: #000;
}
.broken {
  padding: 14px var(--gutter);
}
@media (max-width: 1000px) {
  .desk {
    --gutter: 20px;
  }
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
  .body {
    display: block; /* in a grid the pages could stick within their own row alone */
  }
  main {
    overflow: visible;
  }
  .body > .strip {
    position: sticky;
    top: 0;
    z-index: 8;
    background: var(--paper);
  }
}
@media (max-width: 760px) {
  .desk {
    --gutter: 14px;
  }
}
</style>
