<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { gradeOf, percentOf } from '#core/marking/gradebook/gradebook'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'
import type { RecordView } from '#shared/marking/desk'
import { categoriesOf, countedOf, calculatedFrom, stateOf } from '#shared/marking/readGradeRow'
import {
  COUNTED_SHORT,
  COUNTED_WORDS,
  cellWords,
  changeWords,
  letterWords,
  shareWords,
} from '~/composables/marking/gradeWords'
import { lateWords } from '~/composables/marking/lateWords'
import { points } from '~/composables/marking/points'
import { useApi } from '~/composables/shell/useApi'
import HistoryList from '../HistoryList.vue'
import SetPoints from '../SetPoints.vue'
import * as markingEndpoints from '#shared/marking/endpoints'
import TextButton from '~/components/controls/TextButton.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** Where a figure comes from: a mark from its steps, lateness and what was set; a final figure from its categories. */
const props = defineProps<{
  book: Gradebook
  row: GradeRow
  column: number
  busy: boolean
  problem: string | null
  deskPath: string
}>()
const emit = defineEmits<{
  set: [points: number | null, reason: string]
  excuse: [excused: boolean, reason: string]
}>()
const api = useApi()
const c = computed(() => (props.column >= 0 ? props.book.columns[props.column]! : null))
const change = computed(() => (c.value ? changeWords(props.row, props.column, c.value) : null))
const counted = computed(() => (props.column >= 0 ? countedOf(props.row, props.column) : null))
const asked = computed(() => `${c.value?.id} ${props.row.enrolmentId}`)
const record = shallowRef<RecordView | null>(null)
const failed = ref<string | null>(null)
watch(
  () => [asked.value, props.row] as const,
  async () => {
    record.value = null
    failed.value = null
    if (!c.value || counted.value === 'notMeant') return
    const mine = asked.value
    try {
      const got = await api.call(markingEndpoints.readRecord, {
        params: { activityId: c.value.id, enrolmentId: props.row.enrolmentId },
      })
      if (mine === asked.value) record.value = got
    } catch (error) {
      failed.value = error instanceof Error ? error.message : String(error)
    }
  },
  { immediate: true },
)
const grade = computed(() => {
  const { items, entries } = calculatedFrom(props.book, props.row)
  return gradeOf(items, entries, categoriesOf(props.book), props.book.grading)
})
const titleOf = (id: string) => props.book.columns.find(x => x.id === id)?.title ?? ''
const category = computed(() => props.book.categories.find(x => x.id === c.value?.categoryId) ?? null)
const excusing = ref(false)
const why = ref('')
function excuse() {
  if (why.value.trim() === '') return
  emit('excuse', true, why.value.trim())
  excusing.value = false
  why.value = ''
}
const steps = computed(
  () =>
    record.value?.rubric?.criteria.map(k => ({
      title: k.title,
      max: k.max,
      weight: k.weight,
      points: record.value!.mark.steps.find(s => s.criterionId === k.id)?.points ?? null,
      out: record.value!.mark.excusedFrom.some(e => e.criterionId === k.id),
    })) ?? [],
)
const weighed = computed(() => steps.value.some(s => s.weight !== 1))
function stepPoints(s: (typeof steps.value)[number]) {
  if (s.out) return 'left out'
  if (s.points === null) return '–'
  return points(s.points)
}
const lateEffect = computed(() => {
  const mark = record.value?.mark
  if (!mark) return ''
  if (mark.lateWaived) return ', counted as on time'
  if (mark.before !== mark.points && !mark.override) return `: ${points(mark.points)} is left`
  return ''
})
</script>

