<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'

/** How a discussion goes, as sentences: who opens threads, what is replied to, under which names. */
defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
</script>

<template>
  <p class="line">
    Threads are opened by
    <ChoicePart
      label="Who opens threads"
      :model-value="body.threads"
      :choices="[
        { value: 'everyone', text: 'everyone', note: 'One scenario, under which each opens a thread.' },
        { value: 'staff', text: 'staff only', note: 'You put one or several questions; all answer them.' },
      ]"
      :disabled="disabled"
      @update:model-value="emit('change', { threads: $event })"
    />; one replies
    <ChoicePart
      label="Replies"
      :model-value="body.replies"
      :choices="[
        { value: 'any', text: 'to anything' },
        { value: 'top', text: 'to the opening post only' },
      ]"
      :disabled="disabled"
      @update:model-value="emit('change', { replies: $event })"
    />. Names are
    <ChoicePart
      label="Names"
      :model-value="body.namesHidden"
      :choices="[
        { value: false, text: 'shown' },
        {
          value: true,
          text: 'hidden from classmates',
          note: 'Each goes by another name in each thread. Staff always know who wrote.',
        },
      ]"
      :disabled="disabled"
      @update:model-value="emit('change', { namesHidden: $event })"
    />.
  </p>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
