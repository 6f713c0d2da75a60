<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { gradeOf, percentOf } from '#core/marking/gradebook/gradebook'
import { neededFor, openItems, whatIf } from '#core/marking/gradebook/needed'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { categoriesOf, countedOf, calculatedFrom, stateOf } from '#shared/marking/readGradeRow'
import { cellWords, COUNTED_WORDS, letterWords, shareWords } from '~/composables/marking/gradeWords'
import { capital } from '#core/language'
import { points } from '~/composables/marking/points'
import { useApi } from '~/composables/shell/useApi'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import ChipButton from '~/components/controls/ChipButton.vue'

/** A student's own gradebook: what came back, what it makes, and what could still become of it. Nothing tried here is kept. */
definePageMeta({ layout: 'seminar' })
useHead({ title: 'Grades' })
const route = useRoute()
const api = useApi()
const base = `/seminars/${route.params.seminarId}`
const { data, error, refresh } = await useAsyncData(`grades-${route.params.seminarId}`, () =>
  api.call(gradebookEndpoints.readOwnGrades, { params: { seminarId: String(route.params.seminarId) } }),
)
const parts = computed(() => calculatedFrom(data.value!, data.value!.row))
const cats = computed(() => categoriesOf(data.value!))
const policy = computed(() => data.value!.grading)
const grade = computed(() => gradeOf(parts.value.items, parts.value.entries, cats.value, policy.value))
const trying = ref(false)
const tried = reactive(new Map<string, string>())
const wrong = (id: string, max: number) => {
  const t = tried.get(id)?.trim().replace(',', '.') ?? ''
  const n = Number(t)
  return t !== '' && !(Number.isFinite(n) && n >= 0 && n * 100 <= max)
}
const triedPoints = computed(
  () =>
    new Map(
      [...tried].flatMap(([id, text]) => {
        const c = data.value!.columns.find(x => x.id === id)!
        return text.trim() === '' || wrong(id, c.max)
          ? []
          : [[id, Math.round(Number(text.replace(',', '.')) * 100)] as const]
      }),
    ),
)
const then = computed(() =>
  triedPoints.value.size > 0
    ? whatIf(triedPoints.value, parts.value.items, parts.value.entries, cats.value, policy.value)
    : null,
)
const open = computed(() => new Set(openItems(grade.value)))
const GOALS = computed(
  () =>
    data
      .value!.bands?.filter(b => b.fromPercent > 0)
      .map(b => ({ percent: b.fromPercent, label: `${b.letter} (${b.fromPercent} %)` })) ??
    [90, 80, 70, 60, 50].map(p => ({ percent: p, label: `${p} %` })),
)
const goal = ref<number | null>(null)
const needed = computed(() =>
  goal.value === null
    ? null
    : neededFor(goal.value / 100, parts.value.items, parts.value.entries, cats.value, policy.value, 50),
)
const titleOf = (id: string) => data.value!.columns.find(c => c.id === id)!.title
const columnsIn = (categoryId: string | null) =>
  data
    .value!.columns.map((c, i) => ({ c, i }))
    .filter(
      ({ c, i }) =>
        countedOf(data.value!.row, i) !== 'notMeant' &&
        (categoryId === null
          ? !data.value!.categories.some(k => k.id === c.categoryId)
          : c.categoryId === categoryId),
    )
