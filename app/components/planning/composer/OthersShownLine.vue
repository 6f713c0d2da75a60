<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { ActivityBody } from '#shared/planning/composer'
import { shownOf, withShown, type Shown } from '~/composables/planning/usePlanEdit'
import ChoicePart from '../ChoicePart.vue'
import TimePart from '../TimePart.vue'

/** From when on students see what others write. */
const props = defineProps<{ body: ActivityBody; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; light: [part: string | null] }>()
const CHOICES: ReadonlyArray<{ readonly value: Shown; readonly text: string; readonly note?: string }> = [
  { value: 'open', text: 'open from the start' },
  {
    value: 'own',
    text: 'hidden until their own is in',
    note: 'Write before you read. Staff always see all.',
  },
  { value: 'day', text: 'hidden until a day you choose', note: 'Then everything is shown at once.' },
]
const shown = computed({
  get: () => shownOf(props.body),
  set: value => emit('change', withShown(props.body, value)),
})
const whatShows = computed(() => {
  if (KINDS[props.body.kind].entryType === 'post') return shown.value === 'open' ? 'posts are' : 'posts stay'
  return shown.value === 'open' ? 'work is' : 'work stays'
})
</script>

<template>
  <p class="line">
    Others’
    {{ whatShows }}
    <ChoicePart
      v-model="shown"
      label="What others write is"
      :choices="CHOICES"
      :disabled="disabled"
      @opened="emit('light', $event ? 'writeFirst' : null)"
    /><template v-if="body.hiddenUntil"
      >:
      <TimePart
        label="Shown from"
        :model-value="body.hiddenUntil"
        :disabled="disabled"
        @update:model-value="emit('change', { hiddenUntil: $event })" /></template
    >.
  </p>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
</style>
