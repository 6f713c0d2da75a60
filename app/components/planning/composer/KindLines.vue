<script setup lang="ts">
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import LexiconLines from '../LexiconLines.vue'
import ReadingLines from '../ReadingLines.vue'
import ReviewLines from '../ReviewLines.vue'
import TalkLines from '../TalkLines.vue'
import WikiLines from '../WikiLines.vue'

/** The sentences that only an activity of this kind has. */
defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; light: [part: string | null] }>()
</script>

<template>
  <ReviewLines
    v-if="body.kind === 'review'"
    :body="body"
    :view="view"
    :disabled="disabled"
    @change="emit('change', $event)"
  />
  <WikiLines v-if="body.kind === 'wiki'" :body="body" :disabled="disabled" @change="emit('change', $event)" />
  <LexiconLines
    v-if="body.kind === 'lexicon'"
    :body="body"
    :disabled="disabled"
    @change="emit('change', $event)"
  />
  <ReadingLines
    v-if="body.kind === 'reading'"
    :body="body"
    :view="view"
    :disabled="disabled"
    @change="emit('change', $event)"
  />
  <TalkLines
    v-if="body.kind !== 'review'"
    :body="body"
    :disabled="disabled"
    :contributions="view.contributions"
    :sections="view.sections.length"
    @change="emit('change', $event)"
    @light="emit('light', $event)"
  />
</template>
