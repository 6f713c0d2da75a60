<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { CombineRule } from '#core/marking/combineMarks'
import { points } from '~/composables/marking/points'
import ChipButton from '~/components/controls/ChipButton.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** The mark of one contribution alone: points, or done and not done. */
const props = defineProps<{
  combine: CombineRule
  mark: { points: number | null; done: boolean | null } | null
}>()
const emit = defineEmits<{ mark: [mark: { points: number | null; done: boolean | null }] }>()
const each = computed(() => (props.combine.by === 'count' ? 0 : props.combine.each))
const steps = computed(() =>
  each.value > 0 && each.value <= 600 && each.value % 100 === 0
    ? Array.from({ length: each.value / 100 + 1 }, (_, i) => i * 100)
    : [],
)
const wrong = ref(false)
const set = (n: number | null) => emit('mark', { points: n, done: null })
function type(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  const n = Math.round(Number(text) * 100)
  wrong.value = text !== '' && !(Number.isFinite(n) && n >= 0 && n <= each.value)
  if (!wrong.value) set(text === '' ? null : n)
}
</script>

<template>
  <div class="one" role="group" aria-label="Mark of this contribution">
    <template v-if="combine.by === 'count'">
      <ChipButton
        v-for="value in [true, false]"
        :key="String(value)"
        :class="{ on: mark?.done === value }"
        :aria-pressed="mark?.done === value"
        @click="emit('mark', { points: null, done: mark?.done === value ? null : value })"
      >
        {{ value ? 'counts' : 'does not count' }}
      </ChipButton>
    </template>
    <template v-else-if="steps.length > 0">
      <PlainButton
        v-for="n in steps"
        :key="n"
        class="rung num"
        :class="{ at: mark?.points === n, below: mark?.points != null && n < mark.points }"
        :aria-pressed="mark?.points === n"
        @click="set(mark?.points === n ? null : n)"
      >
        {{ points(n) }}</PlainButton><span class="hint">of {{ points(each) }}</span>
    </template>
    <label v-else class="typed"
      ><LineInput
        class="in"
        inputmode="decimal"
        :value="mark?.points != null ? points(mark.points) : ''"
        :aria-invalid="wrong"
        :aria-label="`Points of this contribution, up to ${points(each)}`"
        @change="type"
      /><span class="hint">of {{ points(each) }}</span></label
    >
  </div>
</template>

<style scoped>
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
  margin-top: 9px;
}
.chip {
  padding: 2px 10px;
  font-size: 0.75rem;
}
.rung {
  min-width: 34px;
  font: 600 0.75rem/1 var(--ui);
  padding: 6px 0 5px;
  background: var(--sunken);
  color: var(--ink-2);
  border: 0;
  border-radius: 3px;
  cursor: pointer;
}
.rung:hover {
  background: var(--harbour-soft);
}
.below {
  background: var(--step-below);
  color: var(--harbour-deep);
}
.at,
.at:hover {
  background: var(--harbour);
  color: var(--on-harbour);
}
.typed {
  display: flex;
  gap: 8px;
  align-items: center;
}
.typed .in {
  width: 5em;
  padding: 3px 7px;
}
</style>
