<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import { heatOf, type HotPassage } from '#core/kinds/reading/passages'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import HotPassageShow from '~/kinds/reading/HotPassageShow.vue'
import ProseText from '~/components/contributing/ProseText.vue'
import KindTag from '~/components/planning/KindTag.vue'
import { useHeatChoices } from '~/kinds/reading/useHeatChoices'
import { useMargin, type MarginNote } from '~/kinds/reading/useMargin'
import { inWords, plural } from '#core/language'
import { useLiveTalk } from '~/composables/contributing/useLiveTalk'
import { useKeys } from '~/composables/shell/useKeys'
import { useReadingStore } from '~/stores/reading'
import { useThreadStore } from '~/stores/thread'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Where on a text the talk is: passages by what they drew, and a page of the chosen ones to show in class. */
definePageMeta({ layout: 'seminar', key: route => `heat-${String(route.params.activityId)}` })
const route = useRoute()
const thread = useThreadStore()
const store = useReadingStore()
const activityId = String(route.params.activityId)
const { error, refresh } = await useAsyncData(`heat-${activityId}`, async () => {
  await thread.load(activityId)
  await store.load(activityId)
  return true
})
useHead({ title: () => `Where the talk is · ${thread.activity?.title ?? ''}` })
const margin = useMargin()
useLiveTalk(() => {})
const { order, named, left, added } = useHeatChoices(activityId)
const big = ref(false)
const at = ref(0)
const parts = computed(() => store.view?.text?.parts ?? [])
const notes = computed(() => new Map(margin.all.value.map(m => [m.c.id, m])))
const hot = computed(() =>
  heatOf(
    margin.all.value.flatMap(m =>
      m.c.note.at && !m.c.withdrawn && m.c.state === 'shown'
        ? [
            {
              id: m.c.id,
              start: m.c.note.at.start,
              end: m.c.note.at.end,
              own: false,
              kind: m.c.note.kind,
              replies: m.replies.filter(r => !r.withdrawn).length,
              open: m.open,
              people: [m.c, ...m.replies].map(c => c.author.id),
            },
          ]
        : [],
    ),
  ),
)
const passages = computed(() => {
  if (order.value === 'heat') return hot.value
  if (order.value === 'open') return hot.value.filter(h => h.open > 0)
  return [...hot.value].sort((a, b) => a.start - b.start)
})
const hottest = computed(() => Math.max(1, ...hot.value.map(h => h.heat)))
const FIRST = 6 // passages that stand on the page to show unless they are left out
const keyOf = (h: HotPassage) => `${h.start}-${h.end}`
const onPage = (h: HotPassage) =>
  left.has(keyOf(h)) ? false : added.has(keyOf(h)) || hot.value.indexOf(h) < FIRST
function setOnPage(h: HotPassage, on: boolean) {
  if (on) {
    left.delete(keyOf(h))
    added.add(keyOf(h))
  } else {
    added.delete(keyOf(h))
    left.add(keyOf(h))
  }
}
const shown = computed(() => passages.value.filter(onPage))
/** The words with a little before and after, from whichever note holds most of them. */
function quote(h: HotPassage): { before: string; exact: string; after: string } {
  const held = h.ids
    .map(id => notes.value.get(id)!.c.note)
    .sort((a, b) => b.at!.end - b.at!.start - (a.at!.end - a.at!.start))[0]!
  return {
    before: held.passage?.prefix.replace(/^\S*\s/, '') ?? '',
    exact: held.passage?.exact ?? '',
    after: held.passage?.suffix.replace(/\s\S*$/, '') ?? '',
  }
}
const label = (h: HotPassage) => {
  const p = parts.value.findLast(x => x.start <= h.start)
  const partWord = () => {
    if (store.view?.text?.form === 'paper') return 'page'
    if (store.view?.text?.form === 'recording') return 'from'
    return 'section'
  }
  return `${partWord()} ${p?.label ?? ''}`
}
const chosenNotes = (h: HotPassage): MarginNote[] =>
  h.ids
    .map(id => notes.value.get(id)!)
    .filter(m => !left.has(m.c.id))
    .sort(
      (a, b) => Number(b.open) - Number(a.open) || b.replies.length - a.replies.length || b.c.nods - a.c.nods,
    )
