<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'

/** Whose blog it is, as a sentence. */
defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
</script>

<template>
  <p class="line">
    It is
    <ChoicePart
      label="Whose blog"
      :model-value="body.layout"
      :choices="[
        { value: 'stream', text: 'one blog for the class' },
        { value: 'own', text: 'a blog for each student' },
      ]"
      :disabled="disabled"
      @update:model-value="emit('change', { layout: $event })"
    />; it can be switched at any time, nothing moves but the view.
  </p>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