<template>
  <section class="from" aria-label="Where this comes from">
    <h2>{{ row.name }}</h2>
    <template v-if="c">
      <p class="what">{{ c.title }}</p>
      <p class="figure num">
        <b>{{ cellWords(row, column, c) || '–' }}</b><template
          v-if="c.scale === 'points' && row.points[column] !== null"
        >
          of {{ points(c.max) }}</template
        >
      </p>
      <p class="muted">
        It {{ COUNTED_WORDS[counted!]
        }}<template v-if="category && counted === 'counted'"
          >, in {{ category.title }} ({{ category.weight }} %)</template
        >.<template v-if="stateOf(row, column) === 'held'"> Held: the student does not see it yet.</template
        ><template v-if="change !== null">
          It is being changed{{ change === '…' ? '' : ` to ${change}` }}: until that is returned,
          {{ row.givenName }} sees what was returned, and that counts.</template
        ><template v-if="row.set[column] === 'e'"> Their time was extended.</template>
      </p>
      <p v-if="failed" class="field-problem" role="alert">{{ failed }}</p>
      <template v-else-if="record && counted !== 'notMeant'">
        <table v-if="steps.length > 0" class="parts num">
          <tbody>
            <tr v-for="s in steps" :key="s.title">
              <th scope="row">
                {{ s.title }}<em v-if="weighed"> × {{ s.weight }}</em>
              </th>
              <td>{{ stepPoints(s) }}</td>
              <td>of {{ points(s.max) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="steps.length > 0 && record.mark.before !== null" class="num">
          makes <b>{{ points(record.mark.before) }}</b> of {{ points(c.max)
          }}<template v-if="record.mark.criteriaLeft > 0 && !record.mark.override"> so far</template>
        </p>
        <p v-if="record.late" class="num">{{ lateWords(record.late.minutes) }} late{{ lateEffect }}</p>
        <template v-if="book.mayEdit && counted !== 'excused'"
          ><p v-if="c.byHand && c.scale === 'complete'" class="acts">
            <ChipButton
              v-for="done in [true, false]"
              :key="String(done)"
              :class="{ on: record.mark.override?.points === (done ? c.max : 0) }"
              :aria-pressed="record.mark.override?.points === (done ? c.max : 0)"
              :disabled="busy"
              @click="emit('set', done ? c.max : 0, '')"
            >
              {{ done ? 'done' : 'not done' }}
            </ChipButton>
          </p>
          <SetPoints
            v-else-if="c.max > 0"
            :key="asked"
            :override="record.mark.override"
            :calculated="record.mark.before"
            :max="c.max"
            :needs-reason="!c.byHand"
            @set="emit('set', $event?.points ?? null, $event?.reason ?? '')"
        /></template>
        <p v-if="book.mayEdit" class="acts">
          <TextButton v-if="counted === 'excused'" :disabled="busy" @click="emit('excuse', false, '')">
            count it again
          </TextButton>
          <TextButton v-else-if="!excusing" @click="excusing = true"> excuse {{ row.givenName }} </TextButton>
          <NuxtLink class="link" :to="`${deskPath}/${c.id}/desk?student=${row.enrolmentId}`"
            >on the marking desk</NuxtLink
          >
        </p>
        <form v-if="excusing" class="why" @submit.prevent="excuse">
          <LineInput
            v-model="why"
            class="in"
            aria-label="Why"
            placeholder="why it does not count"
            maxlength="500"
            autofocus
          /><TextButton type="submit">excuse</TextButton>
        </form>
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
        <HistoryList
          :activity-id="c.id"
          :enrolment-id="row.enrolmentId"
          :version="record.mark.version + row.counts.charCodeAt(column)"
        />
      </template>
      <p v-else-if="counted !== 'notMeant'" class="hint" role="status">looking it up …</p>
    </template>
    <template v-else>
      <p class="what">Final figure</p>
      <p class="figure num">
        <b>{{ shareWords(row.share) }}</b><template v-if="letterWords(row.share, book.bands)">
          · {{ letterWords(row.share, book.bands) }}</template
        >
      </p>
      <p v-if="book.grading.passPercent !== null && row.share !== null" class="muted">
        {{ percentOf(row.share) >= book.grading.passPercent ? 'Passes' : 'Below the pass mark' }} ({{
          book.grading.passPercent
        }}
        %).
      </p>
      <p v-if="row.share === null" class="muted">Nothing counts yet.</p>
      <p v-else class="muted">
        {{
          grade.weightCounted > 0
            ? `Categories that have anything weigh ${grade.weightCounted} % together; that is taken as the whole.`
            : 'Nothing has a weight, so all points count alike.'
        }}
      </p>
      <details v-for="k in grade.categories" :key="k.id" :open="k.share !== null">
        <summary>
          <span
            >{{ book.categories.find(x => x.id === k.id)!.title }} <em class="num">{{ k.weight }} %</em></span
          ><b class="num">{{ shareWords(k.share) }}</b>
        </summary>
        <table class="parts num">
          <tbody>
            <tr v-for="p in k.parts" :key="p.itemId" :class="p.counted">
              <th scope="row">{{ titleOf(p.itemId) }}</th>
              <td>{{ p.points === null ? '–' : points(p.points) }}</td>
              <td>of {{ points(p.max) }}</td>
              <td class="why-not">
                {{ COUNTED_SHORT[p.counted] }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="k.share !== null" class="sum num">{{ points(k.points) }} of {{ points(k.max) }}</p>
      </details>
      <p v-for="p in grade.outside" :key="p.itemId" class="hint">
        {{ titleOf(p.itemId) }} {{ COUNTED_WORDS[p.counted] }}.
      </p>
    </template>
  </section>
</template>

<style scoped>
.from {
  padding: 14px 20px 24px;
  font-size: 0.8125rem;
  line-height: 1.45;
  display: grid;
  gap: 6px;
  align-content: start;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
.what {
  font-weight: 600;
}
.figure {
  font: 400 1rem/1.2 var(--read);
  color: var(--ink-2);
}
.figure b {
  font: 600 1.75rem/1 var(--read);
  color: var(--ink);
}
.parts {
  border-collapse: collapse;
  width: 100%;
}
.parts th {
  text-align: left;
  font-weight: 500;
  padding: 2px 8px 2px 0;
}
.parts td {
  text-align: right;
  padding: 2px 0 2px 8px;
  white-space: nowrap;
  color: var(--ink-2);
}
.parts td:first-of-type {
  color: var(--ink);
  font-weight: 600;
}
.dropped th,
.dropped td,
.droppedMissing th,
.droppedMissing td,
.excused th,
.practice th {
  color: var(--ink-3);
}
.dropped td:first-of-type,
.droppedMissing td:first-of-type {
  text-decoration: line-through;
}
.why-not {
  font-size: 0.75rem;
}
em {
  font-style: normal;
  color: var(--ink-3);
}
summary {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  cursor: pointer;
  padding: 5px 0 3px;
  border-top: 1px solid var(--line-soft);
  font-weight: 600;
}
.sum {
  text-align: right;
  color: var(--ink-2);
}
.acts {
  display: flex;
  gap: 14px;
}
.why {
  display: flex;
  gap: 8px;
}
.why .in {
  flex: 1;
  padding: 3px 7px;
  font-size: 0.78125rem;
}
</style>
