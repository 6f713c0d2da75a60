<script setup lang="ts">
import { dateFormat } from '#core/language/dateFormat'
import { readDay } from '#core/planning/readDay'
import CardMenu from './CardMenu.vue'
import MonthGrid from './MonthGrid.vue'
import TypedField from './TypedField.vue'

/** A day, typed as pages write it ("29 Nov") or chosen from a month. */
const day = defineModel<string>({ required: true }) // "2026-11-29"; empty where none is chosen
const props = defineProps<{
  label: string
  /** Now, as a day: years are left out around it. */
  today: string
  disabled?: boolean
  invalid?: boolean
}>()
const HALF_YEAR = 182 * 86_400_000
const shown = computed(() => {
  if (day.value === '') return ''
  const isFar = Math.abs(Date.parse(day.value) - Date.parse(props.today)) > HALF_YEAR
  const format = dateFormat('en-GB', {
    timeZone: 'UTC',
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: isFar ? 'numeric' : undefined,
  })
  return format
    .format(new Date(day.value))
    .replaceAll(',', '')
    .replace(/Sept\b/, 'Sep')
})
const open = ref(false)
const read = (text: string) => readDay(text, day.value || props.today)
function choose(chosen: string) {
  day.value = chosen
  open.value = false
}
</script>

<template>
  <TypedField
    v-model="day"
    class="day-field"
    :label="label"
    :shown="shown"
    :read="read"
    refusal="This is not a day. Write it like “29 Nov”."
    placeholder="29 Nov"
    :disabled="disabled"
    :invalid="invalid"
    ><CardMenu v-model="open" :label="`${label}: choose a day`" location="bottom start"
      ><template #opener="{ opener }"
        ><button
          v-bind="opener"
          type="button"
          class="opens"
          :disabled="disabled"
          :aria-label="`${label}: choose from a month`"
        >
          <svg width="15" height="15" viewBox="0 0 15 15" aria-hidden="true">
            <path d="M1.5 3.5h12v10h-12zM1.5 6.5h12M5 1.5v3M10 1.5v3" />
          </svg></button
      ></template>
      <div class="month-card"><MonthGrid :day="day || today" :today="today" @choose="choose" /></div>
    </CardMenu>
  </TypedField>
</template>

<style scoped>
.day-field :deep(.in) {
  width: 9.25rem;
  padding-inline-end: 30px;
}
.opens {
  width: 28px;
  height: 28px;
  margin-inline-start: -30px;
  border: 0;
  border-radius: 4px;
  background: none;
  cursor: pointer;
  display: grid;
  place-items: center;
  color: var(--ink-2);
}
.opens:hover {
  color: var(--ink);
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.3;
}
.month-card {
  padding: 10px 12px 12px;
}
</style>
