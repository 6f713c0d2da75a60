<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import { MOST_WRITTEN } from '#shared/messaging/messages'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import type { ActivityFilter } from '~/components/voices/ActivityPicker.vue'
import MostAnswered from '~/components/voices/MostAnswered.vue'
import RhythmChart from '~/components/voices/RhythmChart.vue'
import ShareCurve from '~/components/voices/ShareCurve.vue'
import TablePlan from '~/components/voices/TablePlan.vue'
import VoicesFilter from '~/components/voices/VoicesFilter.vue'
import VoicesTable from '~/components/voices/VoicesTable.vue'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useRefreshWhileVisible } from '~/composables/shell/useRefreshWhileVisible'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useLiveRefresh } from '~/composables/voices/useLiveRefresh'
import { neglectedOf, ownPresenceSentence, spokenSentence } from '~/composables/voices/voicesSentences'
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
useLiveRefresh(() => view.value?.activity?.id ?? null, refreshIfVisible)

const people = computed(() => view.value?.people ?? [])
const silent = computed(() => people.value.filter(p => p.contributions === 0))
const sentence = computed(() =>
  view.value ? spokenSentence(view.value, Boolean(queried('section') ?? queried('group'))) : '',
)
const silentWords = computed(() => {
  const n = silent.value.length
  return n === 0 ? '' : `${inWords(n)} ${plural(n, 'has', 'have')} said nothing.`
})
const neglected = computed(() => (view.value ? neglectedOf(view.value) : []))
const presence = computed(() => (view.value ? ownPresenceSentence(view.value) : ''))
const percent = (n: number | null) => (n === null ? '–' : `${Math.round(n * 100)} %`)
const weeks = computed(() => {
  if (!view.value) return ''
  const { from, to } = view.value
  return from === to ? `week ${from}` : `weeks ${from}–${to}`
})
const narrowed = computed(
  () => Boolean(seminar.chosenWeek) || Boolean(queried('from')) || Boolean(queried('to')),
)
const several = computed(() =>
  (view.value?.activities ?? []).filter(a => queried('among')?.split(',').includes(a.id)),
)
// what was asked for, not what has come: a second tick must not wait for the first one's figures
const activities = computed<ActivityFilter>(() => ({
  kind: queried('kind') as ActivityFilter['kind'], // the server refuses what is no kind
  ids: (queried('activity') ?? queried('among'))?.split(',') ?? [],
}))
const mayWrite = computed(() => !seminar.shell?.archived)
const writeTo = (ids: readonly string[], about: boolean) => {
  const activity = about && view.value?.activity ? `&activity=${view.value.activity.id}` : ''
  return `/seminars/${params.seminarId}/messages/write?to=${ids.join(',')}${activity}`
}
const neglectedTo = computed(() => {
  const ids = neglected.value.map(p => p.id)
  return mayWrite.value && ids.length > 0 && ids.length <= MOST_WRITTEN ? writeTo(ids, false) : null
})
const neglectedWords = computed(() =>
  neglected.value.length === 1 ? `Write to ${neglected.value[0]!.givenName}` : 'Write to them, one by one',
)
const shareLabel = computed(
  () => `Share of words against share of students; Gini ${view.value?.all.gini?.toFixed(2) ?? 'not known'}`,
)
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
useKeys(() => keys.value)
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="voices" :aria-busy="status === 'pending'">
    <header>
      <VoicesFilter
        :view="view"
        :activities="activities"
        :section-id="queried('section')"
        :group-id="queried('group')"
        :narrowed="narrowed"
        @change="set"
      />
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
        <NuxtLink v-if="neglectedTo" :to="neglectedTo">{{ neglectedWords }}</NuxtLink>
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
            <ShareCurve :words="people.map(p => p.words)" :label="shareLabel" />
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
          <MostAnswered :view="view" :seminar-id="params.seminarId" />
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
.invite {
  padding: 20px 20px 0;
}
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
