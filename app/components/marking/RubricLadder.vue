<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useLetterKeys } from '~/composables/shell/keyList'
import type { RubricView } from '#shared/contributing/activity'
import { rangeOf } from '#core/marking/stepPoints'
import type { MarkView, RecordView, Step } from '#shared/marking/desk'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { vRoving } from '~/components/controls/vRoving'

const props = defineProps<{
  rubric: RubricView
  mark: MarkView
  suggested: RecordView['suggested']
  active: number // index of the criterion keys set
  steps: readonly Step[]
  total: { points: number; left: number; max: number; before: number; set: boolean }
  /** Title of the group whose criteria are judged for all its members. */
  group: string | null
  /** The whole group gets one mark: every criterion is the group's. */
  wholeGroup: boolean
  locked: boolean
}>()
const emit = defineEmits<{
  activate: [index: number]
  step: [criterionId: string, levelId: string | null]
  cite: []
  uncite: [index: number]
  goTo: [contributionId: string]
  points: [criterionId: string, hundredths: number]
  excuse: [criterionId: string, reason: string | null]
}>()

const letters = useLetterKeys()
const stepOf = (criterionId: string) => props.steps.find(s => s.criterionId === criterionId) ?? null
const excuse = (criterionId: string) =>
  props.mark.excusedFrom.find(e => e.criterionId === criterionId) ?? null
const excusing = ref<string | null>(null) // the group's criterion a member is being excused from
const why = ref('')
function excuseFrom(criterionId: string) {
  if (why.value.trim() === '') return
  emit('excuse', criterionId, why.value.trim())
  excusing.value = null
  why.value = ''
}
const ranged = (c: RubricView['criteria'][number]) => {
  const level = chosen(c.id)
  return level && rangeOf(level)[0] < rangeOf(level)[1] ? rangeOf(level) : null
}
const wrong = ref<string | null>(null)
function type(c: RubricView['criteria'][number], event: Event) {
  const text = (event.target as HTMLInputElement).value.replace(',', '.')
  const n = Number(text)
  const range = ranged(c)
  wrong.value =
    text === '' ||
    !Number.isFinite(n) ||
    !range ||
    Math.round(n * 100) < range[0] ||
    Math.round(n * 100) > range[1]
      ? c.id
      : null
  if (!wrong.value) emit('points', c.id, Math.round(n * 100))
}
const rung = (level: RubricView['criteria'][number]['levels'][number]) =>
  rangeOf(level)[0] < rangeOf(level)[1]
    ? `${points(rangeOf(level)[0])}–${points(level.points)}`
    : points(level.points)
const chosen = (criterionId: string) => {
  const levelId = stepOf(criterionId)?.levelId
  return props.rubric.criteria.find(c => c.id === criterionId)?.levels.find(l => l.id === levelId) ?? null
}
const hint = (criterionId: string) =>
  chosen(criterionId) || props.locked
    ? null
    : (props.suggested.find(s => s.criterionId === criterionId) ?? null)
const cites = (criterionId: string) =>
  props.mark.citations.flatMap((c, i) => (c.criterionId === criterionId ? [{ ...c, index: i }] : []))
const preview = ref<string | null>(null) // a step pointed at shows its descriptor
const described = (criterion: RubricView['criteria'][number]) =>
  criterion.levels.find(l => l.id === preview.value) ??
  chosen(criterion.id) ??
  criterion.levels.find(l => l.id === hint(criterion.id)?.levelId) ??
  null
const short = (text: string) => (text.length > 26 ? `${text.slice(0, 24).trimEnd()}…` : text)
function stepPoints(c: { readonly id: string }) {
  if (excuse(c.id)) return 'excused'
  if (stepOf(c.id)) return points(stepOf(c.id)!.points)
  return '—'
}
const totalWords = computed(() => {
  if (props.total.left > 0)
    return `${capital(inWords(props.total.left))} ${plural(props.total.left, 'criterion', 'criteria')} left`
  if (props.total.set) return `set by hand; ${points(props.total.before)} by the rubric`
  if (props.total.before !== props.total.points) return `${points(props.total.before)} without lateness`
  return 'complete'
})
/** The keyboard brings a criterion to hand as it comes; a pointer with its click: what unfolds before it would move the step away. */
function reached(i: number, { target }: FocusEvent) {
  if (target instanceof Element && target.matches(':focus-visible')) emit('activate', i)
}
</script>

