<script setup lang="ts">
import TermOfTheDay from '~/kinds/lexicon/TermOfTheDay.vue'
import type { MyWeek } from '#shared/planning/myWeek'
import StepBars from '~/components/marking/StepBars.vue'
import KindTag from '~/components/planning/KindTag.vue'
import TermSpread from '~/components/planning/TermSpread.vue'
import WorkStop from '~/components/planning/WorkStop.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { minutesWords, toGoWords } from '#core/planning/expectationWords'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import * as planningEndpoints from '#shared/planning/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'My week' })
const route = useRoute()
const seminar = useSeminarStore()
const api = useApi()
const { day, date, time, weekday, longDay, dayTime, now } = useTimes()
const {
  data: week,
  error,
  refresh,
} = await useAsyncData(`week-${route.params.seminarId}`, () =>
  api.call(planningEndpoints.readOwnWeek, { params: { seminarId: String(route.params.seminarId) } }),
)

type Item = MyWeek['due'][number]
const due = computed(() => (week.value?.due ?? []).filter(i => seminar.inChosenWeek(i.opensAt, i.dueAt)))
const coming = computed(() =>
  (week.value?.coming ?? []).filter(i => seminar.inChosenWeek(i.opensAt, i.dueAt)),
)
/** Open work by the day it is due. */
const days = computed(() => {
  const byDay = new Map<string, Item[]>()
  for (const item of due.value) byDay.set(day(item.dueAt), [...(byDay.get(day(item.dueAt)) ?? []), item])
  return [...byDay.values()]
})
/** What is still to do of what falls in this week, or in the one chosen. */
const thisWeek = computed(() =>
  seminar.shell?.weeks.find(w => w.number === (seminar.chosenWeek ?? seminar.shell?.week)),
)
const unfinished = computed(() =>
  due.value.filter(
    i => i.checks.some(c => !c.met && c.toGoNow > 0) && (!thisWeek.value || i.dueAt < thisWeek.value.endsAt),
  ),
)
const greeting = computed(() => {
  const n = unfinished.value.length
  if (n === 0)
    return due.value.length > 0
      ? 'Everything that is due is in. Read on, if you like.'
      : 'Nothing is due this week.'
  const minutes = unfinished.value.reduce((m, i) => m + i.minutes, 0)
  const by = weekday(unfinished.value.at(-1)!.dueAt)
  return `${capital(inWords(n))} ${plural(n, 'thing')} to finish by ${by}, ${minutesWords(minutes)} in all.`
})
/** What is due within a day and a half and not begun. */
const SOON = 36 * 3_600_000
const atRisk = computed(() =>
  due.value.filter(
    i =>
      i.standing === 'nothing' &&
      i.checks.some(c => c.toGoNow > 0) &&
      Date.parse(i.dueAt) - now.value.getTime() < SOON,
  ),
)
const letter = computed(() => week.value?.letters[0])
const opening = computed(() => letter.value?.html.split('</p>').slice(0, 2).join('</p>') + '</p>')
const address = (id: string) => `/seminars/${route.params.seminarId}/activities/${id}`
const pageOf = (item: Item) => address(item.activityId)
const whenWords = (at: string) =>
  day(at) === day(new Date(now.value.getTime() + 86_400_000))
    ? `tomorrow, ${time(at)}`
    : `${date(at)}, ${time(at)}`
</script>

