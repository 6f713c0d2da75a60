<script setup lang="ts">
import { plainText, type RichNode } from '#core/contributing/richText'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView } from '#shared/marking/desk'
import TwoTexts from '../contributing/TwoTexts.vue'
import { points } from '~/composables/marking/points'

const props = defineProps<{ mine: MarkView; theirs: MarkView; rubric: RubricView }>()
const emit = defineEmits<{ choose: [mine: boolean] }>()
const words = (mark: MarkView) =>
  [
    props.rubric.criteria
      .map(
        c =>
          `${c.title}: ${(level => (level ? points(level.points) : '—'))(c.levels.find(l => mark.steps.some(s => s.levelId === l.id)))}`,
      )
      .join('\n'),
    plainText(mark.letter as RichNode),
    mark.markerNote && `Note: ${mark.markerNote}`,
  ]
    .filter(Boolean)
    .join('\n\n')
</script>

<template>
  <TwoTexts
    :sentence="`${theirs.savedBy ?? 'Someone'} saved this mark meanwhile. Nothing was overwritten; choose what stays.`"
    :mine="words(mine)"
    :theirs="words(theirs)"
    :their-name="theirs.savedBy ?? 'The other'"
    @choose="emit('choose', $event)"
  />
</template>
