<script setup lang="ts">
import type { RichNode } from '#core/contributing/richText'

/** The frame of one block of a page where it is compared or shaded: a heading, an item of a list, a cell, a picture, a formula. */
const props = defineProps<{ node: RichNode; path: readonly string[] }>()
const tag = computed(() => {
  if (props.node.type === 'heading') return props.node.attrs?.level === 4 ? 'h4' : 'h3'
  return 'p'
})
const kind = computed(
  () => ['tableHeader', 'tableCell', 'listItem', 'blockquote'].find(t => props.path.includes(t)) ?? null,
)
const lists = computed(() => props.path.filter(t => t === 'listItem').length)
</script>

<template>
  <component
    :is="tag"
    class="block"
    :class="kind"
    :style="lists > 1 ? { marginLeft: `${lists * 1.2}em` } : undefined"
  >
    <img
      v-if="node.type === 'image'"
      :src="String(node.attrs?.src ?? '')"
      :alt="String(node.attrs?.alt ?? '')"
    /><code v-else-if="node.type === 'blockMath'">{{ node.attrs?.latex }}</code>
    <hr v-else-if="node.type === 'horizontalRule'" />
    <slot v-else />
  </component>
</template>

<style scoped>
.block {
  font: 400 1.0625rem/1.55 var(--read);
  overflow-wrap: anywhere;
}
h3.block {
  font: 600 1.25rem/1.35 var(--read);
}
h4.block {
  font: 600 1.0625rem/1.35 var(--read);
}
.listItem {
  position: relative;
  padding-left: 1.2em;
}
.listItem::before {
  content: '–';
  position: absolute;
  left: 0;
  color: var(--ink-3);
}
.blockquote {
  border-left: 3px solid var(--line);
  padding-left: 0.9em;
  font-style: italic;
}
.tableCell,
.tableHeader {
  border: 1px solid var(--line);
  padding: 2px 8px;
  font: 400 0.875rem/1.45 var(--ui);
}
.tableHeader {
  background: var(--sunken);
  font-weight: 600;
}

.block :deep(code) {
  white-space: pre-wrap;
}
:deep(.note-mark) {
  font: 500 0.6875rem/1 var(--ui);
  color: var(--ink-3);
}
img {
  max-width: min(100%, 22rem);
  max-height: 12rem;
  border-radius: 4px;
}
</style>
