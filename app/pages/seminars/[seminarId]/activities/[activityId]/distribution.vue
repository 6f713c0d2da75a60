<script setup lang="ts">
import KindTag from '~/components/planning/KindTag.vue'
import BarChart from '~/components/shell/BarChart.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { capital, inWords } from '#core/language'
import { points } from '~/composables/marking/points'
import { useApi } from '~/composables/shell/useApi'
import * as markingEndpoints from '#shared/marking/endpoints'

/** How the marks of one activity are spread, by points and by criterion, and hints at drift. Nothing here changes a mark. */
definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const { data, error, refresh } = await useAsyncData(`distribution-${route.params.activityId}`, () =>
  api.call(markingEndpoints.readDistribution, { params: { activityId: String(route.params.activityId) } }),
)
useHead({ title: () => (data.value ? `Marks: ${data.value.title}` : 'Marks') })
const desk = (id: string) =>
  `/seminars/${route.params.seminarId}/activities/${route.params.activityId}/desk?student=${id}`
const one = (n: number) => (n / 100).toFixed(1)
const bins = computed(() =>
  data.value!.bins.map((b, i, all) => ({
    label: `${points(b.from)}–${points(i === all.length - 1 ? b.to : Math.max(b.from, b.to - 50))}`,
    n: b.n,
  })),
)
const direction = (m: { first: number; last: number }) => (m.last > m.first ? 'higher' : 'lower')
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf">
    <div class="leaf-head">
      <KindTag :kind="data.kind" />
      <h1>{{ data.title }}: how the marks are spread</h1>
      <span class="grow" /><v-btn :to="`/seminars/${route.params.seminarId}/gradebook`">Gradebook</v-btn
      ><v-btn :to="`/seminars/${route.params.seminarId}/activities/${route.params.activityId}/desk`"
        >Marking desk</v-btn
      >
    </div>
    <p v-if="data.marked === 0" class="invite">
      No mark is whole yet. Once the first are, this page shows how they are spread.
    </p>
    <template v-else>
      <p class="num">
        {{ capital(inWords(data.marked)) }} marked, mean <b>{{ one(data.mean!) }}</b>, median
        <b>{{ one(data.median!) }}</b> of {{ points(data.max) }}.
      </p>
      <div class="spread">
        <section class="wide">
          <h2>Points</h2>
          <BarChart :bars="bins" label="Students by points" unit="students" />
          <details>
            <summary>as a table</summary>
            <table class="rows num">
              <thead>
                <tr>
                  <th>points</th>
                  <th>students</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="b in bins" :key="b.label">
                  <td>{{ b.label }}</td>
                  <td>{{ b.n }}</td>
                </tr>
              </tbody>
            </table>
          </details>
        </section>
        <section v-for="c in data.criteria" :key="c.id">
          <h2>
            <span>{{ c.title }}</span><em class="num"
              >mean {{ c.mean === null ? '–' : one(c.mean) }} of {{ points(c.max) }}</em
            >
          </h2>
          <BarChart
            :bars="c.steps.map(s => ({ label: `${points(s.points)} ${s.title}`, n: s.n }))"
            :label="`Students by step of ${c.title}`"
            unit="students"
            horizontal
            :height="34 + c.steps.length * 30"
          />
          <p class="visually-hidden">{{ c.steps.map(s => `${s.title}: ${s.n}`).join(', ') }}</p>
        </section>
      </div>
      <section class="drift">
        <h2>Worth another look</h2>
        <p v-if="data.drift.length === 0" class="muted">
          Nothing stands out: earlier and later marks lie close together, and alike records got alike steps.
        </p>
        <template v-for="d in data.drift" :key="d.criterion">
          <p v-for="m in d.markers" :key="m.name">
            <b>{{ d.criterion }}.</b> {{ m.name }}’s later marks lie {{ direction(m) }} than the earlier ones:
            from {{ (m.first + 1).toFixed(1) }} to {{ (m.last + 1).toFixed(1) }} steps on average, over
            {{ m.marks }}.
          </p>
          <p v-for="p in d.pairs" :key="p.a.id + p.b.id">
            <b>{{ d.criterion }}.</b> <NuxtLink :to="desk(p.a.id)">{{ p.a.name }}</NuxtLink> and
            <NuxtLink :to="desk(p.b.id)">{{ p.b.name }}</NuxtLink> have records of much the same size and
            stand {{ inWords(p.steps) }} steps apart.
          </p>
        </template>
        <p class="hint">
          Hints rest on the order of marking and on measures of the record (words, contributions, classmates
          answered, passages cited). They change nothing.
        </p>
      </section>
    </template>
  </main>
</template>

<style scoped>
.spread {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(330px, 100%), 1fr));
  gap: 22px 34px;
  margin-top: 14px;
}
.spread > section {
  min-width: 0;
  overflow: hidden;
}
.wide {
  grid-column: 1 / -1;
}
h2 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 10px;
  font-size: 0.9375rem;
  letter-spacing: 0;
}
h2 em {
  font: 500 0.78125rem/1 var(--ui);
  color: var(--ink-3);
}
details {
  font-size: 0.8125rem;
  max-width: 320px;
}
summary {
  cursor: pointer;
  color: var(--harbour);
}
.drift {
  border-top: 1px solid var(--line);
  margin-top: 22px;
  padding-top: 14px;
  display: grid;
  gap: 7px;
  font: 400 0.9375rem/1.5 var(--read);
}
.drift h2 {
  font-family: var(--ui);
}
.drift .hint {
  font-family: var(--ui);
}
</style>
