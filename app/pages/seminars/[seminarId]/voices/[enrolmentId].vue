<script setup lang="ts">
import { ringParts, toGoWords } from '#core/planning/expectationWords'
import { capital, inWords, plural } from '#core/language'
import FillMark from '~/components/marking/FillMark.vue'
import PersonDisc from '~/components/people/PersonDisc.vue'
import ExpectationRing from '~/components/planning/ExpectationRing.vue'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import WordsByWeek from '~/components/voices/WordsByWeek.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { measuresBeside } from '~/composables/voices/measures'
import {
  contactSentence,
  labelledWeeks,
  STANDING_WORDS,
  talkSentence,
} from '~/composables/voices/studentSentences'
import { useSeminarStore } from '~/stores/seminar'
import * as voicesEndpoints from '#shared/voices/endpoints'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const seminar = useSeminarStore()
const { day, date } = useTimes()
const base = computed(() => `/seminars/${route.params.seminarId}`)
const read = () =>
  api.call(voicesEndpoints.readStudent, {
    params: { seminarId: String(route.params.seminarId), enrolmentId: String(route.params.enrolmentId) },
  })
const { data, error, refresh } = await useAsyncData(() => `student-${route.params.enrolmentId}`, read)
const view = computed(() => data.value)
useHead({ title: () => view.value?.voice.name ?? 'Student' })
const v = computed(() => view.value!.voice)
const sentence = computed(() => (view.value ? talkSentence(view.value) : ''))
const contact = computed(() => contactSentence(view.value!, day))
const overdue = computed(() => v.value.fromMe.gapDays >= view.value!.gapLimit || v.value.fromMe.acts === 0)
const weeks = computed(() => labelledWeeks(view.value!))
const activities = computed(() => [...view.value!.activities].reverse())
const asksMore = (a: (typeof activities.value)[number]) => a.checks.length > 0 && a.standing !== 'returned'
const titleOf = (id: string) => view.value?.activities.find(a => a.id === id)?.title ?? ''
const measures = computed(() => measuresBeside(view.value!))
const go = (id: string | null) => {
  if (id) void navigateTo(`${base.value}/voices/${id}`)
}
const keys = computed<Key[]>(() => [
  { keys: 'j', does: 'the next student', run: () => go(view.value?.neighbours.after ?? null) },
  { keys: 'k', does: 'the student before', run: () => go(view.value?.neighbours.before ?? null) },
])
useKeys(() => keys.value)
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="student">
    <header>
      <PersonDisc :initials="v.initials" />
      <div class="who">
        <p class="small">
          <NuxtLink :to="`${base}/voices`">Voices</NuxtLink
          ><span v-if="view.section" class="muted"> · {{ view.section }}</span>
        </p>
        <h1>{{ v.name }}</h1>
      </div>
      <span class="grow" />
      <v-btn
        class="quiet"
        :disabled="!view.neighbours.before"
        aria-label="The student before"
        @click="go(view.neighbours.before)"
        >‹</v-btn
      ><v-btn
        class="quiet"
        :disabled="!view.neighbours.after"
        aria-label="The next student"
        @click="go(view.neighbours.after)"
        >›</v-btn
      >
      <NuxtLink v-if="view.messages > 0" class="small" :to="`${base}/messages?student=${v.id}`"
        >{{ capital(inWords(view.messages)) }} {{ plural(view.messages, 'conversation') }}</NuxtLink
      >
      <v-btn v-if="!seminar.shell?.archived" class="main" :to="`${base}/messages/write?to=${v.id}`"
        >Write to {{ v.givenName }}</v-btn
      >
    </header>
    <p class="sentence">{{ sentence }}</p>
    <p class="contact" :class="{ bad: overdue }">{{ contact }}</p>
    <div class="two">
      <section aria-label="Week by week">
        <h2>Words by week</h2>
        <WordsByWeek :weeks="weeks" :name="v.givenName" />
        <div class="scroll">
          <table class="weeks">
            <thead>
              <tr>
                <th scope="col">week</th>
                <th v-for="w in weeks" :key="w.number" scope="col" class="num">{{ w.label }}</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">contributions</th>
                <td v-for="w in weeks" :key="w.number" class="num">{{ w.contributions }}</td>
              </tr>
              <tr>
                <th scope="row">words</th>
                <td v-for="w in weeks" :key="w.number" class="num">{{ w.words }}</td>
              </tr>
              <tr>
                <th scope="row">usual</th>
                <td v-for="w in weeks" :key="w.number" class="num">{{ Math.round(w.typicalWords) }}</td>
              </tr>
              <tr>
                <th scope="row">from you</th>
                <td v-for="w in weeks" :key="w.number" class="num" :class="{ some: w.contact > 0 }">
                  {{ w.contact }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <h2>What was asked for</h2>
        <ul class="asked">
          <li v-for="a in activities" :key="a.id">
            <ExpectationRing v-if="a.checks.length > 0" :parts="ringParts(a.checks)" figure /><span v-else />
            <div>
              <p>
                <KindTag :kind="a.kind" />{{ ' '
                }}<NuxtLink :to="`${base}/activities/${a.id}`">{{ a.title }}</NuxtLink>
              </p>
              <p class="muted small">
                <template v-if="a.excused">excused</template>
                <template v-else
                  >{{ a.contributions }} {{ plural(a.contributions, 'contribution') }}, {{ a.words }} words{{
                    asksMore(a) ? `; ${toGoWords(a.expectations, a.checks, a.kind)}` : ''
                  }}</template
                >
              </p>
            </div>
            <NuxtLink class="mark" :to="`${base}/activities/${a.id}/desk?student=${v.id}`"
              ><FillMark :standing="a.standing" :named="false" />{{
                a.shown ?? STANDING_WORDS[a.standing]
              }}</NuxtLink
            >
          </li>
        </ul>
        <p v-if="activities.length === 0" class="muted">Nothing has opened yet.</p>
      </section>
      <div class="side">
        <section aria-label="With whom">
          <h2>With whom</h2>
          <div class="pairs">
            <div>
              <p class="muted small">answered</p>
              <ol>
                <li v-for="o in view.answered.slice(0, 8)" :key="o.id">
                  <NuxtLink v-if="!o.isStaff" :to="`${base}/voices/${o.id}`">{{ o.name }}</NuxtLink><span
                    v-else
                    class="staff"
                    >{{ o.name }}</span
                  ><span class="num">{{ o.times }}</span>
                </li>
              </ol>
              <p v-if="view.answered.length === 0" class="muted">nobody yet</p>
            </div>
            <div>
              <p class="muted small">answered by</p>
              <ol>
                <li v-for="o in view.answeredBy.slice(0, 8)" :key="o.id">
                  <NuxtLink v-if="!o.isStaff" :to="`${base}/voices/${o.id}`">{{ o.name }}</NuxtLink><span
                    v-else
                    class="staff"
                    >{{ o.name }}</span
                  ><span class="num">{{ o.times }}</span>
                </li>
              </ol>
              <p v-if="view.answeredBy.length === 0" class="muted">nobody yet</p>
            </div>
          </div>
        </section>
        <section aria-label="Measures">
          <h2>Beside what is usual</h2>
          <table class="measures">
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">measure</span></th>
                <th scope="col">{{ v.givenName }}</th>
                <th scope="col" title="median of everyone">usual</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="m in measures" :key="m.key">
                <th scope="row" :title="m.explained">{{ m.label }}</th>
                <td class="num">{{ m.own }}</td>
                <td class="num muted">{{ m.usual }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section aria-label="Said last">
          <h2>Said last</h2>
          <ol class="latest">
            <li v-for="l in view.latest.slice(0, 6)" :key="l.id">
              <NuxtLink :to="`${base}/activities/${l.activityId}#c-${l.id}`"
                ><span class="muted small"
                  >{{ date(l.at) }}, {{ titleOf(l.activityId) }}{{ l.to ? `, to ${l.to}` : '' }}</span
                ><q>{{ l.words }}</q></NuxtLink
              >
            </li>
          </ol>
          <p v-if="view.latest.length === 0" class="muted">Nothing yet.</p>
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped>
.student {
  flex: 1;
  overflow: auto;
}
header {
  display: flex;
  gap: 6px 12px;
  align-items: center;
  padding: 10px 20px 6px;
  flex-wrap: wrap;
}
header :deep(.disc) {
  width: 40px;
  height: 40px;
  line-height: 40px;
  font-size: 0.875rem;
}
h1 {
  font: 600 1.3125rem/1.2 var(--read);
}
.sentence {
  font: 600 1.0625rem/1.4 var(--read);
  padding: 2px 20px 0;
  max-width: 110ch;
}
.contact {
  padding: 3px 20px 12px;
  font-size: 0.84375rem;
  color: var(--ink-2);
}
.contact.bad {
  color: var(--brick);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  border-top: 1px solid var(--line);
}
.two > section {
  padding: 12px 24px 20px 20px;
  border-right: 1px solid var(--line);
}
.side {
  padding: 12px 20px 20px;
  background: var(--sheet);
  display: grid;
  gap: 18px;
  align-content: start;
}
h2 {
  font: 600 0.84375rem/1.4 var(--ui);
  margin-bottom: 4px;
}
.scroll {
  overflow-x: auto;
  margin-bottom: 18px;
}
table {
  border-collapse: collapse;
  font-size: 0.8125rem;
  width: 100%;
}
th {
  font-weight: 500;
  text-align: left;
  color: var(--ink-2);
  white-space: nowrap;
}
.weeks td,
.weeks thead th:not(:first-child),
.measures td,
.measures thead th {
  text-align: right;
}
.weeks td,
.weeks th {
  padding: 2px 8px 2px 0;
}
.some {
  color: var(--harbour);
  font-weight: 650;
}
ul,
ol {
  list-style: none;
}
.asked li {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 0 12px;
  align-items: start;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
.asked a:not(.mark) {
  font: 600 0.96875rem/1.35 var(--read);
}
.mark {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
  text-decoration: none;
  white-space: nowrap;
}
.mark:hover {
  color: var(--ink);
  text-decoration: underline;
}
.pairs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 22px;
}
.pairs li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font-size: 0.8125rem;
  line-height: 2;
}
.pairs a {
  display: block;
}
.staff {
  color: var(--ember);
  font-weight: 600;
}
.measures th[scope='row'] {
  font-weight: 400;
  color: var(--ink);
  padding: 3px 0;
  border-top: 1px solid var(--line-soft);
}
.measures td {
  border-top: 1px solid var(--line-soft);
  padding: 3px 0 3px 14px;
  white-space: nowrap;
}
.latest li + li {
  border-top: 1px solid var(--line-soft);
}
.latest a {
  display: block;
  padding: 6px 0;
  text-decoration: none;
  color: var(--ink);
}
.latest q {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  font: italic 400 0.90625rem/1.4 var(--read);
  quotes: '“' '”';
}
.latest a:hover q {
  text-decoration: underline;
}
.foot {
  padding: 10px 20px 24px;
  font-size: 0.78125rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .two > section {
    border-right: 0;
    padding: 12px 14px;
  }
  .side,
  header {
    padding: 12px 14px;
  }
  .sentence,
  .contact {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
