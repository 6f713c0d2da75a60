<script setup lang="ts">
import { onlyChanges, type ChangedBlock } from '#core/kinds/wiki/changedText'
import { plural } from '#core/language'
import { InlineNodes } from './InlineNodes'
import PageBlock from './PageBlock.vue'

/** What changed between two versions: words added and taken out in their places, blocks that stand elsewhere now. */
const props = defineProps<{
  blocks: readonly ChangedBlock[]
  /** Only what changed, with what is left out told by number. */ short?: boolean
}>()
const shown = computed(() => (props.short ? onlyChanges(props.blocks) : props.blocks))
const movedWords = (b: ChangedBlock) => {
  if (b.as === 'movedAway') return 'stood here; it was moved'
  if (b.moved === 'up') return 'moved up'
  return 'moved down'
}
</script>

<template>
  <div class="changed">
    <template v-for="(b, i) in shown" :key="i">
      <p v-if="'leftOut' in b" class="left">{{ b.leftOut }} {{ plural(b.leftOut, 'paragraph') }} unchanged</p>
      <PageBlock
        v-else
        :node="b.node"
        :path="b.path"
        :class="[
          { moved: b.moved !== null || b.as === 'movedAway', away: b.as === 'movedAway' },
          `as-${b.as}`,
        ]"
      >
        <span v-if="b.moved || b.as === 'movedAway'" class="how">{{ movedWords(b) }}</span>
        <template v-for="(part, k) in b.parts" :key="k"
          ><ins v-if="part.as === 'added'"
            ><span class="visually-hidden">added: </span><InlineNodes :nodes="part.nodes" /></ins
          ><del v-else-if="part.as === 'removed'"
            ><span class="visually-hidden">deleted: </span><InlineNodes :nodes="part.nodes" /></del
          ><InlineNodes v-else :nodes="part.nodes"
        /></template>
      </PageBlock>
    </template>
    <p v-if="shown.length === 0 || (short && shown.every(b => 'leftOut' in b))" class="left">
      The two say the same.
    </p>
  </div>
</template>

<style scoped>
.changed {
  display: grid;
  gap: 0.7em;
}
ins {
  text-decoration: underline;
  text-decoration-color: var(--moss);
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
  background: var(--moss-soft);
  color: inherit;
}
del {
  text-decoration: line-through;
  text-decoration-color: var(--brick);
  color: var(--brick);
}
del + ins {
  margin-left: 3px;
}
.moved {
  border-left: 4px double var(--k-review);
  padding-left: 14px;
  margin-left: -18px;
}
.away {
  color: var(--ink-3);
  font-size: 0.9375rem;
}
.away del {
  color: var(--ink-3);
  text-decoration-color: var(--ink-3);
}
.how {
  display: block;
  font: 600 0.75rem/1.5 var(--ui);
  color: var(--k-review);
}
.left {
  font: italic 400 0.84375rem/1.5 var(--read);
  color: var(--ink-3);
}
</style>
