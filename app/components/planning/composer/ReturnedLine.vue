<script setup lang="ts">
import type { ActivityBody } from '#shared/planning/composer'
import ChoicePart from '../ChoicePart.vue'
import TimePart from '../TimePart.vue'

/** Until when marks are returned, and whether all together. */
defineProps<{ body: ActivityBody; endsAt: string; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; end: [at: string] }>()
const CHOICES = [
  { value: true, text: 'all together' },
  { value: false, text: 'one by one' },
]
</script>

<template>
  <p class="line">
    by
    <TimePart
      label="Returned by"
      :model-value="endsAt"
      :disabled="disabled"
      :due="false"
      @update:model-value="emit('end', $event)"
    />; marks and letters are held until you return them,
    <ChoicePart
      label="Returned"
      :model-value="body.returnTogether"
      :choices="CHOICES"
      :disabled="disabled"
      @update:model-value="emit('change', { returnTogether: $event })"
    />.
  </p>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
