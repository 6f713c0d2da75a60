<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'

/** Who reads the entries of a journal, as a sentence. */
defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
</script>

<template>
  <p class="line">
    Entries are read by
    <ChoicePart
      label="Who reads entries"
      :model-value="body.opening"
      :choices="[
        { value: 'staff', text: 'staff only' },
        { value: 'author', text: 'staff, and by the class where the author opens one' },
        { value: 'class', text: 'the whole class', note: 'Also those already written.' },
      ]"
      :disabled="disabled"
      @update:model-value="emit('change', { opening: $event })"
    />.
    <span v-if="body.opening === 'class' && view.contributions > 0" class="warn"
      >What was written in confidence so far becomes readable for the class, too.</span
    >
  </p>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
.warn {
  display: block;
  font: 400 0.84375rem/1.5 var(--ui);
  color: var(--ember);
}
</style>
