<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import { points } from '~/composables/marking/points'

/** A score in half points, with what the levels stand for; of a long scale its levels, and what is between them is typed. */
const props = defineProps<{
  label: string
  max: number
  levels: ReadonlyArray<{ readonly points: number; readonly title: string; readonly descriptor: string }>
  value: number | undefined
  disabled: boolean
}>()
const emit = defineEmits<{ set: [points: number | null] }>()
const HALF = 50
const MOST_CELLS = 13
const long = computed(() => props.max / HALF + 1 > MOST_CELLS)
const cells = computed(() =>
  long.value
    ? [...new Set(props.levels.map(l => l.points))].sort((a, b) => a - b)
    : Array.from({ length: props.max / HALF + 1 }, (_, i) => i * HALF),
)
const hovered = ref<number | null>(null)
const shown = computed(() => hovered.value ?? props.value ?? null)
const level = computed(() =>
  shown.value === null
    ? null
    : ([...props.levels].sort((a, b) => a.points - b.points).findLast(l => l.points <= shown.value!) ??
      props.levels[0] ??
      null),
)
const wrong = ref(false)
const group = ref<HTMLElement | null>(null)
function step(by: number, event: KeyboardEvent) {
  event.preventDefault()
  const now = props.value ?? (by > 0 ? -1 : props.max + 1)
  const next = by > 0 ? cells.value.find(c => c > now) : cells.value.findLast(c => c < now)
  if (next === undefined) return
  emit('set', next)
  void nextTick(() => group.value?.querySelector<HTMLElement>('[aria-checked="true"]')?.focus())
}
function type(event: Event) {
  const n = Math.round(Number((event.target as HTMLInputElement).value.replace(',', '.')) * 100)
  wrong.value = !(Number.isFinite(n) && n >= 0 && n <= props.max)
  if (!wrong.value) emit('set', n)
}
/** The one cell that Tab comes to. */
const reachable = computed(() =>
  props.value !== undefined && cells.value.includes(props.value) ? props.value : cells.value[0],
)
</script>

<template>
  <div class="ladder">
    <div
      v-if="cells.length > 0"
      ref="group"
      class="cells"
      role="radiogroup"
      :aria-label="label"
      @keydown.right="step(1, $event)"
      @keydown.up="step(1, $event)"
      @keydown.left="step(-1, $event)"
      @keydown.down="step(-1, $event)"
      @mouseleave="hovered = null"
    >
      <PlainButton
        v-for="c in cells"
        :key="c"
        role="radio"
        :aria-checked="value === c"
        :aria-label="`${points(c)} of ${points(max)}`"
        :disabled="disabled"
        :tabindex="c === reachable ? 0 : -1"
        :class="{
          at: value === c,
          below: value !== undefined && c < value,
          whole: c % 100 === 0,
          level: levels.some(l => l.points === c),
        }"
        @click="emit('set', value === c ? null : c)"
        @mouseenter="hovered = c"
      >
        {{ c % 100 === 0 || long ? points(c) : '·' }}
      </PlainButton>
    </div>
    <label v-if="long" class="typed"
      >points
      <LineInput
        class="in short"
        inputmode="decimal"
        :value="value === undefined ? '' : points(value)"
        :disabled="disabled"
        :aria-label="label"
        :aria-invalid="wrong"
        @change="type"
      />
      of {{ points(max) }}</label
    >
    <p class="what">
      <template v-if="level"
        ><b>{{ level.title }}.</b> {{ level.descriptor }}</template
      ><template v-else>Not scored yet.</template>
    </p>
  </div>
</template>

<style scoped>
.cells {
  display: flex;
  gap: 2px;
}
.cells button {
  flex: 1;
  min-width: 0;
  padding: 8px 0 7px;
  border: 0;
  border-radius: 3px;
  background: var(--sunken);
  color: var(--ink-3);
  font: 600 0.78125rem/1 var(--ui);
  cursor: pointer;
  border-bottom: 2px solid transparent;
}
.cells .whole {
  color: var(--ink-2);
}
.cells .level {
  border-bottom-color: var(--k-review);
}
.cells button:hover:not(:disabled) {
  background: var(--harbour-soft);
}
.cells .below {
  background: var(--step-below);
  color: var(--harbour-deep);
}
.cells .at,
.cells .at:hover:not(:disabled) {
  background: var(--harbour);
  color: var(--on-harbour);
}
.cells button:disabled {
  cursor: default;
}
.what {
  font-size: 0.8125rem;
  line-height: 1.4;
  color: var(--ink-2);
  min-height: 1.4em;
  margin-top: 4px;
}
.what b {
  font-weight: 600;
  color: var(--ink);
}
.typed {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
}
</style>