<template>
  <section class="ladder" aria-label="Rubric">
    <p class="pt">
      <span
        >Rubric: {{ rubric.title
        }}<template v-if="rubric.version > 1">, version {{ rubric.version }}</template></span
      ><span v-if="letters"
        ><KeyHint of="1" />–<KeyHint :of="String(Math.max(...rubric.criteria.map(c => c.levels.length)))" />
        set</span
      >
    </p>
    <div class="list">
      <div
        v-for="(c, i) in rubric.criteria"
        :key="c.id"
        class="crit"
        :class="{ on: i === active }"
        role="group"
        :aria-label="c.title"
        @click="emit('activate', i)"
        @focusin="reached(i, $event)"
      >
        <h2>
          {{ c.title }}
          <span class="num">{{ stepPoints(c) }} / {{ points(c.max) }}</span>
        </h2>
        <p v-if="c.scope === 'group' || wholeGroup" class="descr muted">
          {{ group ? `One step for all of ${group}.` : 'For the whole group.' }}
          <template v-if="excuse(c.id)"
            >Excused: {{ excuse(c.id)!.reason }}.
            <button class="link" type="button" @click.stop="emit('excuse', c.id, null)">
              Count it again
            </button></template
          >
          <button v-else-if="excusing !== c.id" class="link" type="button" @click.stop="excusing = c.id">
            excuse this one
          </button>
        </p>
        <form v-if="excusing === c.id" class="why" @submit.prevent="excuseFrom(c.id)">
          <input
            v-model="why"
            class="in"
            :aria-label="`Why ${c.title} does not count here`"
            placeholder="why it does not count here"
            maxlength="500"
          /><button class="link" type="submit">excuse</button>
        </form>
        <div
          v-roving
          class="rungs"
          role="radiogroup"
          :aria-label="`Steps of ${c.title}`"
          :style="{ '--n': c.levels.length }"
        >
          <button
            v-for="(level, n) in c.levels"
            :key="level.id"
            type="button"
            role="radio"
            :disabled="locked"
            :aria-checked="chosen(c.id)?.id === level.id"
            :aria-label="`${level.title}, ${points(level.points)} points: ${level.descriptor}`"
            :class="{
              at: chosen(c.id)?.id === level.id,
              below: chosen(c.id) && level.points < chosen(c.id)!.points,
              hint: hint(c.id)?.levelId === level.id,
            }"
            :data-step="n + 1"
            @click="emit('step', c.id, chosen(c.id)?.id === level.id ? null : level.id)"
            @mouseenter="preview = level.id"
            @mouseleave="preview = null"
            @focus="preview = level.id"
            @blur="preview = null"
          >
            {{ rung(level) }}
          </button>
        </div>
        <label v-if="ranged(c)" class="typed"
          ><span>points, {{ points(ranged(c)![0]) }} to {{ points(ranged(c)![1]) }}</span
          ><input
            class="in"
            inputmode="decimal"
            :value="points(stepOf(c.id)!.points)"
            :aria-label="`Points for ${c.title}`"
            :aria-invalid="wrong === c.id"
            :disabled="locked"
            @change="type(c, $event)"
            @keydown.enter.prevent="($event.target as HTMLInputElement).blur()"
        /></label>
        <p v-if="hint(c.id)" class="descr muted">
          Suggested from the record: {{ hint(c.id)!.because }}.
          <button
            class="link"
            type="button"
            :disabled="locked"
            @click="emit('step', c.id, hint(c.id)!.levelId)"
          >
            Accept {{ points(c.levels.find(l => l.id === hint(c.id)!.levelId)!.points) }}
          </button>
        </p>
        <p v-if="i === active && described(c)" class="descr">
          <b>{{ points(described(c)!.points) }} · {{ described(c)!.title }}.</b>
          {{ described(c)!.descriptor }}
        </p>
        <div v-if="cites(c.id).length > 0 || i === active" class="cites">
          <span v-for="cite in cites(c.id)" :key="cite.index" class="cite"
            ><button type="button" :title="cite.exact" @click="emit('goTo', cite.contributionId)">
              <b>{{ cite.index + 1 }}</b> “{{ short(cite.exact) }}”</button
            ><button
              v-if="!locked"
              type="button"
              class="x"
              :aria-label="`Remove citation ${cite.index + 1}`"
              @click.stop="emit('uncite', cite.index)"
            >
              ×
            </button></span
          >
          <button v-if="i === active && !locked" type="button" class="cite add" @click="emit('cite')">
            + cite a passage <KeyHint of="e" />
          </button>
        </div>
      </div>
    </div>
    <div class="total">
      <strong class="num">{{ points(total.points) }}</strong><span class="muted"
        >of {{ points(total.max) }}{{ total.left > 0 ? ' so far' : '' }}</span
      ><span class="grow" /><span class="small muted">{{ totalWords }}</span>
    </div>
  </section>
