<script setup lang="ts">
import { localDay, localInstant } from '#core/planning/week'
import { useSeminarStore } from '~/stores/seminar'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { useTimes } from '~/composables/planning/useTimes'
import SentencePart from './SentencePart.vue'
import ClockField from '~/components/controls/ClockField.vue'
import DayField from '~/components/controls/DayField.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** A moment inside a sentence, by the seminar's clocks. The usual due time is one click. */
const value = defineModel<string>({ required: true })
const props = withDefaults(
  defineProps<{ label: string; disabled?: boolean; due?: boolean; text?: string }>(),
  { disabled: false, due: true, text: undefined },
)
const emit = defineEmits<{ opened: [open: boolean] }>()
const seminar = useSeminarStore()
const { named, today } = useSeminarZone()
const { dayTime, time } = useTimes()
const zone = computed(() => seminar.shell?.timeZone ?? 'UTC')
const day = computed(() => localDay(new Date(value.value), zone.value))
const clock = computed(() => time(value.value))
const set = (d: string, t: string) => {
  if (d && t) value.value = localInstant(d, t, zone.value).toISOString()
}
const usual = computed(() => seminar.shell?.usualDueTime ?? '23:59')
</script>

<template>
  <SentencePart
    :text="props.text ?? dayTime(value)"
    :label="label"
    :disabled="disabled"
    @opened="emit('opened', $event)"
  >
    <p class="numbers">
      <DayField
        :model-value="day"
        :label="`${label}: day`"
        :today="today"
        @update:model-value="set($event, clock)"
      /><ClockField :model-value="clock" :label="`${label}: time`" @update:model-value="set(day, $event)" />
      {{ named }}
    </p>
    <p v-if="due && clock !== usual" class="numbers">
      <ChipButton @click="set(day, usual)">the usual {{ usual }}</ChipButton>
    </p>
    <slot />
  </SentencePart>
</template>
