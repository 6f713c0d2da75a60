<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import { VueDraggable } from 'vue-draggable-plus'
import {
  MOST_CRITERIA,
  MOST_LEVELS,
  type CriterionDraft,
  type LevelDraft,
  type RubricDraft,
  type RubricFault,
} from '#core/marking/rubric/rubricDraft'
import type { OfferedOutcome } from '~/composables/marking/offeredOutcome'
import { points } from '~/composables/marking/points'
import RubricCriterion from './RubricCriterion.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/**
 * A rubric as a grid that is typed through like a table: criteria down, levels across. Rows are put in
 * order by dragging or with the arrow keys.
 */
const props = defineProps<{
  rubric: RubricDraft
  faults: readonly RubricFault[]
  outcomes: readonly OfferedOutcome[]
  readonly: boolean
}>()
const emit = defineEmits<{ change: [rubric: RubricDraft] }>()
const grid = ref<HTMLElement | null>(null)
const widest = computed(() => Math.max(1, ...props.rubric.criteria.map(c => c.levels.length)))
// rows need keys of their own that outlive an edit: criteria have none yet
const keys = ref(props.rubric.criteria.map((_, i) => i))
let nextKey = props.rubric.criteria.length
watch(
  () => props.rubric.criteria.length,
  n => {
    while (keys.value.length < n) keys.value.push(nextKey++)
    keys.value.length = n
  },
)
const rows = computed({
  get: () => props.rubric.criteria.map((criterion, i) => ({ criterion, key: keys.value[i]! })),
  set: list => {
    keys.value = list.map(r => r.key)
    emit('change', { ...props.rubric, criteria: list.map(r => r.criterion) })
  },
})
const setCriterion = (i: number, part: Partial<CriterionDraft>) =>
  emit('change', {
    ...props.rubric,
    criteria: props.rubric.criteria.map((c, j) => (j === i ? { ...c, ...part } : c)),
  })
const setLevel = (i: number, k: number, part: Partial<LevelDraft>) =>
  setCriterion(i, {
    levels: props.rubric.criteria[i]!.levels.map((l, j) => (j === k ? { ...l, ...part } : l)),
  })
const text = (event: Event) => (event.target as HTMLInputElement).value

const pointWords = (l: LevelDraft) =>
  l.pointsFrom === null ? points(l.points) : `${points(l.pointsFrom)}–${points(l.points)}`
function setPoints(i: number, k: number, event: Event) {
  const match = /^\s*(?:(\d+(?:[.,]\d{1,2})?)\s*[-–]\s*)?(\d+(?:[.,]\d{1,2})?)\s*$/.exec(text(event))
  if (!match) {
    ;(event.target as HTMLInputElement).value = pointWords(props.rubric.criteria[i]!.levels[k]!)
    return
  }
  const hundredths = (part: string | undefined) =>
    part === undefined ? null : Math.round(Number(part.replace(',', '.')) * 100)
  setLevel(i, k, { points: hundredths(match[2])!, pointsFrom: hundredths(match[1]) })
}
function addCriterion() {
  const like = props.rubric.criteria.at(-1)
  const levels = like
    ? like.levels.map(l => ({ ...l, descriptor: '' }))
    : [
        { title: 'Begins', points: 100, pointsFrom: null, descriptor: '' },
        { title: 'Gets there', points: 300, pointsFrom: null, descriptor: '' },
      ]
  emit('change', {
    ...props.rubric,
    criteria: [
      ...props.rubric.criteria,
      { title: '', scope: 'own', weight: 1, suggestFrom: null, outcomes: [], levels },
    ],
  })
  void nextTick(() => cellAt(props.rubric.criteria.length - 1, 0)?.focus())
}
const dropCriterion = (i: number) => {
  keys.value.splice(i, 1)
  emit('change', { ...props.rubric, criteria: props.rubric.criteria.filter((_, j) => j !== i) })
}
function moveCriterion(i: number, by: number) {
  const to = i + by
  if (to < 0 || to >= props.rubric.criteria.length) return
  const list = [...rows.value]
  list.splice(to, 0, ...list.splice(i, 1))
  rows.value = list
  void nextTick(() => grid.value?.querySelectorAll<HTMLElement>('.grip')[to]?.focus())
}
function addLevel(i: number) {
  const top = props.rubric.criteria[i]!.levels.at(-1)
  setCriterion(i, {
    levels: [
      ...props.rubric.criteria[i]!.levels,
      { title: '', points: (top?.points ?? 0) + 200, pointsFrom: null, descriptor: '' },
    ],
  })
}
const dropLevel = (i: number, k: number) =>
  setCriterion(i, { levels: props.rubric.criteria[i]!.levels.filter((_, j) => j !== k) })

/** Cells in reading order; of a row, its title first, then of each level title, points, descriptor. */
const cellAt = (row: number, column: number) =>
  grid.value?.querySelector<HTMLElement>(`[data-row="${row}"][data-column="${column}"]`) ?? null
function onKey(event: KeyboardEvent) {
  const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-column]')
  if (!cell) return
  const [row, column] = [Number(cell.dataset.row), Number(cell.dataset.column)]
  const go = (r: number, c: number) => {
    const to = cellAt(r, c)
    if (!to) return false
    event.preventDefault()
    to.focus()
    if (to instanceof HTMLInputElement) to.select()
    return true
  }
  const inLine = cell instanceof HTMLInputElement
  if (event.key === 'Enter' && !event.shiftKey) {
    event.preventDefault()
    if (!go(row, column + 1) && !go(row + 1, 0) && !props.readonly) addCriterion()
    return
  }
  const moves: Readonly<Record<string, readonly [number, number]>> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  }
  const by = moves[event.key]
  // in a one-line cell up and down move at once; left and right, and all in a longer text, with Alt
  if (by && (event.altKey || (inLine && by[0] !== 0))) go(row + by[0], column + by[1])
}
const faultAt = (row: number, level: number | null) =>
  props.faults.some(
    f =>
      'criterion' in f &&
      f.criterion === row &&
      (level === null ? !('level' in f) : 'level' in f && f.level === level),
  )
