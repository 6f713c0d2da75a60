<script setup lang="ts">
import { useGap } from '~/kinds/reading/useGap'
import { useTermsStore } from '~/stores/terms'

/** One section of an article, with the seminar's terms lit up in it. It parts under the line where a note is written. */
const props = defineProps<{ html: string }>()
const emit = defineEmits<{ drawn: [root: HTMLElement] }>()
const terms = useTermsStore()
const linked = computed(() => terms.link(props.html))
const { root, shown, part, close } = useGap(
  () => linked.value,
  r => emit('drawn', r),
)
defineExpose({ part, close, root })
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when the text was added -->
  <div ref="root" class="article" dir="auto" v-html="shown" />
</template>

<style scoped>
.article {
  font: 400 1.0625rem/1.62 var(--read);
  color: var(--ink);
  max-width: 38rem;
  margin: 0 auto;
  overflow-wrap: break-word;
}
.article :deep(h1) {
  font: 600 1.5rem/1.25 var(--read);
  letter-spacing: -0.01em;
  margin: 0 0 14px;
  text-wrap: balance;
}
.article :deep(h2) {
  font: 600 1.1875rem/1.3 var(--read);
  margin: 6px 0 10px;
}
.article :deep(h3),
.article :deep(h4) {
  font: 600 1.0625rem/1.35 var(--read);
  margin: 14px 0 6px;
}
.article :deep(p + p) {
  margin-top: 0.75em;
}
.article :deep(blockquote) {
  margin: 0.8em 0;
  padding-left: 16px;
  border-left: 2px solid var(--spine);
  color: var(--ink-2);
}
.article :deep(ul),
.article :deep(ol) {
  padding-left: 1.4em;
  margin: 0.6em 0;
}
.article :deep(table) {
  border-collapse: collapse;
  margin: 0.8em 0;
  font-size: 0.9375rem;
}
.article :deep(td),
.article :deep(th) {
  border-bottom: 1px solid var(--line);
  padding: 3px 12px 3px 0;
  text-align: left;
}
.article :deep(img) {
  display: block;
  max-width: 100%;
  height: auto;
  margin: 0.9em auto 0.4em;
}
.article :deep(figcaption) {
  font: 400 0.875rem/1.45 var(--ui);
  color: var(--ink-2);
}
.article :deep(sup) {
  font-size: 0.75em;
  line-height: 0;
}
</style>
