<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import { MOST_WRITTEN } from '#shared/messaging/messages'
import KindTag from '~/components/planning/KindTag.vue'
import KeyList from '~/components/shell/KeyList.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import LookPicker, { type Look } from '~/components/voices/LookPicker.vue'
import RhythmChart from '~/components/voices/RhythmChart.vue'
import ShareCurve from '~/components/voices/ShareCurve.vue'
import TablePlan from '~/components/voices/TablePlan.vue'
import VoicesTabs from '~/components/voices/VoicesTabs.vue'
import VoicesTable from '~/components/voices/VoicesTable.vue'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useRefreshWhileVisible } from '~/composables/shell/useRefreshWhileVisible'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useLiveLook } from '~/composables/voices/useLiveLook'
import { useSeminarStore } from '~/stores/seminar'
import * as voicesEndpoints from '#shared/voices/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Voices' })
const route = useRoute()
const router = useRouter()
const api = useApi()
const seminar = useSeminarStore()
const { day, dayTime } = useTimes()
const FRESH = 45_000 // milliseconds after which an open page looks again

// what is looked at is in the address, so that going back shows it again; the ribbon narrows it to a week
const queried = (name: string) =>
  typeof route.query[name] === 'string' ? (route.query[name] as string) : undefined
const set = (changes: Record<string, string | undefined>) =>
  router.replace({ query: { ...route.query, ...changes } })
const asked = computed(() => {
  const week = seminar.chosenWeek
  return {
    activity: queried('activity'),
    among: queried('among'),
    kind: queried('kind'),
    section: queried('section'),
    group: queried('group'),
    from: week ? String(week) : queried('from'),
    to: week ? String(week) : queried('to'),
  }
})
const params = { seminarId: String(route.params.seminarId) }
const { data, error, refresh, status } = await useAsyncData(
  `voices-${route.params.seminarId}`,
  () => api.call(voicesEndpoints.readVoices, { params, query: asked.value }),
  { watch: [asked] },
)
const view = computed(() => data.value)
const chosen = ref<string | null>(null)

const refreshIfVisible = useRefreshWhileVisible(() => void refresh(), FRESH)
// what is said while one looks is seen at once in one activity; of the whole seminar one looks again after a while
useLiveLook(() => view.value?.activity?.id ?? null, refreshIfVisible)