const FAULT_WORDS: Readonly<Record<RubricFault['code'], string>> = {
  noTitle: 'The rubric wants a name.',
  noCriteria: 'A rubric has one criterion at least.',
  criterionNoTitle: 'This criterion wants a name.',
  noLevels: 'This criterion wants levels.',
  noPoints: 'No level gives a point.',
  levelOrder: 'Points rise from level to level.',
  rangeOrder: 'The range ends before it begins.',
  rangesMeet: 'The range reaches into the level before.',
}
const wordsOf = (row: number) =>
  props.faults.filter(f => 'criterion' in f && f.criterion === row).map(f => FAULT_WORDS[f.code])
</script>

<template>
  <div ref="grid" class="rubric-grid" @keydown="onKey">
    <p v-for="f in faults.filter(x => !('criterion' in x))" :key="f.code" class="field-problem">
      {{ FAULT_WORDS[f.code] }}
    </p>
    <VueDraggable v-model="rows" handle=".grip" :animation="120" :disabled="readonly">
      <div
        v-for="(r, i) in rows"
        :key="r.key"
        class="crow"
        :style="{ '--n': widest }"
        role="group"
        :aria-label="r.criterion.title || `Criterion ${i + 1}`"
      >
        <RubricCriterion
          :criterion="r.criterion"
          :row="i"
          :outcomes="outcomes"
          :faults="wordsOf(i)"
          :has-fault="faultAt(i, null)"
          :readonly="readonly"
          @change="setCriterion(i, $event)"
          @move="moveCriterion(i, $event)"
          @drop="dropCriterion(i)"
        />
        <div v-for="(l, k) in r.criterion.levels" :key="k" class="cell" :class="{ wrong: faultAt(i, k) }">
          <p class="top">
            <LineInput
              :data-row="i"
              :data-column="1 + 3 * k"
              :value="l.title"
              :readonly="readonly"
              placeholder="level"
              aria-label="Name of the level"
              @input="setLevel(i, k, { title: text($event) })"
            /><LineInput
              class="pts num"
              :data-row="i"
              :data-column="2 + 3 * k"
              :value="pointWords(l)"
              :readonly="readonly"
              aria-label="Points, or a range of points"
              @change="setPoints(i, k, $event)"
            />
          </p>
          <LinesInput
            rows="4"
            :data-row="i"
            :data-column="3 + 3 * k"
            :value="l.descriptor"
            :readonly="readonly"
            placeholder="What one sees in the work"
            aria-label="Descriptor"
            @input="setLevel(i, k, { descriptor: text($event) })"
          />
          <PlainButton
            v-if="!readonly && r.criterion.levels.length > 1"
            class="x"
            :aria-label="`Remove the level ${l.title}`"
            tabindex="-1"
            @click="dropLevel(i, k)"
          >
            ×
          </PlainButton>
        </div>
        <PlainButton
          v-if="!readonly && r.criterion.levels.length < MOST_LEVELS"
          class="more"
          :aria-label="`Add a level to ${r.criterion.title}`"
          title="Add a level"
          @click="addLevel(i)"
        >
          +
        </PlainButton>
      </div>
    </VueDraggable>
    <TextButton v-if="!readonly && rubric.criteria.length < MOST_CRITERIA" class="add" @click="addCriterion">
      + Add a criterion
    </TextButton>
  </div>
</template>

<style scoped>
.rubric-grid {
  border-top: 1px solid var(--line);
  min-width: 760px;
}
.crow {
  display: flex;
  border-bottom: 1px solid var(--line);
}
input,
textarea {
  border: 0;
  background: transparent;
  color: inherit;
  font: inherit;
  width: 100%;
  padding: 4px;
  min-height: 24px;
  border-radius: 3px;
  resize: none;
  min-width: 0;
}
input:hover:not([readonly]),
textarea:hover:not([readonly]) {
  background: color-mix(in srgb, var(--ember) 7%, transparent);
}
input:focus,
textarea:focus {
  outline: none;
  background: var(--sheet);
  box-shadow: inset 0 0 0 2px var(--ember);
}
.cell {
  flex: 1 1 0;
  min-width: 0;
  border-left: 1px solid var(--line-soft);
  padding: 8px 8px 6px;
  position: relative;
  background: var(--sheet);
}
.top {
  display: flex;
  gap: 4px;
  align-items: baseline;
}
.top input:first-child {
  font: 600 0.8125rem/1.3 var(--ui);
}
.top .pts {
  width: 4.2rem;
  text-align: right;
  font: 600 0.8125rem/1.3 var(--ui);
  color: var(--harbour);
  flex: none;
}
.cell textarea {
  font: 400 0.8125rem/1.45 var(--read);
  color: var(--ink-2);
  height: 5.9em;
}
.wrong {
  background: var(--brick-soft);
}
.x {
  position: absolute;
  right: 2px;
  bottom: 2px;
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
  opacity: 0;
}
.cell:hover .x {
  opacity: 1;
}
.more {
  flex: none;
  width: 26px;
  border: 0;
  border-left: 1px dashed var(--line);
  background: transparent;
  color: var(--ink-3);
  cursor: pointer;
  font-size: 1rem;
}
.more:hover {
  background: var(--sunken);
  color: var(--ink);
}
.add {
  margin-top: 10px;
}
</style>
