<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import type { AuthorConsensus } from '#core/marking/peers/consensus'
import type { ReviewingParts } from '#core/marking/peers/reviewingMark'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { RubricView } from '#shared/contributing/activity'
import type { RecordView } from '#shared/marking/desk'
import { plural } from '#core/language'
import { agreementSentence, leniencySentence, tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'
import type { Take } from '~/stores/peers'
import ConsensusTable from './ConsensusTable.vue'
import TakePoints from './TakePoints.vue'

/** What readers agree on, beside the marker's own figures; taking it, the letter, the note, and the student's own reviewing. */
const props = defineProps<{
  criteria: RubricView['criteria']
  found: AuthorConsensus | undefined
  readers: number
  own: Readonly<Record<string, number>>
  record: RecordView | null
  takenFrom: 'consensus' | null
  /** The consensus is not what was taken any more. */
  hasMoved: boolean
  takes: Readonly<Record<Take, number | null>>
  /** How far all readers run above the marker, hundredths, and over how many works that is told from. */
  shared: number | null
  anchored: number
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
  take: [what: Take]
  note: [text: string]
  reopen: []
}>()
const sameMax = computed(() => new Set(props.criteria.map(c => c.max)).size === 1)
const mark = computed(() => props.record?.mark ?? null)
const ownDiffers = computed(
  () =>
    props.takenFrom === 'consensus' ||
    (mark.value?.steps ?? []).some(s => props.own[s.criterionId] !== s.points),
)
const leniency = computed(() => leniencySentence(props.shared, props.anchored))
const isSettled = computed(() => mark.value?.state === 'held' || mark.value?.state === 'returned')
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
</script>

<template>
  <div class="pane">
    <p class="head">
      <b>Consensus</b
      ><span v-if="sameMax && criteria[0]">each criterion out of {{ points(criteria[0].max) }}</span>
    </p>
    <p v-if="criteria.length === 0" class="agree">
      This review has no rubric, so readers gave words and no points. Choose a rubric in the plan, or mark it
      yourself.
    </p>
    <ConsensusTable
      v-else
      :criteria="criteria"
      :found="found"
      :readers="readers"
      :own="own"
      :is-returned="mark?.state === 'returned'"
      @own="(criterion, value) => emit('own', criterion, value)"
    />
    <p v-if="criteria.length > 0" class="agree">
      {{ leniency
      }}<template v-if="found?.withYours != null"
        >{{ ' ' }}Readers and your points together, which count as three readers:
        <b class="num">{{ tenth(found.withYours) }}</b>.</template
      >
    </p>
    <p v-if="alpha !== null" class="agree">
      <b>Krippendorff’s α {{ alpha.toFixed(2) }} ({{ works }} {{ plural(works, 'work') }}).</b>
      {{ agreementSentence(alpha) }}
    </p>
    <p v-else-if="criteria.length > 0" class="agree">Too little is in to say how far readers agree.</p>
    <TakePoints
      v-if="criteria.length > 0 || isSettled"
      :mark="mark"
      :taken-from="takenFrom"
      :takes="takes"
      :has-moved="hasMoved"
      :own-differs="ownDiffers"
      :worth="worth"
      :busy="busy"
      :desk-to="deskTo"
      @take="what => emit('take', what)"
      @reopen="emit('reopen')"
    />
    <p v-else><v-btn :to="deskTo">Mark it myself</v-btn></p>
    <p v-if="reviewingPercent > 0 && share !== null && found?.corrected != null && !isSettled" class="hint">
      {{ tenth(found.corrected) }} from readers, and {{ given }}’s own reviewing for {{ reviewingPercent }} %.
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p class="sub">
      <b>Letter to {{ given }}, as it will be read</b><span class="state" role="status">{{ stateWords }}</span
      ><NuxtLink :to="deskTo">write</NuxtLink>
    </p>
    <div class="letter">
      <p v-if="letter === ''" class="muted">Using the consensus begins it with what readers said.</p>
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
.agree {
  font-size: 0.8125rem;
  line-height: 1.45;
  color: var(--ink-2);
}
.agree b {
  color: var(--ink);
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
