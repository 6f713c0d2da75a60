<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import type { AuthorConsensus } from '#core/marking/peers/consensus'
import type { ReviewingParts } from '#core/marking/peers/reviewingMark'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { RubricView } from '#shared/contributing/activity'
import type { RecordView } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { agreementSentence, tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'

/** What readers agree on, beside the marker's own figures; taking it, the letter, the note, and the student's own reviewing. */
const props = defineProps<{
  criteria: RubricView['criteria']
  found: AuthorConsensus | undefined
  readers: number
  own: Readonly<Record<string, number>>
  record: RecordView | null
  takenFrom: 'consensus' | null
  takes: number | null
  worth: number
  alpha: number | null
  works: number
  reviewing: {
    readonly owed: number
    readonly done: number
    readonly helpful: readonly number[]
    readonly share: number | null
    readonly parts: ReviewingParts
  } | null
  reviewingPercent: number
  given: string
  deskTo: string
  busy: boolean
  stateWords: string
  problem: string | null
}>()
const emit = defineEmits<{
  own: [criterionId: string, points: number | null]
  take: []
  note: [text: string]
  reopen: []
}>()
const judged = computed(() => props.criteria.filter(c => props.own[c.id] !== undefined).length)
const wrong = reactive(new Set<string>())
function type(c: RubricView['criteria'][number], event: Event) {
  const raw = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  const n = Math.round(Number(raw) * 100)
  const bad = raw !== '' && (!Number.isFinite(n) || n < 0 || n > c.max)
  if (bad) wrong.add(c.id)
  else {
    wrong.delete(c.id)
    emit('own', c.id, raw === '' ? null : n)
  }
}
const total = computed(() => props.criteria.reduce((sum, c) => sum + c.max * c.weight, 0))
const sameMax = computed(() => new Set(props.criteria.map(c => c.max)).size === 1)
const mark = computed(() => props.record?.mark ?? null)
const moved = computed(
  () =>
    props.takenFrom === 'consensus' &&
    props.found?.corrected != null &&
    props.criteria.some(
      c => Math.abs((props.own[c.id] ?? 0) - Math.round(props.found!.criteria.get(c.id)!.corrected!)) > 4,
    ),
)
const letter = computed(() => (mark.value ? plainText(mark.value.letter as RichNode) : ''))
const share = computed(() => props.reviewing?.share ?? null)
const PARTS = { done: 'done', onTime: 'on time', helpful: 'helpful', close: 'close to the others' } as const
const partWords = computed(() =>
  (Object.keys(PARTS) as Array<keyof typeof PARTS>)
    .flatMap(k =>
      props.reviewing?.parts[k] == null
        ? []
        : [`${PARTS[k]} ${Math.round(props.reviewing.parts[k]! * 100)} %`],
    )
    .join(', '),
)
const helpfulMean = computed(() =>
  props.reviewing && props.reviewing.helpful.length > 0
    ? (props.reviewing.helpful.reduce((a, b) => a + b, 0) / props.reviewing.helpful.length).toFixed(1)
    : null,
)
const ownTotal = computed(() => {
  if (judged.value === 0) return ''
  if (judged.value === props.criteria.length)
    return tenth(props.criteria.reduce((s, c) => s + props.own[c.id]! * c.weight, 0))
  return `${judged.value} of ${props.criteria.length}`
})
</script>

<template>
  <div class="pane">
    <p class="head">
      <b>Consensus</b
      ><span v-if="sameMax && criteria[0]">each criterion out of {{ points(criteria[0].max) }}</span>
    </p>
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
        <tr v-for="c in criteria" :key="c.id">
          <td>{{ c.title }}</td>
          <td>
            {{ found?.criteria.get(c.id)?.mean == null ? '–' : tenth(found.criteria.get(c.id)!.mean!) }}
          </td>
          <td
            class="corr"
            :title="
              found?.criteria.get(c.id)?.median == null
                ? undefined
                : `median ${tenth(found!.criteria.get(c.id)!.median!)}, trimmed ${tenth(found!.criteria.get(c.id)!.trimmed!)}`
            "
          >
            {{
              found?.criteria.get(c.id)?.corrected == null ? '–' : tenth(found.criteria.get(c.id)!.corrected!)
            }}
          </td>
          <td>
            <LineInput
              class="own"
              inputmode="decimal"
              :value="own[c.id] === undefined ? '' : tenth(own[c.id]!)"
              :aria-label="`Your points for ${c.title}`"
              :aria-invalid="wrong.has(c.id)"
              :readonly="mark?.state === 'returned' || mark?.state === 'held'"
              @change="type(c, $event)"
            />
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <td>Total of {{ points(total) }}</td>
          <td>{{ found?.mean == null ? '–' : tenth(found.mean) }}</td>
          <td class="corr">{{ found?.corrected == null ? '–' : tenth(found.corrected) }}</td>
          <td>
            {{ ownTotal }}
          </td>
        </tr>
      </tfoot>
    </table>
    <p v-for="c in criteria.filter(x => wrong.has(x.id))" :key="c.id" class="field-problem" role="alert">
      {{ c.title }} goes from 0 to {{ points(c.max) }}. What you wrote there is not saved.
    </p>
    <p v-if="alpha !== null" class="agree">
      <b>Krippendorff’s α {{ alpha.toFixed(2) }} ({{ works }} {{ plural(works, 'work') }}).</b>
      {{ agreementSentence(alpha) }}
    </p>
    <p v-else class="agree">Too little is in to say how far readers agree.</p>
    <div class="acts">
      <template v-if="mark?.state === 'held' || mark?.state === 'returned'">
        <p class="done">
          <b
            >{{ mark.state === 'held' ? 'Held' : 'Returned' }}: {{ points(mark.points) }} /
            {{ points(worth) }}</b
          >{{ takenFrom === 'consensus' ? ', the consensus' : '' }}
        </p>
        <v-btn v-if="mark.state === 'held'" :disabled="busy" @click="emit('reopen')">Reopen</v-btn>
        <v-btn v-if="moved && mark.state === 'held' && takes !== null" :disabled="busy" @click="emit('take')"
          >Take the consensus again: {{ points(takes) }}</v-btn
        >
      </template>
      <v-btn v-else class="main" :disabled="busy || takes === null" @click="emit('take')"
        >Take {{ takes === null ? 'the consensus' : `${points(takes)} / ${points(worth)}` }}
        <kbd>↵</kbd></v-btn
      >
      <v-btn :to="deskTo">Mark it myself</v-btn>
      <p
        v-if="
          reviewingPercent > 0 &&
          share !== null &&
          found?.corrected != null &&
          mark?.state !== 'held' &&
          mark?.state !== 'returned'
        "
        class="hint"
      >
        {{ tenth(found.corrected) }} from readers, and {{ given }}’s own reviewing for
        {{ reviewingPercent }} %.
      </p>
    </div>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p class="sub">
      <b>Letter to {{ given }}, as it will be read</b><span class="state" role="status">{{ stateWords }}</span
      ><NuxtLink :to="deskTo">write</NuxtLink>
    </p>
    <div class="letter">
      <p v-if="letter === ''" class="muted">Taking the consensus begins it with what readers said.</p>
      <p v-for="(line, i) in letter.split('\n').slice(0, 7)" v-else :key="i">
        {{ line.length > 190 ? `${line.slice(0, 188)} …` : line }}
      </p>
    </div>
    <div class="note">
      <label for="peer-note"><b>Marker’s note</b> · only staff see it</label>
      <LinesInput
        id="peer-note"
        rows="2"
        :value="mark?.markerNote ?? ''"
        @input="emit('note', ($event.target as HTMLTextAreaElement).value)"
      />
    </div>
    <p v-if="reviewing && reviewing.owed > 0" class="also">
      {{ reviewingPercent > 0 ? `Also counts, ${reviewingPercent} %` : 'Beside it' }}:
      <b>{{ given }}’s own reviewing</b>, {{ reviewing.done }} of {{ reviewing.owed }} done{{
        helpfulMean ? `, found helpful ${helpfulMean}/5` : ''
      }}<template v-if="share !== null"
        >: <b class="num">{{ Math.round(share * 100) }} %</b>{{ ' '
        }}<span class="muted">({{ partWords }})</span></template
      >.
    </p>
  </div>
</template>

<style scoped>
.pane {
  display: grid;
  gap: 8px;
  align-content: start;
}
.head {
  display: flex;
  justify-content: space-between;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.head b {
  color: var(--ink);
}
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
.agree {
  font-size: 0.8125rem;
  line-height: 1.45;
  color: var(--ink-2);
}
.agree b {
  color: var(--ink);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.done {
  flex: 1 1 100%;
  font-size: 0.84375rem;
}
.sub {
  display: flex;
  gap: 10px;
  font-size: 0.8125rem;
  color: var(--ink-2);
  align-items: baseline;
  margin-top: 2px;
}
.sub b {
  font-weight: 600;
}
.state {
  margin-left: auto;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.letter {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  padding: 10px 14px;
  font: 400 0.875rem/1.5 var(--read);
  max-height: 170px;
  overflow: auto;
  display: grid;
  gap: 5px;
}
.note {
  border: 1px dashed var(--line);
  border-radius: var(--r);
  padding: 7px 12px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.note b {
  color: var(--ink);
}
.note textarea {
  display: block;
  width: 100%;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  resize: vertical;
  padding: 3px 0 0;
  field-sizing: content;
  max-height: 110px;
}
.also {
  font-size: 0.8125rem;
  line-height: 1.45;
  color: var(--ink-2);
}
.also b {
  color: var(--ink);
}
</style>
