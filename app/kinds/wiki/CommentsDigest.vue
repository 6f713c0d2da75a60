<script setup lang="ts">
import { inWords } from '#core/language'
import type { PageView } from '#shared/kinds/wiki/wiki'
import { useTimes } from '~/composables/planning/useTimes'

/** The comments on a page in brief: which were acted on, and since when others are open. */
const props = defineProps<{ comments: PageView['comments'] }>()
type Comment = PageView['comments'][number]
const { shortDayTime } = useTimes()
const roots = computed(() => props.comments.filter(c => c.parentId === null && !c.withdrawn))
const summary = computed(() => {
  const open = roots.value.filter(c => !c.resolved).length
  return `${roots.value.length}, ${open === 0 ? 'all acted on' : `${inWords(open)} open`}`
})
const ENTITIES: Readonly<Record<string, string>> = {
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&#39;': "'",
}
const plain = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/&(?:amp|lt|gt|quot|#39);/g, entity => ENTITIES[entity]!)
    .replace(/\s+/g, ' ')
    .trim()
const stateOf = ({ resolved, shownAt }: Comment) =>
  resolved
    ? `acted on in version ${resolved.number} by ${resolved.writer.givenName}`
    : `open since ${shortDayTime(shownAt).split(' ')[0]}`
</script>

<template>
  <section v-if="roots.length > 0" class="talk">
    <h2>
      Comments on this page <span>{{ summary }}</span>
    </h2>
    <p v-for="c in roots" :key="c.id" class="comment" :class="{ done: c.resolved }">
      <span
        ><em>{{ c.author.isMe ? 'You' : c.author.givenName }}</em> {{ plain(c.html) }}</span
      ><b>{{ stateOf(c) }}</b>
    </p>
  </section>
</template>

<style scoped>
h2 {
  font: 650 0.8125rem/18px var(--ui);
  margin: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.comment {
  border-left: 2.5px dashed var(--ember);
  padding-left: 12px;
  margin-top: 9px;
  font: 400 0.9375rem/1.35 var(--read);
}
.comment span {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.comment.done {
  border-left: 2.5px solid var(--moss);
}
.comment em {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
  margin-right: 3px;
}
.comment b {
  font: 600 0.75rem/17px var(--ui);
  color: var(--ember);
}
.comment.done b {
  color: var(--moss);
}
</style>
