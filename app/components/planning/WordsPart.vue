<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** A few words inside a sentence, each taken out or added in place. */
const props = defineProps<{ label: string; modelValue: readonly string[]; disabled: boolean; most: number }>()
const emit = defineEmits<{ 'update:modelValue': [words: string[]] }>()
const next = ref('')
function add() {
  const words = next.value
    .split(/[,;]/)
    .map(w => w.trim().slice(0, 60))
    .filter(w => w && !props.modelValue.some(x => x.toLowerCase() === w.toLowerCase()))
  next.value = ''
  if (words.length > 0) emit('update:modelValue', [...props.modelValue, ...words].slice(0, props.most))
}
</script>

<template>
  <span class="words" role="group" :aria-label="label"
    ><span v-for="w in modelValue" :key="w" class="word"
      >{{ w
      }}<PlainButton
        v-if="!disabled"
        :aria-label="`Remove ${w}`"
        @click="
          emit(
            'update:modelValue',
            modelValue.filter(x => x !== w),
          )
        "
      >
        ×
      </PlainButton></span
    ><LineInput
      v-if="!disabled && modelValue.length < most"
      v-model="next"
      class="in"
      :aria-label="`${label}: another`"
      placeholder="another"
      maxlength="200"
      @keydown.enter.prevent="add"
      @blur="add"
    /><em v-else-if="modelValue.length === 0">none</em></span
  >
</template>

<style scoped>
.words {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 5px 7px;
  align-items: center;
  vertical-align: middle;
}
.word {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
  border-radius: 4px;
  padding: 1px 4px 1px 8px;
  font: 500 0.875rem/1.5 var(--ui);
}
.word button {
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
  padding: 0 4px;
}
.in {
  width: 9rem;
  padding: 2px 7px;
  font-size: 0.8125rem;
}
</style>
