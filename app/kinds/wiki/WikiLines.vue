<script setup lang="ts">
import { keyWordsOf } from '#core/kinds/wiki/wikiSettings'
import type { RichNode } from '#core/contributing/richText'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import ChoicePart from '~/components/planning/ChoicePart.vue'
import WordsPart from '~/components/planning/WordsPart.vue'

/** How a wiki is kept, as sentences: whose it is, which pages are suggested, who reads the others'. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
const set = (part: Partial<ActivityBody['wiki']>) => emit('change', { wiki: { ...props.body.wiki, ...part } })
const fromBrief = computed(() => keyWordsOf(props.body.brief as RichNode))
</script>

<template>
  <div class="wiki-lines">
    <p class="line">
      <template v-if="body.audience.kind === 'groups'"
        >Each group writes a wiki of its own; others read it
        <ChoicePart
          label="Who reads other groups"
          :model-value="body.wiki.othersRead"
          :choices="[
            { value: 'never', text: 'never' },
            { value: 'afterWriting', text: 'when the writing is over' },
            { value: 'always', text: 'from the beginning' },
          ]"
          :disabled="disabled"
          @update:model-value="set({ othersRead: $event })"
        />.</template
      ><template v-else
        >The class writes one wiki together. Choose groups above, and each has a wiki of its own.</template
      >
    </p>
    <p class="line">
      Suggested pages:
      <WordsPart
        label="Suggested pages"
        :model-value="body.wiki.keyWords"
        :disabled="disabled"
        :most="60"
        @update:model-value="set({ keyWords: $event })"
      /><span v-if="fromBrief.length > 0" class="hint">
        and, standing out in the brief, {{ fromBrief.join(', ') }}</span
      ><span v-else class="hint"> Words set bold in the brief are suggested, too.</span>
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
.hint {
  font-family: var(--ui);
}
</style>