const people = computed(() => view.value?.people ?? [])
const silent = computed(() => people.value.filter(p => p.contributions === 0))
const sentence = computed(() => {
  const v = view.value
  if (!v) return ''
  if (people.value.length === 0)
    return v.activity || queried('section') || queried('group')
      ? 'Nobody is meant here.'
      : 'Nobody takes part yet.'
  const all = people.value.length.toLocaleString('en')
  if (v.all.spoke === 0) return `Nobody of ${all} has spoken yet.`
  return `${v.all.spoke.toLocaleString('en')} of ${all} ${v.all.spoke === 1 ? 'has' : 'have'} spoken; half of all words ${v.all.haveHalf === 1 ? 'come from one student' : `come from ${inWords(v.all.haveHalf)} students`}${silent.value.length === 0 ? '.' : ';'}`
})
const silentWords = computed(() =>
  silent.value.length === 0
    ? ''
    : `${inWords(silent.value.length)} ${plural(silent.value.length, 'has', 'have')} said nothing.`,
)
const neglected = computed(() =>
  people.value.filter(p => p.fromMe.gapDays >= (view.value?.gapLimit ?? Infinity)),
)
const names = (list: readonly { readonly givenName: string }[]) => {
  const all = list.slice(0, 6).map(p => p.givenName)
  if (list.length > 6) return `${all.join(', ')} and ${list.length - 6} more`
  if (all.length > 1) return `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
  return all[0] ?? ''
}
const presence = computed(() => {
  const spoken = people.value.filter(p => p.fromMe.acts > 0)
  const acts = spoken.reduce((s, p) => s + p.fromMe.acts, 0)
  const so =
    acts === 0
      ? 'no reply, comment or letter to a single student yet this term'
      : `${inWords(acts)} ${plural(acts, 'reply, comment or letter', 'replies, comments and letters')} to ${spoken.length === people.value.length ? 'all of them' : `${inWords(spoken.length)} ${plural(spoken.length, 'student')}`} this term`
  return neglected.value.length === 0
    ? `${so}.`
    : `${so}; ${inWords(neglected.value.length)} ${plural(neglected.value.length, 'has', 'have')} had nothing from you for ${inWords(view.value!.gapLimit)} days or longer: ${names(neglected.value)}.`
})
const percent = (n: number | null) => (n === null ? '–' : `${Math.round(n * 100)} %`)
const nameOf = (id: string) => people.value.find(p => p.id === id)?.name ?? ''
const linkTo = (e: { readonly activityId: string; readonly id: string }) =>
  `/seminars/${route.params.seminarId}/activities/${e.activityId}#c-${e.id}`
const weeks = computed(() => {
  if (view.value)
    return view.value.from === view.value.to
      ? `week ${view.value.from}`
      : `weeks ${view.value.from}–${view.value.to}`
  return ''
})
const narrowed = computed(
  () => Boolean(seminar.chosenWeek) || Boolean(queried('from')) || Boolean(queried('to')),
)
const several = computed(() =>
  (view.value?.activities ?? []).filter(a => queried('among')?.split(',').includes(a.id)),
)
// what was asked for, not what has come: a second tick must not wait for the first one's figures
const look = computed<Look>(() => ({
  kind: queried('kind') as Look['kind'],
  ids: (queried('activity') ?? queried('among'))?.split(',') ?? [],
}))
const lookAt = ({ kind, ids }: Look) =>
  set({
    kind,
    activity: ids.length === 1 ? ids[0] : undefined,
    among: ids.length > 1 ? ids.join(',') : undefined,
  })
const mayWrite = computed(() => !seminar.shell?.archived)
const writeTo = (ids: readonly string[], about: boolean) =>
  `/seminars/${route.params.seminarId}/messages/write?to=${ids.join(',')}${about && view.value?.activity ? `&activity=${view.value.activity.id}` : ''}`
const circle = computed({
  get: () => {
    if (queried('section')) return `s${queried('section')}`
    if (queried('group')) return `g${queried('group')}`
    return ''
  },
  set: v =>
    void set({
      section: v.startsWith('s') ? v.slice(1) : undefined,
      group: v.startsWith('g') ? v.slice(1) : undefined,
    }),
})
function step(by: number) {
  const ids = people.value.map(p => p.id)
  if (ids.length > 0)
    chosen.value = ids[(Math.max(-1, ids.indexOf(chosen.value ?? '')) + by + ids.length) % ids.length]!
}
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next student', run: () => step(1) },
  { keys: 'k', does: 'the student before', run: () => step(-1) },
  {
    keys: 'Escape',
    does: 'everybody again',
    run: () => {
      chosen.value = null
    },
  },
])
const { listOpen } = useKeys(() => keys.value)
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="voices" :aria-busy="status === 'pending'">
    <header>
      <div class="ways">
        <VoicesTabs />
        <span class="grow" />
        <span class="pick">of <LookPicker :activities="view.activities" :look="look" @look="lookAt" /></span>
        <label v-if="view.sections.length + view.groups.length > 0" class="pick"
          >by
          <select v-model="circle" class="in" aria-label="Whose voices">
            <option value="">everyone</option>
            <optgroup v-if="view.sections.length > 0" label="Sections">
              <option v-for="s in view.sections" :key="s.id" :value="`s${s.id}`">{{ s.title }}</option>
            </optgroup>
            <optgroup v-if="view.groups.length > 0" label="Groups">
              <option v-for="g in view.groups" :key="g.id" :value="`g${g.id}`">{{ g.title }}</option>
            </optgroup>
          </select></label
        >
        <label v-if="!seminar.chosenWeek" class="pick"
          >weeks
          <select
            class="in"
            aria-label="From week"
            :value="view.from"
            @change="
              set({
                from: ($event.target as HTMLSelectElement).value,
                to: String(Math.max(view!.to, Number(($event.target as HTMLSelectElement).value))),
              })
            "
          >
            <option v-for="w in seminar.shell?.weeks ?? []" :key="w.number" :value="w.number">
              {{ w.number }}
            </option></select
          >–<select
            class="in"
            aria-label="To week"
            :value="view.to"
            @change="
              set({
                to: ($event.target as HTMLSelectElement).value,
                from: String(Math.min(view!.from, Number(($event.target as HTMLSelectElement).value))),
              })
            "
          >
            <option v-for="w in seminar.shell?.weeks ?? []" :key="w.number" :value="w.number">
              {{ w.number }}
            </option>
          </select></label
        >
        <button
          v-if="!seminar.chosenWeek && narrowed"
          class="link small"
          type="button"
          @click="set({ from: undefined, to: undefined })"
        >
          all of it
        </button>
      </div>
      <div class="title" :class="{ bare: !view.activity && several.length === 0 }">
        <template v-if="view.activity"
          ><KindTag :kind="view.activity.kind" />
          <h1>{{ view.activity.title }}</h1>
          <span class="muted small"
            >{{ day(view.activity.from) }} to {{ dayTime(view.activity.to) }}</span
          ></template
        >
        <template v-else-if="several.length > 0"
          ><h1>{{ capital(inWords(several.length)) }} activities</h1>
          <span class="muted small these">{{ several.map(a => a.title).join(' · ') }}</span></template
        >
        <h1 v-else class="visually-hidden">Voices, {{ weeks }}</h1>
        <span v-if="view.activity && narrowed" class="small">only {{ weeks }}</span>
      </div>
      <p class="sentence">
        {{ capital(sentence) }} <em v-if="silentWords">{{ silentWords }}</em>
      </p>
      <p v-if="people.length > 0" class="own">
        <b>Your own presence:</b> {{ presence }}
        <NuxtLink
          v-if="neglected.length > 0 && neglected.length <= MOST_WRITTEN && mayWrite"
          :to="
            writeTo(
              neglected.map(p => p.id),
              false,
            )
          "
          >Write to {{ neglected.length === 1 ? neglected[0]!.givenName : 'them, one by one' }}</NuxtLink
        >
      </p>
    </header>
    <div v-if="people.length > 0" class="two">
      <TablePlan :view="view" :chosen="chosen" @choose="chosen = $event" />
      <div class="right">
        <RhythmChart :view="view" />
        <div class="low">
          <section aria-label="Share of voice">
            <div class="pt">
              <h2>Share of voice</h2>
              <span
                v-if="view.all.gini !== null"
                title="Gini coefficient of words: 0 when all say the same, towards 1 when one says all"
                >Gini <b class="num">{{ view.all.gini.toFixed(2) }}</b></span
              >
            </div>
            <ShareCurve
              :words="people.map(p => p.words)"
              :label="`Share of words against share of students; Gini ${view.all.gini?.toFixed(2) ?? 'not known'}`"
            />
            <p class="facts">
              <span
                >found an answer <b class="num">{{ percent(view.all.shareAnswered) }}</b></span
              ><span
                >pairs who answered each other <b class="num">{{ percent(view.all.reciprocity) }}</b></span
              ><span
                >words of those who teach <b class="num">{{ percent(view.all.staffShare) }}</b></span
              >
            </p>
          </section>
          <section aria-label="Most answered">
            <div class="pt">
              <h2>Most answered</h2>
              <span>first words</span>
            </div>
            <ol class="echoes">
              <li v-for="e in view.mostAnswered.slice(0, 3)" :key="e.id">
                <NuxtLink :to="linkTo(e)"
                  ><b>{{ nameOf(e.authorId) }}</b> · answered {{ e.answers }}
                  {{ plural(e.answers, 'time') }} by {{ e.people }}<q>{{ e.words }}</q></NuxtLink
                >
              </li>
            </ol>
            <p v-if="view.mostAnswered.length === 0" class="none">Nobody has answered anybody yet.</p>
            <template v-if="view.unanswered.length > 0"
              ><div class="pt lower"><h2>Waiting longest for an answer</h2></div>
              <ol class="echoes">
                <li v-for="e in view.unanswered.slice(0, 1)" :key="e.id">
                  <NuxtLink :to="linkTo(e)"
                    ><b>{{ nameOf(e.authorId) }}</b> · since {{ day(e.at) }}<q>{{ e.words }}</q></NuxtLink
                  >
                </li>
              </ol></template
            >
          </section>
        </div>
      </div>
    </div>
    <VoicesTable
      v-if="people.length > 0"
      :view="view"
      :chosen="chosen"
      :table="addressOf(voicesEndpoints.downloadVoices, { params, query: asked })"
      :may-write="mayWrite"
      @choose="chosen = $event"
      @write="navigateTo(writeTo($event, true))"
    />
    <p v-else class="invite">
      When students are in and an activity has begun, one sees here who speaks, to whom and when, and who is
      silent.
    </p>
    <p class="foot">
      Counted is what people say to one another: posts, entries, notes, comments, terms and answers. Versions
      of wiki pages are counted in the wiki’s history; reviews without names are not counted. Contact counts
      from 25 words in a reply; comments, answered questions and returned letters always.
      <KeyList v-model="listOpen" :keys="keys" />
    </p>
  </main>
