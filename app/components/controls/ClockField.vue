<script setup lang="ts">
import { readClock } from '#core/planning/readDay'

/** A time of day, typed as pages write it ("23:59") or shorter ("9", "9.30 pm"). */
const clock = defineModel<string>({ required: true }) // "23:59"; empty where none is chosen
defineProps<{ label: string; disabled?: boolean; invalid?: boolean }>()
const wrong = ref(false)
const id = useId()
function type({ target }: Event) {
  const field = target as HTMLInputElement // its own event
  const typed = readClock(field.value)
  wrong.value = typed === null && field.value.trim() !== ''
  if (!typed) return
  clock.value = typed
  void nextTick(() => (field.value = clock.value))
}
</script>

<template>
  <span class="clock-field">
    <input
      class="in num"
      type="text"
      inputmode="numeric"
      autocomplete="off"
      :value="clock"
      :aria-label="label"
      :aria-invalid="wrong || invalid"
      :aria-describedby="wrong ? `${id}-wrong` : undefined"
      :disabled="disabled"
      placeholder="23:59"
      @change="type"
      @focus="($event.target as HTMLInputElement).select()"
    /><span v-if="wrong" :id="`${id}-wrong`" class="field-problem" role="alert"
      >This is not a time. Write it like “23:59”.</span
    >
  </span>
</template>

<style scoped>
.clock-field {
  display: inline-flex;
  flex-wrap: wrap;
}
.in {
  width: 4.75rem;
}
.field-problem {
  flex-basis: 100%;
}
</style>
