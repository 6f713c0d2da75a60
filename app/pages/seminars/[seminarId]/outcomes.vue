<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { addressOf } from '#shared/http/endpoint'
import { plural } from '#core/language'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import * as markingEndpoints from '#shared/marking/endpoints'

/** How far the outcomes are reached: by outcome, criterion and section, and by whom. */
definePageMeta({ layout: 'seminar' })
useHead({ title: 'Outcomes' })
const route = useRoute()
const router = useRouter()
const api = useApi()
const params = { seminarId: String(route.params.seminarId) }
const from = computed(() => (typeof route.query.from === 'string' ? route.query.from : ''))
const { data, error, refresh } = await useAsyncData(
  `outcomes-${route.params.seminarId}`,
  () => api.call(markingEndpoints.readOutcomes, { params, query: { from: from.value } }),
  { watch: [from] },
)
const percent = (n: number | null) => (n === null ? '–' : `${Math.round(n * 100)} %`)
const share = (r: { judged: number; above: number }) => (r.judged === 0 ? 0 : (r.above / r.judged) * 100)
const table = (by: 'criterion' | 'student') =>
  addressOf(markingEndpoints.downloadOutcomes, { params, query: { by, from: from.value } })
const set = (value: string) => {
  const n = Number(value)
  if (n >= 1 && n <= 100) void router.replace({ query: { from: String(Math.round(n)) } })
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf outcomes">
    <div class="leaf-head">
      <h1>Outcomes</h1>
      <label class="muted"
        >reached from
        <LineInput
          class="in short"
          type="number"
          min="1"
          max="100"
          :value="data.from"
          aria-label="Percent of the points from which an outcome is reached"
          @change="set(($event.target as HTMLInputElement).value)"
        />
        % of the points</label
      ><span class="grow" /><a :href="table('criterion')" download>Export by criterion</a
      ><a :href="table('student')" download>Export by student</a
      ><v-btn :to="`/seminars/${route.params.seminarId}/gradebook`">Gradebook</v-btn>
    </div>
    <p v-if="data.outcomes.length === 0" class="invite">
      No outcomes are set for this seminar. Write or import them in the
      <NuxtLink :to="`/seminars/${route.params.seminarId}/library`">library</NuxtLink> and link criteria of
      rubrics to them; then this page shows how far they are reached.
    </p>
    <article v-for="o in data.outcomes" :key="o.id">
      <h2>
        <span class="code">{{ o.code }}</span>{{ o.statement
        }}<span v-if="o.retired" class="hint"> · retired</span>
      </h2>
      <p v-if="o.judged === 0" class="muted">Nothing returned so far is evidence of it.</p>
      <template v-else>
        <p class="sum">
          <b class="num">{{ o.above }}</b> of {{ o.judged }} {{ plural(o.judged, 'student') }} judged
          {{ plural(o.above, 'reaches', 'reach') }} it<template v-if="o.below > 0"
            >, <em class="num">{{ o.below }} not yet</em></template
          >; {{ percent(o.mean) }} of the points on average.
        </p>
        <div class="scroll">
          <table class="rows">
            <thead>
              <tr>
                <th>evidence</th>
                <th class="bar"><span class="visually-hidden">share who reach it</span></th>
                <th class="num">reached</th>
                <th class="num">not yet</th>
                <th class="num">mean</th>
                <th v-for="s in o.sections" :key="s.title" class="num">{{ s.title }}</th>
              </tr>
            </thead>
            <tbody>
              <tr class="all">
                <th scope="row">all of it</th>
                <td class="bar"><i :style="{ width: `${share(o)}%` }" /></td>
                <td class="num">{{ o.above }}</td>
                <td class="num">{{ o.below }}</td>
                <td class="num">{{ percent(o.mean) }}</td>
                <td v-for="s in o.sections" :key="s.title" class="num">{{ s.above }} of {{ s.judged }}</td>
              </tr>
              <tr v-for="c in o.criteria" :key="c.activityId + c.criterion">
                <th scope="row">
                  <KindTag :kind="c.kind" />{{ ' '
                  }}<NuxtLink
                    :to="`/seminars/${route.params.seminarId}/activities/${c.activityId}/distribution`"
                    >{{ c.activity }}</NuxtLink
                  >, {{ c.criterion }}
                </th>
                <td class="bar"><i :style="{ width: `${share(c)}%` }" /></td>
                <td class="num">{{ c.above }}</td>
                <td class="num">{{ c.below }}</td>
                <td class="num">{{ percent(c.mean) }}</td>
                <td v-for="s in o.sections" :key="s.title" class="num">
                  {{ c.sections.find(x => x.sectionId === s.sectionId)?.above ?? 0 }} of
                  {{ c.sections.find(x => x.sectionId === s.sectionId)?.judged ?? 0 }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <details>
          <summary>Who</summary>
          <div class="who">
            <section>
              <h3>not yet</h3>
              <ul>
                <li v-for="p in o.people.filter(x => !x.above)" :key="p.id">
                  <NuxtLink :to="`/seminars/${route.params.seminarId}/voices/${p.id}`">{{
                    p.name
                  }}</NuxtLink><span class="num">{{ p.percent }} %</span>
                </li>
              </ul>
              <p v-if="o.below === 0" class="muted">nobody</p>
            </section>
            <section>
              <h3>reached</h3>
              <ul>
                <li v-for="p in o.people.filter(x => x.above)" :key="p.id">
                  <NuxtLink :to="`/seminars/${route.params.seminarId}/voices/${p.id}`">{{
                    p.name
                  }}</NuxtLink><span class="num">{{ p.percent }} %</span>
                </li>
              </ul>
            </section>
          </div>
        </details>
      </template>
      <p class="hint">CASE {{ o.identifier }}</p>
    </article>
    <p class="hint">
      Counted are steps of returned marks; practice, withdrawn students and criteria a member is left out of
      are not.<template v-if="data.without > 0">
        {{ data.without }} judged criteria are aligned with no outcome.</template
      >
    </p>
  </main>
</template>

<style scoped>
.outcomes {
  overflow: auto;
  flex: 1;
}
article {
  border-top: 1px solid var(--line);
  padding: 14px 0 16px;
}
h2 {
  font: 600 1.0625rem/1.4 var(--read);
  max-width: 80ch;
}
.code {
  font: 650 0.78125rem/1 var(--ui);
  color: var(--ember);
  margin-right: 10px;
}
.sum {
  margin: 4px 0 8px;
}
.sum em {
  font-style: normal;
  color: var(--brick);
}
.scroll {
  overflow-x: auto;
}
.rows th[scope='row'] {
  border-bottom-color: var(--line-soft);
  font-weight: 400;
  font-size: 0.84375rem;
  color: var(--ink);
  white-space: normal;
}
.rows .num {
  text-align: right;
  white-space: nowrap;
}
.rows .all th[scope='row'],
.all td {
  font-weight: 600;
}
.bar {
  width: 150px;
}
.bar i {
  display: block;
  height: 8px;
  border-radius: 2px;
  background: var(--harbour);
  min-width: 1px;
}
td.bar {
  vertical-align: middle;
}
td.bar::before {
  content: none;
}
details {
  margin-top: 6px;
  font-size: 0.84375rem;
}
summary {
  cursor: pointer;
  color: var(--harbour);
}
.who {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 30px;
  max-width: 640px;
  margin-top: 6px;
}
h3 {
  font: 600 0.78125rem/1.4 var(--ui);
  color: var(--ink-2);
}
ul {
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  line-height: 1.7;
}
.hint {
  margin-top: 8px;
}
@media (max-width: 760px) {
  .bar {
    display: none;
  }
}
</style>
