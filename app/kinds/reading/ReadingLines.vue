<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'

/** What is read, from where to where, and when others’ notes are seen, as sentences. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
const set = (part: Partial<ActivityBody['reading']>) =>
  emit('change', { reading: { ...props.body.reading, ...part } })
const text = computed(() => props.view.texts.find(t => t.id === props.body.reading.textId) ?? null)
const word = computed(() => {
  if (text.value?.form === 'paper') return 'page'
  if (text.value?.form === 'recording') return 'minute'
  return 'section'
})
const labels = computed(() =>
  (text.value?.labels ?? []).map((label, i) => ({ value: i + 1, text: `${word.value} ${label}` })),
)
const last = computed(() => labels.value.length)
const FORMS = { paper: 'PDF', article: 'text', recording: 'recording' } as const
</script>

<template>
  <div class="reading-lines" data-place="reading">
    <p v-if="view.texts.length === 0" class="line">
      There is no text in the library yet.
      <NuxtLink :to="`/seminars/${view.seminarId}/library#texts`">Add one there</NuxtLink>, then choose it
      here.
    </p>
    <p v-else class="line">
      They read
      <ChoicePart
        label="What is read"
        :model-value="body.reading.textId"
        :choices="[
          ...(body.reading.textId ? [] : [{ value: null, text: 'a text you choose' }]),
          ...view.texts.map(t => ({ value: t.id, text: t.title, note: FORMS[t.form] })),
        ]"
        :disabled="disabled || (view.contributions > 0 && body.reading.textId !== null)"
        @update:model-value="set({ textId: $event, from: 1, to: null })"
      /><template v-if="text && last > 1"
        >, from
        <ChoicePart
          label="From"
          :model-value="Math.min(body.reading.from, last)"
          :choices="labels"
          :disabled="disabled"
          @update:model-value="
            set({
              from: $event,
              to: body.reading.to !== null && body.reading.to < Number($event) ? null : body.reading.to,
            })
          "
        />
        to
        <ChoicePart
          label="To"
          :model-value="body.reading.to ?? last"
          :choices="labels.filter(l => l.value >= body.reading.from)"
          :disabled="disabled"
          @update:model-value="set({ to: Number($event) === last ? null : $event })"
        />; the rest can be read, too</template
      >. Others’ notes on a {{ word }} are seen
      <ChoicePart
        label="When others’ notes are seen"
        :model-value="body.reading.writeFirst"
        :choices="[
          { value: 'none', text: 'at once' },
          {
            value: 'page',
            text: `once one has written on that ${word}`,
            note: 'Write before you read, page by page. Your own notes are seen from the start.',
          },
        ]"
        :disabled="disabled"
        @update:model-value="set({ writeFirst: $event })"
      />.
    </p>
    <p v-if="text" class="hint">
      Your own notes guide the reading:
      <NuxtLink :to="`/seminars/${view.seminarId}/activities/${view.id}`">write starter notes</NuxtLink>, also
      before it opens.
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
