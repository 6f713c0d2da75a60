<script setup lang="ts">
import { readClock } from '#core/planning/readDay'
import TypedField from './TypedField.vue'

/** A time of day, typed as pages write it ("23:59") or shorter ("9", "9.30 pm"). */
const clock = defineModel<string>({ required: true }) // "23:59"; empty where none is chosen
defineProps<{ label: string; disabled?: boolean; invalid?: boolean }>()
</script>

<template>
  <TypedField
    v-model="clock"
    class="clock-field"
    :label="label"
    :shown="clock"
    :read="readClock"
    refusal="This is not a time. Write it like “23:59”."
    placeholder="23:59"
    :disabled="disabled"
    :invalid="invalid"
  />
</template>

<style scoped>
.clock-field :deep(.in) {
  width: 4.75rem;
}
</style>