<template>
  <ProblemPage v-if="error || !week" :sentence="error?.message ?? ''" @retry="refresh()" />
  <TermSpread v-else :title="longDay(now).replace(' ', ', ')" :sentence="greeting" :week="week">
    <div class="trip">
      <section v-for="(items, i) in days" :key="items[0]!.dueAt" class="day" :class="{ first: i === 0 }">
        <div class="d">
          <h2>{{ weekday(items[0]!.dueAt) }}</h2>
          <p>{{ whenWords(items[0]!.dueAt) }}</p>
        </div>
        <div>
          <WorkStop
            v-for="item in items"
            :key="item.activityId"
            :item="item"
            :address="pageOf(item)"
            :first="i === 0"
          />
        </div>
      </section>
      <section v-if="coming.length > 0" class="day far">
        <div class="d">
          <h2>Coming</h2>
          <p>from {{ day(coming[0]!.opensAt) }}</p>
        </div>
        <div>
          <WorkStop
            v-for="item in coming"
            :key="item.activityId"
            :item="item"
            :address="null"
            :first="false"
            coming
          />
        </div>
      </section>
      <p v-if="days.length === 0 && coming.length === 0" class="empty">
        Nothing falls in this week. Work that is open appears here under the day it is due, with a ring that
        fills as you write.
      </p>
    </div>
    <div v-if="week.late.length > 0 || atRisk.length > 0 || week.closing.length > 0" class="risk">
      <template v-for="c in week.closing" :key="c.activityId"
        ><b class="soon">Asked</b
        ><span
          >{{ capital(inWords(c.questions)) }} {{ plural(c.questions, 'question') }} about “{{ c.title }}”,
          until {{ dayTime(c.closesAt) }}{{ c.named ? '' : '; names are not kept' }}.</span
        ><NuxtLink :to="`${address(c.activityId)}/closing`">Answer</NuxtLink></template
      >
      <template v-for="item in atRisk" :key="item.activityId"
        ><b class="soon">Soon</b
        ><span
          >{{ item.title }} is due {{ dayTime(item.dueAt) }} and not begun; it takes
          {{ minutesWords(item.minutes) }}.</span
        ><NuxtLink :to="address(item.activityId)">Begin it</NuxtLink></template
      >
      <template v-for="item in week.late" :key="item.activityId"
        ><b>Late</b
        ><span
          >{{ item.title }} closed {{ dayTime(item.dueAt) }};
          {{ toGoWords(item.expectations, item.checks, item.kind) }}. It can still be added, and counts as
          late.</span
        ><NuxtLink :to="address(item.activityId)">Write it now</NuxtLink></template
      >
    </div>
    <section v-if="letter" class="back">
      <div class="bh">
        <h2>Come back to you</h2>
        <KindTag :kind="letter.kind" /><span class="small">{{ letter.title }}</span
        ><span class="small muted when">returned {{ dayTime(letter.returnedAt) }}</span>
      </div>
      <div class="letter">
        <div class="say">
          <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was returned -->
          <div class="prose" dir="auto" v-html="opening" />
          <v-btn :to="`${address(letter.activityId)}/letter`">Read the whole letter</v-btn>
        </div>
        <div class="judged">
          <StepBars :criteria="letter.criteria" />
          <p class="sum num">
            <b>{{ points(letter.points) }}</b> of {{ points(letter.max) }}, {{ letter.rubric }}
          </p>
        </div>
      </div>
    </section>
    <TermOfTheDay />
  </TermSpread>
</template>

<style scoped>
.trip {
  position: relative;
  margin-top: 2px;
}
.trip::before {
  content: '';
  position: absolute;
  left: 124px;
  top: 10px;
  bottom: 0;
  border-left: 1.5px solid var(--spine);
}
.day {
  display: grid;
  grid-template-columns: 112px 1fr;
  gap: 0 34px;
  position: relative;
  padding: 10px 0 5px;
}
.day::before {
  content: '';
  position: absolute;
  left: 118px;
  top: 17px;
  width: 13px;
  height: 13px;
  border-radius: 50%;
  background: var(--paper);
  border: 2px solid var(--harbour);
}
.first::before {
  background: var(--ember);
  border-color: var(--ember);
}
.far::before {
  border-color: var(--ink-3);
}
.d {
  text-align: right;
  padding-right: 8px;
}
.d h2 {
  font: 600 1.125rem/1.25 var(--read);
}
.d p {
  font-size: 0.78125rem;
  line-height: 17px;
  color: var(--ink-3);
}
.empty {
  padding: 20px 0 20px 146px;
  color: var(--ink-2);
  font: 400 0.9375rem/1.5 var(--read);
}
.risk {
  display: grid;
  grid-template-columns: 112px 1fr auto;
  gap: 5px 34px;
  padding: 9px 0;
  font-size: 0.84375rem;
  border: solid var(--line);
  border-width: 1px 0;
  margin-top: 10px;
}
.risk b {
  text-align: right;
  font-weight: 650;
  padding-right: 8px;
  color: var(--brick);
}
.risk .soon {
  color: var(--ember);
}
.back {
  margin-top: 18px;
}
.bh {
  display: flex;
  align-items: baseline;
  gap: 4px 12px;
  flex-wrap: wrap;
}
.bh h2 {
  font: 600 1.125rem/1.25 var(--read);
}
.when {
  margin-left: auto;
}
.letter {
  display: grid;
  grid-template-columns: 1fr 262px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  margin-top: 9px;
}
.say {
  padding: 14px 20px 16px;
  display: grid;
  gap: 12px;
  justify-items: start;
  align-content: space-between;
}
.judged {
  padding: 13px 18px;
  border-left: 1px solid var(--line-soft);
}
.sum {
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin-top: 9px;
}
.sum b {
  font: 600 1.0625rem/1 var(--read);
  color: var(--ink);
}
@media (max-width: 620px) {
  .trip::before,
  .day::before {
    display: none;
  }
  .day,
  .risk {
    grid-template-columns: 1fr;
    gap: 4px;
  }
  .d {
    text-align: left;
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  .risk b {
    text-align: left;
  }
  .empty {
    padding-left: 0;
  }
  .letter {
    grid-template-columns: 1fr;
  }
  .judged {
    border-left: 0;
    border-top: 1px solid var(--line-soft);
  }
}
</style>
