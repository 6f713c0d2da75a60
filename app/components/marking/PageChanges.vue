<script setup lang="ts">
import type { RecordItem } from '#shared/marking/desk'
import RecordLine from './RecordLine.vue'
import type { RecordPiece } from './recordPiece'

/** What a member changed on a page, in its context: what they added can be cited, what stood there or went is only shown. */
const props = defineProps<{
  change: NonNullable<RecordItem['change']>
  /** Lines of what was added, in their order. */ pieces: readonly RecordPiece[][]
  hide: (text: string) => string
}>()
const SHORT = 90 // characters of kept text shown on either side of a change
interface Shown {
  readonly as: 'kept' | 'added' | 'removed'
  readonly text: string
  readonly line: number
}
const blocks = computed(() => {
  let line = -1
  return props.change.blocks.map(block => ({
    ...block,
    parts: block.parts.map((part, i): Shown => ({
      as: part.as,
      line: part.as === 'added' && block.as !== 'movedAway' ? ++line : -1,
      text: part.as === 'kept' ? clip(part.text, i === 0, i === block.parts.length - 1) : part.text,
    })),
  }))
})
/** Kept text, as far as it helps to see where the change stands. */
function clip(text: string, first: boolean, last: boolean): string {
  if (text.length <= 2 * SHORT || (first && last))
    return text.length > 4 * SHORT ? `${text.slice(0, 4 * SHORT)} …` : text
  if (first) return `… ${tail(text)}`
  if (last) return `${head(text)} …`
  return `${head(text)} … ${tail(text)}`
}
const head = (text: string) => text.slice(0, text.lastIndexOf(' ', SHORT))
const tail = (text: string) => text.slice(text.indexOf(' ', text.length - SHORT) + 1)
</script>

<template>
  <div class="changes">
    <p
      v-for="(b, i) in blocks"
      :key="i"
      class="block"
      :class="{ heading: b.heading, moved: b.moved || b.as === 'movedAway' }"
    >
      <em v-if="b.moved || b.as === 'movedAway'" data-skip>{{
        b.as === 'movedAway' ? 'moved from here: ' : `moved ${b.moved}: `
      }}</em><template v-for="(p, k) in b.parts" :key="k"
        ><ins v-if="p.line >= 0" data-line><RecordLine :pieces="pieces[p.line] ?? []" /></ins
        ><del v-else-if="p.as === 'removed'" data-skip>{{ hide(p.text) }}</del
        ><span v-else data-skip class="kept">{{ hide(p.text) }}</span></template
      >
    </p>
    <p v-if="blocks.length === 0" class="kept">Only how words look was changed.</p>
  </div>
</template>

<style scoped>
.changes {
  display: grid;
  gap: 0.5em;
}
.block {
  font: 400 0.96875rem/1.58 var(--read);
}
.heading {
  font-weight: 600;
}
ins {
  text-decoration: underline;
  text-decoration-color: var(--moss);
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
  color: var(--ink);
}
del {
  color: var(--brick);
}
del + ins {
  margin-left: 3px;
}
.kept {
  color: var(--ink-3);
}
.moved {
  border-left: 4px double var(--k-review);
  padding-left: 10px;
}
.moved em {
  font: 600 0.75rem/1 var(--ui);
  color: var(--k-review);
}
</style>
