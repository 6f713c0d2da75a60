<script setup lang="ts">
import type { WeekItem } from '#shared/planning/myWeek'
import FillMark from '~/components/marking/FillMark.vue'
import ExpectationRing from '~/components/planning/ExpectationRing.vue'
import KindTag from '~/components/planning/KindTag.vue'
import TermSpread from '~/components/planning/TermSpread.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { ringParts, ruleWords, toGoWords } from '#core/planning/expectationWords'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import * as planningEndpoints from '#shared/planning/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Progress' })
const route = useRoute()
const seminar = useSeminarStore()
const api = useApi()
const { day, dayTime } = useTimes()
const {
  data: week,
  error,
  refresh,
} = await useAsyncData(`progress-${route.params.seminarId}`, () =>
  api.call(planningEndpoints.readOwnWeek, { params: { seminarId: String(route.params.seminarId) } }),
)
const address = (id: string) => `/seminars/${route.params.seminarId}/activities/${id}`
/** Everything of the term so far, as it was opened: done, open and late alike. */
const items = computed(() => {
  const w = week.value
  if (!w) return []
  const all = [...w.due, ...w.late, ...w.done]
  return all
    .filter(i => seminar.inChosenWeek(i.opensAt, i.dueAt))
    .sort((a, b) => a.opensAt.localeCompare(b.opensAt))
})
const STANDS: Readonly<Record<WeekItem['standing'], string>> = {
  nothing: 'nothing yet',
  underWay: 'under way',
  ready: 'all in',
  held: 'all in',
  returned: 'returned',
}
const letterOf = (i: WeekItem) => week.value?.letters.find(l => l.activityId === i.activityId) ?? null
const isLate = (i: WeekItem) => week.value?.late.some(l => l.activityId === i.activityId) ?? false
const sentence = computed(() => {
  const met = items.value.filter(
    i => i.checks.length > 0 && i.checks.every(c => c.met || c.toGoNow === 0),
  ).length
  const asked = items.value.filter(i => i.checks.length > 0).length
  return asked === 0
    ? 'Nothing has been asked for yet.'
    : `${capital(inWords(met))} of ${inWords(asked)} ${plural(asked, 'activity', 'activities')} ${met === 1 ? 'has' : 'have'} all that was asked for up to now.`
})
</script>

<template>
  <ProblemPage v-if="error || !week" :sentence="error?.message ?? ''" @retry="refresh()" />
  <TermSpread v-else title="Progress" :sentence="sentence" :week="week">
    <ol>
      <li v-for="i in items" :key="i.activityId">
        <ExpectationRing v-if="i.checks.length > 0" :parts="ringParts(i.checks)" figure /><span
          v-else
          class="free"
        />
        <div>
          <p class="head">
            <KindTag :kind="i.kind" /> <NuxtLink :to="address(i.activityId)">{{ i.title }}</NuxtLink>
          </p>
          <ul v-if="i.checks.length > 0">
            <li v-for="(c, n) in i.checks" :key="c.expectationId" :class="{ met: c.met }">
              <span aria-hidden="true">{{ c.met ? '✓' : '·' }}</span>
              {{ ruleWords(i.expectations[n]!.rule, i.kind)
              }}<span class="num">, {{ c.have }} of {{ c.need }}</span
              ><template v-if="c.met && c.metAt">, {{ c.late ? 'late, ' : '' }}{{ day(c.metAt) }}</template>
            </li>
          </ul>
          <p v-if="isLate(i)" class="late">
            closed {{ dayTime(i.dueAt) }}; {{ toGoWords(i.expectations, i.checks, i.kind) }}
          </p>
        </div>
        <p class="state">
          <NuxtLink v-if="letterOf(i)" :to="`${address(i.activityId)}/letter`"
            ><b class="num">{{ points(letterOf(i)!.points) }}</b> of {{ points(letterOf(i)!.max) }}</NuxtLink
          ><span class="stand"
            ><FillMark :standing="i.standing" :named="false" />{{ STANDS[i.standing] }}</span
          >
        </p>
      </li>
    </ol>
    <p v-if="items.length === 0" class="empty">
      Nothing has opened yet. Each activity stands here with what it asks for and how far you are.
    </p>
  </TermSpread>
</template>

<style scoped>
ol,
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
ol > li {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 0 14px;
  padding: 11px 0;
  border-top: 1px solid var(--line-soft);
  align-items: start;
}
.head {
  display: flex;
  gap: 4px 10px;
  flex-wrap: wrap;
  align-items: baseline;
}
.head a {
  font: 600 1rem/1.35 var(--read);
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 1px 18px;
  margin-top: 3px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.met {
  color: var(--ink);
}
.met > span:first-child {
  color: var(--moss);
  font-weight: 700;
}
.late {
  font-size: 0.8125rem;
  color: var(--brick);
  margin-top: 2px;
}
.state {
  display: grid;
  justify-items: end;
  gap: 2px;
  font-size: 0.8125rem;
  white-space: nowrap;
}
.stand {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
}
.empty {
  padding: 20px 0;
  color: var(--ink-2);
  font: 400 0.9375rem/1.5 var(--read);
}
@media (max-width: 560px) {
  ol > li {
    grid-template-columns: 34px minmax(0, 1fr);
  }
  .state {
    grid-column: 2;
    justify-items: start;
  }
}
</style>
