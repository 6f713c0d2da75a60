<script setup lang="ts">
import ClockField from './ClockField.vue'
import DayField from './DayField.vue'

/** A day and a time, by the clocks of the seminar. */
const moment = defineModel<string>({ required: true }) // "2026-11-29T23:59"; empty where none is chosen
const props = defineProps<{
  label: string
  today: string
  /** The time that goes with a day until another is typed. */
  usual: string
  disabled?: boolean
}>()
const day = computed({
  get: () => moment.value.slice(0, 10),
  set: chosen => (moment.value = `${chosen}T${clock.value || props.usual}`),
})
const clock = computed({
  get: () => moment.value.slice(11, 16),
  set: typed => (moment.value = `${day.value || props.today}T${typed}`),
})
</script>

<template>
  <span class="moment" role="group" :aria-label="label"
    ><DayField v-model="day" :label="`${label}: day`" :today="today" :disabled="disabled" /><ClockField
      v-model="clock"
      :label="`${label}: time`"
      :disabled="disabled"
  /></span>
</template>

<style scoped>
.moment {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
