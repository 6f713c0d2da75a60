<script setup lang="ts">
import { localDay, localInstant } from '#core/planning/week'
import { useSeminarStore } from '~/stores/seminar'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { useTimes } from '~/composables/planning/useTimes'
import SentencePart from './SentencePart.vue'

/** A moment inside a sentence, by the seminar's clocks. The usual due time is one click. */
const value = defineModel<string>({ required: true })
const props = withDefaults(
  defineProps<{ label: string; disabled?: boolean; due?: boolean; text?: string }>(),
  { disabled: false, due: true, text: undefined },
)
const emit = defineEmits<{ opened: [open: boolean] }>()
const seminar = useSeminarStore()
const { named } = useSeminarZone()
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
      <input
        class="in"
        type="date"
        :value="day"
        :aria-label="`${label}: day`"
        @change="set(($event.target as HTMLInputElement).value, clock)"
      /><input
        class="in"
        type="time"
        :value="clock"
        :aria-label="`${label}: time`"
        @change="set(day, ($event.target as HTMLInputElement).value)"
      />
      {{ named }}
    </p>
    <p v-if="due && clock !== usual" class="numbers">
      <button type="button" class="chip" @click="set(day, usual)">the usual {{ usual }}</button>
    </p>
    <slot />
  </SentencePart>
</template>
