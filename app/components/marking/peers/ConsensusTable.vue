<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { AuthorConsensus } from '#core/marking/peers/consensus'
import type { RubricView } from '#shared/contributing/activity'
import { inWords, plural } from '#core/language'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'

/** What readers gave one work, criterion by criterion, and the marker's own points beside it. */
const props = defineProps<{
  criteria: RubricView['criteria']
  found: AuthorConsensus | undefined
  readers: number
  /** The marker's own points by criterion, hundredths. */
  own: Readonly<Record<string, number>>
  isReturned: boolean
}>()
const emit = defineEmits<{ own: [criterionId: string, points: number | null] }>()
const wrong = reactive(new Set<string>())
function type(c: RubricView['criteria'][number], event: Event) {
  const raw = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  const n = Math.round(Number(raw) * 100)
  const isWrong = raw !== '' && (!Number.isFinite(n) || n < 0 || n > c.max)
  if (isWrong) wrong.add(c.id)
  else {
    wrong.delete(c.id)
    emit('own', c.id, raw === '' ? null : n)
  }
}
const shown = (value: number | null | undefined) => (value == null ? '–' : tenth(value))
const rows = computed(() =>
  props.criteria.map(c => {
    const of = props.found?.criteria.get(c.id)
    return {
      criterion: c,
      mean: shown(of?.mean),
      corrected: shown(of?.corrected),
      hint: of?.median == null ? undefined : `median ${tenth(of.median)}, trimmed ${tenth(of.trimmed!)}`,
      own: props.own[c.id] === undefined ? '' : points(props.own[c.id]!),
    }
  }),
)
const total = computed(() => props.criteria.reduce((sum, c) => sum + c.max * c.weight, 0))
const judged = computed(() => props.criteria.filter(c => props.own[c.id] !== undefined))
const ownTotal = computed(() => {
  if (judged.value.length === 0) return ''
  if (judged.value.length < props.criteria.length) return `${judged.value.length} of ${props.criteria.length}`
  return tenth(props.criteria.reduce((s, c) => s + props.own[c.id]! * c.weight, 0))
})
</script>

<template>
  <table class="num">
    <thead>
      <tr>
        <th>{{ inWords(readers) }} {{ plural(readers, 'reader') }}</th>
        <th>mean</th>
        <th>corrected</th>
        <th>yours</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.criterion.id">
        <td>{{ row.criterion.title }}</td>
        <td>{{ row.mean }}</td>
        <td class="corr" :title="row.hint">{{ row.corrected }}</td>
        <td>
          <LineInput
            class="own"
            inputmode="decimal"
            :value="row.own"
            :aria-label="`Your points for ${row.criterion.title}`"
            :aria-invalid="wrong.has(row.criterion.id)"
            :readonly="isReturned"
            @change="type(row.criterion, $event)"
          />
        </td>
      </tr>
    </tbody>
    <tfoot>
      <tr>
        <td>Total of {{ points(total) }}</td>
        <td>{{ shown(found?.mean) }}</td>
        <td class="corr">{{ shown(found?.corrected) }}</td>
        <td>{{ ownTotal }}</td>
      </tr>
    </tfoot>
  </table>
  <p
    v-for="c in criteria.filter(x => wrong.has(x.id))"
    :key="c.id"
    class="field-problem out-of-range"
    role="alert"
  >
    {{ c.title }} goes from 0 to {{ points(c.max) }}. What you wrote there is not saved.
  </p>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.84375rem;
}
th {
  font: 400 0.75rem/1.2 var(--ui);
  color: var(--ink-3);
  text-align: right;
  padding: 2px 0 5px;
}
th:first-child {
  text-align: left;
}
td {
  text-align: right;
  padding: 4px 0;
  border-top: 1px solid var(--line-soft);
}
td:first-child {
  text-align: left;
}
.corr {
  font-weight: 650;
  color: var(--harbour);
}
tfoot td {
  border-top: 1px solid var(--ink-3);
  font-weight: 650;
}
td:last-child {
  width: 74px;
}
.own {
  width: 54px;
  text-align: right;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  font: 650 0.84375rem/1.3 var(--ui);
  color: var(--ember);
  padding: 1px 2px;
}
.own:focus {
  outline: none;
  border-bottom-color: var(--ember);
  box-shadow: 0 1px 0 var(--ember);
  border-radius: 0;
}
.own[aria-invalid='true'] {
  border-bottom-color: var(--brick);
  color: var(--brick);
}
.own[readonly] {
  border-bottom-color: transparent;
}
</style>