</template>

<style scoped>
.ladder {
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.pt {
  font: 600 0.75rem/1 var(--ui);
  color: var(--ink-3);
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 13px 16px 9px 20px;
}
.list {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
}
.crit {
  padding: 10px 16px 11px 20px;
  border-top: 1px solid var(--line-soft);
}
.crit.on {
  background: var(--sheet);
  padding-left: 16px;
  border-left: 4px solid var(--ember);
  border-top-color: var(--line);
  border-bottom: 1px solid var(--line);
}
h2 {
  font-size: 0.84375rem;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  letter-spacing: 0;
}
h2 span {
  color: var(--ink-2);
}
.rungs {
  display: grid;
  grid-template-columns: repeat(var(--n), 1fr);
  gap: 3px;
  margin: 8px 0 0;
}
.rungs button {
  font: 600 0.75rem/1 var(--ui);
  text-align: center;
  padding: 7px 0 6px;
  background: var(--sunken);
  color: var(--ink-2);
  border: 0;
  border-radius: 3px;
  cursor: pointer;
}
.rungs button:hover:not(:disabled) {
  background: var(--harbour-soft);
}
.rungs .below {
  background: var(--step-below);
  color: var(--harbour-deep);
}
.rungs .at,
.rungs .at:hover:not(:disabled) {
  background: var(--harbour);
  color: var(--on-harbour);
}
.rungs .hint {
  box-shadow: inset 0 0 0 1.5px var(--harbour);
}
.rungs button:focus-visible {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.typed {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  font-size: 0.75rem;
  color: var(--ink-2);
  margin-top: 7px;
}
.typed .in {
  width: 5em;
  padding: 3px 7px;
  text-align: right;
}
.why {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.why .in {
  flex: 1;
  padding: 3px 7px;
  font-size: 0.78125rem;
}
.descr {
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin-top: 7px;
  line-height: 1.42;
}
.cites {
  display: flex;
  gap: 5px;
  margin-top: 8px;
  flex-wrap: wrap;
}
.cite {
  font-size: 0.75rem;
  border: 1px solid var(--line);
  background: var(--sheet);
  border-radius: 12px;
  padding: 2px 9px;
  color: var(--ink-2);
  display: inline-flex;
  gap: 5px;
  align-items: center;
}
.cite button {
  background: none;
  border: 0;
  padding: 0;
  cursor: pointer;
  color: inherit;
}
.cite b {
  color: var(--ember);
  font-weight: 650;
}
.cite .x {
  font-size: 0.875rem;
  line-height: 1;
  min-width: 24px;
  padding: 5px 0;
  margin: -5px -6px;
}
.add {
  cursor: pointer;
}
.total {
  flex: none;
  border-top: 1px solid var(--line);
  padding: 12px 16px 12px 20px;
  background: var(--sunken);
  display: flex;
  align-items: baseline;
  gap: 10px;
}
.total strong {
  font: 600 1.625rem/1 var(--read);
}
/* a narrow desk has the total at its foot */
@media (max-width: 1000px) {
  .total {
    display: none;
  }
}
@media (forced-colors: active) {
  .rungs button {
    forced-color-adjust: none;
  }
  .crit.on {
    border-left-color: Highlight;
  }
}
</style>
