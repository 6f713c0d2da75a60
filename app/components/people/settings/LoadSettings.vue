<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { SettingsBody } from '#shared/people/settings'
import { numberOf } from '~/composables/shell/fieldOf'
import SettingsPart from './SettingsPart.vue'

/** What the plan counts as load, and how long a silence is pointed out. */
defineProps<{ settings: SettingsBody }>()
const emit = defineEmits<{ change: [part: Partial<SettingsBody>] }>()
</script>

<template>
  <SettingsPart title="Load and presence">
    <div>
      <p class="sentence">
        The plan expects reading at
        <LineInput
          class="in short"
          type="number"
          min="50"
          max="1000"
          :value="settings.pace.readingWordsPerMinute"
          aria-label="Words read a minute"
          @input="emit('change', { pace: { ...settings.pace, readingWordsPerMinute: numberOf($event) } })"
        />
        words a minute, writing at
        <LineInput
          class="in short"
          type="number"
          min="1"
          max="100"
          :value="settings.pace.writingWordsPerMinute"
          aria-label="Words written a minute"
          @input="emit('change', { pace: { ...settings.pace, writingWordsPerMinute: numberOf($event) } })"
        />, and marking for
        <LineInput
          class="in short"
          type="number"
          min="0"
          max="120"
          :value="settings.pace.markingMinutesPerStudent"
          aria-label="Minutes of marking a student"
          @input="emit('change', { pace: { ...settings.pace, markingMinutesPerStudent: numberOf($event) } })"
        />
        minutes a student besides reading.
      </p>
      <p class="sentence">
        It says so when a week asks more than
        <LineInput
          class="in short"
          type="number"
          min="1"
          max="60"
          :value="settings.studentHoursLimit"
          aria-label="Hours of students"
          @input="emit('change', { studentHoursLimit: numberOf($event) })"
        />
        hours of students or
        <LineInput
          class="in short"
          type="number"
          min="1"
          max="60"
          :value="settings.markingHoursLimit"
          aria-label="Hours of marking"
          @input="emit('change', { markingHoursLimit: numberOf($event) })"
        />
        of you.
      </p>
      <p class="sentence">
        A student without a word from you for
        <LineInput
          class="in short"
          type="number"
          min="1"
          max="120"
          :value="settings.presenceGapDays"
          aria-label="Days without a word"
          @input="emit('change', { presenceGapDays: numberOf($event) })"
        />
        days is pointed out.
      </p>
    </div>
  </SettingsPart>
</template>