const shareThen = (id: string) => then.value?.categories.find(c => c.id === id)?.share ?? null
function end() {
  trying.value = false
  tried.clear()
}
function countedWords(i: number) {
  const { row } = data.value!
  const counted = countedOf(row, i)
  if (counted === 'counted') return ''
  if (counted === 'notYet') return stateOf(row, i) === 'work' ? 'being marked' : ''
  return capital(COUNTED_WORDS[counted])
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf">
    <div class="leaf-head">
      <h1>Grades</h1>
      <span class="muted small">what has come back to you, and what it makes</span><span class="grow" /><v-btn
        v-if="data.columns.length > 0 && !trying"
        @click="trying = true"
        >What if …</v-btn
      ><v-btn v-else-if="trying" @click="end">As it is</v-btn>
    </div>
    <p v-if="data.columns.length === 0" class="invite">
      Nothing is graded yet. Marks stand here once the first letter has come back to you.
    </p>
    <div v-else class="two">
      <div>
        <section v-for="k in [...data.categories, null]" :key="k?.id ?? 'none'">
          <template v-if="columnsIn(k?.id ?? null).length > 0">
            <h2>
              <span
                >{{ k?.title ?? 'In no category' }}
                <em v-if="k" class="num"
                  >{{ k.weight }} % of the whole{{
                    k.drop > 0 ? `, without the lowest${k.drop > 1 ? ` ${k.drop}` : ''}` : ''
                  }}</em
                ></span
              ><b v-if="k" class="num"
                ><template
                  v-if="
                    shareThen(k.id) !== null &&
                    shareThen(k.id) !== grade.categories.find(x => x.id === k!.id)!.share
                  "
                  ><s>{{ shareWords(grade.categories.find(x => x.id === k!.id)!.share) }}</s>
                  {{ shareWords(shareThen(k.id)) }}</template
                ><template v-else>{{
                  shareWords(grade.categories.find(x => x.id === k!.id)!.share)
                }}</template></b
              >
            </h2>
            <ul>
              <li v-for="{ c, i } in columnsIn(k?.id ?? null)" :key="c.id" :class="countedOf(data.row, i)">
                <KindTag :kind="c.kind" /><NuxtLink
                  :to="`${base}/activities/${c.id}${stateOf(data.row, i) === 'returned' ? '/letter' : ''}`"
                  >{{ c.title }}</NuxtLink
                >
                <span class="how">{{ countedWords(i) }}</span>
                <label
                  v-if="trying && k && c.max > 0 && !c.practice && countedOf(data.row, i) !== 'excused'"
                  class="try num"
                  ><LineInput
                    class="in"
                    inputmode="decimal"
                    :value="tried.get(c.id) ?? ''"
                    :placeholder="cellWords(data.row, i, c) || '–'"
                    :aria-label="`What if ${c.title} got …, of ${points(c.max)}`"
                    :aria-invalid="wrong(c.id, c.max)"
                    @input="tried.set(c.id, ($event.target as HTMLInputElement).value)"
                  />
                  of {{ points(c.max) }}</label
                >
                <span v-else class="num got"
                  ><b>{{ cellWords(data.row, i, c) || '–' }}</b
                  ><template v-if="c.scale === 'points'"> of {{ points(c.max) }}</template></span
                >
              </li>
            </ul>
          </template>
        </section>
      </div>
      <aside>
        <template v-if="data.grading.showTotal">
          <p class="muted small">{{ then ? 'What it would make' : 'So far' }}</p>
          <p class="total num">
            <b>{{ shareWords(then ? then.share : grade.share) }}</b><template
              v-if="letterWords(then ? then.share : grade.share, data.bands)"
            >
              {{ letterWords(then ? then.share : grade.share, data.bands) }}</template
            >
          </p>
          <p v-if="then" class="muted small">
            instead of {{ shareWords(grade.share) }}. Only tried; nothing is kept.
          </p>
          <p v-else-if="grade.share !== null" class="muted small">
            {{
              grade.weightCounted > 0
                ? `From categories that weigh ${grade.weightCounted} % so far.`
                : 'All points count alike.'
            }}{{
              data.grading.passPercent !== null ? ` The pass mark is ${data.grading.passPercent} %.` : ''
            }}
          </p>
          <section v-if="open.size > 0" class="goal">
            <h2>What is still needed</h2>
            <p class="goals">
              <ChipButton
                v-for="g in GOALS"
                :key="g.percent"
                :class="{ on: goal === g.percent }"
                :aria-pressed="goal === g.percent"
                @click="goal = goal === g.percent ? null : g.percent"
              >
                {{ g.label }}
              </ChipButton>
            </p>
            <template v-if="needed">
              <p v-if="needed.kind === 'already'">You have reached {{ goal }} % already, whatever comes.</p>
              <p v-else-if="needed.kind === 'outOfReach'">
                With full marks in everything open it comes to {{ percentOf(needed.most) }} %.
              </p>
              <template v-else-if="needed.kind === 'needed'"
                ><p>About {{ percentOf(needed.share) }} % of the points in each of what is open:</p>
                <ul class="num">
                  <li v-for="n in needed.items" :key="n.itemId">
                    <span>{{ titleOf(n.itemId) }}</span><b>{{ points(n.points) }}</b>
                  </li>
                </ul></template
              >
            </template>
            <p v-else class="hint">Choose one, and it says what every open activity would have to bring.</p>
          </section>
        </template>
        <p v-else class="muted small">The final figure is told at the end of the term.</p>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 20px 44px;
  align-items: start;
}
section + section {
  margin-top: 16px;
}
h2 {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 0.9375rem;
  border-bottom: 1px solid var(--line);
  padding-bottom: 5px;
  letter-spacing: 0;
}
h2 em {
  font: 500 0.78125rem/1 var(--ui);
  color: var(--ink-3);
  margin-left: 6px;
}
h2 s {
  color: var(--ink-3);
  font-weight: 500;
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--line-soft);
}
li a {
  font: 500 0.9375rem/1.35 var(--read);
  color: var(--ink);
}
.how {
  flex: 1;
  font-size: 0.78125rem;
  color: var(--ink-3);
}
.got {
  color: var(--ink-2);
  font-size: 0.875rem;
}
.got b {
  color: var(--ink);
}
.dropped .got b,
.droppedMissing .got b {
  text-decoration: line-through;
  color: var(--ink-3);
}
.missing .got b {
  color: var(--brick);
}
.try {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.try .in {
  width: 4.5em;
  padding: 3px 7px;
  text-align: right;
}
aside {
  position: sticky;
  top: 0;
}
.total {
  font: 500 1.25rem/1.2 var(--read);
  color: var(--harbour);
}
.total b {
  font: 600 2.25rem/1.1 var(--read);
  color: var(--ink);
}
.goal {
  margin-top: 18px;
  font-size: 0.84375rem;
}
.goal h2 {
  font-size: 0.8125rem;
}
.goals {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 10px 0;
}
.goals .chip {
  padding: 2px 10px;
  font-size: 0.78125rem;
}
.goal li {
  justify-content: space-between;
  flex-wrap: nowrap;
  padding: 4px 0;
}
@media (max-width: 860px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  aside {
    position: static;
    order: -1;
  }
}
</style>
