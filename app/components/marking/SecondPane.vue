<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import type { RubricView } from '#shared/contributing/activity'
import type { SecondView, Step } from '#shared/marking/desk'
import { listed } from '#core/language'
import { points } from '~/composables/marking/points'
import ChipButton from '~/components/controls/ChipButton.vue'

/** Two markings of one record: made apart, then side by side, then agreed on. */
const props = defineProps<{
  second: SecondView
  first: readonly Step[]
  rubric: RubricView
  firstBy: string
  busy: boolean
}>()
const emit = defineEmits<{ remark: [text: string]; handOver: []; agree: [steps: Step[]] }>()
const own = reactive(new Map<string, 'first' | 'second'>()) // criteria on which a choice was made
const row = (criterionId: string, steps: readonly Step[]) => {
  const step = steps.find(s => s.criterionId === criterionId)
  const level = props.rubric.criteria
    .find(c => c.id === criterionId)
    ?.levels.find(l => l.id === step?.levelId)
  return step && level ? { points: step.points, title: level.title, step } : null
}
const rows = computed(() =>
  props.rubric.criteria.map(c => {
    const [a, b] = [row(c.id, props.first), row(c.id, props.second.steps)]
    return { id: c.id, title: c.title, max: c.max, a, b, differ: a?.points !== b?.points }
  }),
)
const differing = computed(() => rows.value.filter(r => r.differ))
const chosen = computed(() =>
  rows.value.map(r => {
    if (r.differ) {
      if (own.get(r.id) === 'second') return r.b
      if (own.get(r.id) === 'first') return r.a
      return null
    }
    return r.a
  }),
)
const settled = computed(() => chosen.value.every(Boolean))
function sidePoints(side: 'first' | 'second', r: (typeof differing.value)[number]) {
  if (side === 'first' ? r.a : r.b) return points((side === 'first' ? r.a : r.b)!.points)
  return '—'
}
const agreeVerb = computed(() => {
  if (differing.value.length === 0) return 'Agreed'
  if (settled.value) return 'Agree on these'
  return 'Choose for each, then agree'
})
</script>

<template>
  <section v-if="second.isMine && second.state === 'asked'" class="second" aria-label="Second marking">
    <p><b>You mark this a second time.</b> The first marking is not shown until you hand yours over.</p>
    <LinesInput
      class="in"
      rows="2"
      :value="second.remark"
      aria-label="A remark for the first marker"
      placeholder="a remark for the first marker"
      @change="emit('remark', ($event.target as HTMLTextAreaElement).value)"
    />
    <v-btn
      class="main"
      :disabled="busy || second.steps.length < rubric.criteria.length"
      @click="emit('handOver')"
      >Hand over <kbd>Ctrl ↵</kbd></v-btn
    >
  </section>
  <section v-else class="second" aria-label="Second marking">
    <p v-if="second.state === 'agreed'">
      <b>{{ second.isMine ? 'You' : second.marker }}</b> marked this a second time; the markers have agreed.
    </p>
    <template v-else>
      <p>
        <b>{{ second.isMine ? 'Your marking' : second.marker }}</b>
        {{
          differing.length === 0
            ? 'comes to the same on every criterion.'
            : `differs on ${listed(differing.map(d => d.title.toLowerCase()))}.`
        }}
      </p>
      <table v-if="differing.length > 0">
        <thead>
          <tr>
            <th scope="col">criterion</th>
            <th scope="col">{{ firstBy }}</th>
            <th scope="col">{{ second.isMine ? 'you' : second.marker.split(' ')[0] }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in differing" :key="r.id">
            <th scope="row">{{ r.title }}</th>
            <td v-for="side in ['first', 'second'] as const" :key="side">
              <ChipButton
                class="num"
                :class="{ on: own.get(r.id) === side }"
                :aria-pressed="own.get(r.id) === side"
                :disabled="!(side === 'first' ? r.a : r.b)"
                @click="own.set(r.id, side)"
              >
                {{ sidePoints(side, r) }}
              </ChipButton>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="second.remark" class="remark">“{{ second.remark }}”</p>
      <v-btn
        :disabled="busy || !settled"
        @click="
          emit(
            'agree',
            chosen.flatMap(c => (c ? [c.step] : [])),
          )
        "
        >{{ agreeVerb }}</v-btn
      >
    </template>
  </section>
</template>

<style scoped>
.second {
  background: var(--ember-soft);
  padding: 10px 24px 12px;
  font-size: 0.8125rem;
  display: grid;
  gap: 8px;
  justify-items: start;
}
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 2px 16px 2px 0;
}
td {
  padding: 2px 10px 2px 0;
}
.chip {
  padding: 2px 12px;
}
textarea {
  width: 100%;
}
.remark {
  font: italic 400 0.875rem/1.4 var(--read);
}
</style>