</template>

<style scoped>
.voices {
  flex: 1;
  overflow: auto;
}
header {
  padding: 6px 20px 8px;
  border-bottom: 1px solid var(--line);
}
.ways {
  display: flex;
  gap: 4px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.title {
  display: flex;
  gap: 6px 14px;
  align-items: center;
  flex-wrap: wrap;
  min-height: 30px;
}
h1 {
  font: 600 1.1875rem/1.2 var(--read);
}
.bare {
  min-height: 0;
}
.these {
  min-width: 0;
  overflow-wrap: anywhere;
}
.pick {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.pick .in {
  max-width: 15rem;
  padding: 4px 8px;
  font-size: 0.8125rem;
}
.sentence {
  font: 600 1.0625rem/1.35 var(--read);
  margin-top: 4px;
}
.sentence em {
  font-style: normal;
  color: var(--brick);
}
.own {
  font-size: 0.8125rem;
  line-height: 1.5;
  color: var(--ink-2);
  margin-top: 3px;
  max-width: 120ch;
}
.own b {
  color: var(--ink);
  font-weight: 600;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.04fr) minmax(0, 1fr);
}
.two > :first-child {
  padding: 8px 20px 10px;
  border-right: 1px solid var(--line);
}
.right {
  padding: 8px 20px 8px;
  display: grid;
  align-content: start;
  gap: 8px;
}
.low {
  display: grid;
  grid-template-columns: minmax(0, 0.8fr) minmax(0, 1.2fr);
  gap: 22px;
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
.pt {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.lower {
  margin-top: 6px;
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
h2 {
  font: 600 0.84375rem/1.4 var(--ui);
  color: var(--ink);
}
.facts {
  display: grid;
  font-size: 0.75rem;
  color: var(--ink-2);
  line-height: 1.5;
}
.facts span {
  display: flex;
  justify-content: space-between;
}
.facts b {
  font-weight: 600;
  color: var(--ink);
}
.echoes {
  list-style: none;
  padding: 0;
  margin: 0;
}
.echoes li + li {
  border-top: 1px solid var(--line-soft);
}
.echoes a {
  display: block;
  padding: 4px 0;
  font-size: 0.78125rem;
  color: var(--ink-2);
  text-decoration: none;
}
.echoes a:hover q {
  text-decoration: underline;
}
.echoes b {
  font-weight: 600;
  color: var(--ink);
}
.echoes q {
  display: block;
  font: italic 400 0.875rem/1.35 var(--read);
  color: var(--ink-2);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  quotes: '“' '”';
}
.invite {
  padding: 20px 20px 0;
}
.none,
.foot {
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.foot {
  padding: 10px 20px 24px;
  max-width: 110ch;
  line-height: 1.5;
}
@media (max-width: 1000px) {
  .two,
  .low {
    grid-template-columns: minmax(0, 1fr);
  }
  .two > :first-child {
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
  .ways .grow {
    display: none;
  }
  .ways :deep(.tabs) {
    width: 100%;
  }
}
@media (max-width: 760px) {
  header,
  .right,
  .two > :first-child {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