const counts = (h: HotPassage) =>
  [
    `${h.notes} ${plural(h.notes, 'note')}`,
    ...(h.replies > 0 ? [`${h.replies} ${plural(h.replies, 'answer')}`] : []),
    ...(h.open > 0 ? [`${inWords(h.open)} open ${plural(h.open, 'question')}`] : []),
    `${h.people} ${plural(h.people, 'voice')}`,
  ].join(' · ')
const back = computed(() => `/seminars/${route.params.seminarId}/activities/${activityId}`)
const open = computed(() => margin.openQuestions.value.length)
watch(
  hot,
  list => {
    const missing = list
      .slice(0, 30)
      .flatMap(h => h.ids)
      .filter(id => notes.value.get(id)?.c.html === null)
    if (missing.length > 0) void thread.needTexts(missing)
  },
  { immediate: import.meta.client },
)
function turn(by: number) {
  at.value = Math.min(shown.value.length - 1, Math.max(0, at.value + by))
}
useKeys(() => [
  {
    keys: 's',
    does: 'show large',
    run: () => {
      big.value = !big.value
      at.value = 0
    },
  },
  {
    keys: 'Escape',
    does: 'back from large',
    run: () => {
      big.value = false
    },
  },
  { keys: 'j ArrowRight', does: 'the next passage', run: () => turn(1) },
  { keys: 'k ArrowLeft', does: 'the passage before', run: () => turn(-1) },
])
const current = computed(() => shown.value[at.value] ?? null)
function showBig() {
  big.value = true
  at.value = 0
}
function answerWords(id: string) {
  if (notes.value.get(id)!.replies.length > 0)
    return `${inWords(notes.value.get(id)!.replies.length)} ${plural(notes.value.get(id)!.replies.length, 'answer')}`
  if (notes.value.get(id)!.open) return 'no answer yet'
  return 'see it'
}
</script>

<template>
  <ProblemPage
    v-if="error || !thread.activity || !store.view"
    :sentence="error?.message ?? ''"
    @retry="refresh()"
  />
  <main v-else class="heat">
    <header>
      <p class="head">
        <KindTag kind="reading" /><NuxtLink :to="back">{{ thread.activity.title }}</NuxtLink>
      </p>
      <h1>Where the talk is</h1>
      <p class="lead">
        <template v-if="hot.length === 0">Nobody has written on a passage yet.</template>
        <template v-else>
          {{ hot.length }} {{ plural(hot.length, 'passage') }} with {{ margin.all.value.length }}
          {{ plural(margin.all.value.length, 'note') }};
          <template v-if="open === 0">no question is without an answer.</template>
          <template v-else>{{ inWords(open) }} {{ plural(open, 'question') }} without an answer.</template>
        </template>
      </p>
      <div class="tools">
        <span role="group" aria-label="Order"
          ><PlainButton
            v-for="[v, l] in [
              ['heat', 'most talk first'],
              ['open', 'open questions'],
              ['text', 'in order of the text'],
            ] as const"
            :key="v"
            :class="{ on: order === v }"
            :aria-pressed="order === v"
            @click="order = v"
          >
            {{ l }}
          </PlainButton></span
        >
        <CheckBox v-model="named">with names</CheckBox>
        <v-btn class="main" :disabled="shown.length === 0" @click="showBig"
          >Show large <KeyHint of="s"
        /></v-btn>
      </div>
    </header>
    <p v-if="passages.length === 0 && hot.length > 0" class="empty">Every question has an answer.</p>
    <ol>
      <li v-for="h in passages" :key="keyOf(h)" :class="{ out: !onPage(h) }">
        <div class="side">
          <b class="num">{{ label(h) }}</b>
          <span class="bar" aria-hidden="true"><i :style="{ width: `${(h.heat / hottest) * 100}%` }" /></span>
          <span class="small">{{ counts(h) }}</span>
          <label class="small"
            ><PlainCheckbox
              :checked="onPage(h)"
              @change="setOnPage(h, ($event.target as HTMLInputElement).checked)"
            />
            show it</label
          >
        </div>
        <div class="what">
          <blockquote>
            <span>… {{ quote(h).before }}</span
            ><mark>{{ quote(h).exact }}</mark
            ><span>{{ quote(h).after }} …</span>
          </blockquote>
          <div v-for="id in h.ids" :key="id" class="said" :class="{ off: left.has(id) }">
            <PlainCheckbox
              :checked="!left.has(id)"
              :aria-label="`Show the note by ${notes.get(id)!.c.author.name}`"
              @change="left.has(id) ? left.delete(id) : left.add(id)"
            />
            <div>
              <span class="by"
                >{{ named ? notes.get(id)!.c.author.name : 'somebody'
                }}<i v-if="notes.get(id)!.c.note.kind === 'question'"> asks</i></span
              >{{ ' '
              }}<ProseText v-if="notes.get(id)!.c.html" class="inline" :html="notes.get(id)!.c.html!" />{{
                ' '
              }}<NuxtLink class="small" :to="`${back}#c-${id}`">{{ answerWords(id) }}</NuxtLink>
            </div>
          </div>
        </div>
      </li>
    </ol>
    <HotPassageShow
      v-if="big && current"
      :where="`${store.view.text?.title}, ${label(current)}`"
      :at="at + 1"
      :of="shown.length"
      :quote="quote(current)"
      :notes="chosenNotes(current).slice(0, 6)"
      :named="named"
      @turn="turn"
      @close="big = false"
    />
  </main>
