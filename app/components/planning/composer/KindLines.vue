<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { KIND_LINES } from '~/kinds/lines'
import TalkLines from '../TalkLines.vue'

/** The sentences that only an activity of this kind has, and those about the talk. */
defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; light: [part: string | null] }>()
</script>

<template>
  <component
    :is="KIND_LINES[body.kind]"
    v-if="KIND_LINES[body.kind]"
    :body="body"
    :view="view"
    :disabled="disabled"
    @change="emit('change', $event)"
  />
  <TalkLines
    v-if="!KINDS[body.kind].handsIn"
    :body="body"
    :disabled="disabled"
    :sections="view.sections.length"
    @change="emit('change', $event)"
    @light="emit('light', $event)"
  />
</template>
