<script setup lang="ts">
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import SentencePart from './SentencePart.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** A number inside a sentence. */
const value = defineModel<number>({ required: true })
withDefaults(
  defineProps<{
    label: string
    min?: number
    max?: number
    unit?: string
    text?: string
    disabled?: boolean
    usual?: readonly number[]
  }>(),
  { min: 0, max: 10_000, unit: '', text: undefined, disabled: false, usual: () => [] },
)
const emit = defineEmits<{ opened: [open: boolean] }>()
const box = ref<Focusable | null>(null)
function take(event: Event, min: number, max: number) {
  const n = Math.round(Number((event.target as HTMLInputElement).value))
  if (Number.isFinite(n) && n >= min && n <= max) value.value = n
}
function opened(open: boolean) {
  emit('opened', open)
  if (open)
    setTimeout(() => {
      box.value?.focus()
      box.value?.select()
    }) // after the card has taken the focus itself
}
</script>

<template>
  <SentencePart :text="text ?? String(value)" :label="label" :disabled="disabled" @opened="opened">
    <p class="numbers">
      <LineInput
        ref="box"
        class="in short"
        type="number"
        :min="min"
        :max="max"
        :value="value"
        :aria-label="label"
        @input="take($event, min, max)"
      />
      {{ unit }}
    </p>
    <p v-if="usual.length > 0" class="numbers">
      <ChipButton v-for="n in usual" :key="n" :class="{ on: n === value }" @click="value = n">
        {{ n }}
      </ChipButton>
    </p>
  </SentencePart>
</template>

<style>
.numbers {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