</template>

<style scoped>
.heat {
  padding: 16px 20px 60px;
  max-width: 1120px;
  margin: 0 auto;
  width: 100%;
}
.head {
  display: flex;
  gap: 14px;
  align-items: baseline;
  font-size: 0.8125rem;
}
h1 {
  font: 600 1.5rem/1.25 var(--read);
  margin: 4px 0 2px;
}
.lead {
  font: 400 0.9375rem/1.5 var(--read);
  color: var(--ink-2);
}
.tools {
  display: flex;
  gap: 10px 22px;
  align-items: center;
  flex-wrap: wrap;
  margin: 10px 0 4px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.tools span {
  display: flex;
  gap: 16px;
}
.tools span button {
  background: none;
  border: 0;
  padding: 5px 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.tools .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
.tools .main {
  margin-left: auto;
}
ol {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 26px;
  padding: 16px 0;
  border-top: 1px solid var(--line);
}
.side {
  display: grid;
  gap: 5px;
  align-content: start;
  color: var(--ink-2);
}
.side b {
  font: 600 0.875rem/1.3 var(--ui);
  color: var(--ink);
}
.bar {
  height: 5px;
  background: var(--line-soft);
  display: block;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--k-reading);
}
blockquote {
  font: 400 1.125rem/1.5 var(--read);
  color: var(--ink-3);
}
blockquote mark {
  background: none;
  color: var(--ink);
  border-bottom: 3px solid var(--k-reading);
}
.out blockquote,
.off {
  opacity: 0.55;
}
.said {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: 4px;
  margin-top: 7px;
  font: 400 0.9375rem/1.45 var(--read);
}
.said .small {
  margin-left: 6px;
  font-family: var(--ui);
}
.by {
  font: 500 0.8125rem/1.4 var(--ui);
  color: var(--ink-2);
  margin-right: 4px;
}
.by i {
  font: italic 500 0.875rem/1 var(--read);
  color: var(--k-reading);
}
.inline,
.inline :deep(p) {
  display: inline;
}
@media (max-width: 760px) {
  .heat {
    padding: 12px 14px 60px;
  }
  li {
    grid-template-columns: 1fr;
    gap: 8px;
  }
  .tools .main {
    margin-left: 0;
  }
}
</style>
