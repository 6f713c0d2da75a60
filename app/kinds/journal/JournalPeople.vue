<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useTimes } from '~/composables/planning/useTimes'
import type { JournalAuthor } from '~/composables/contributing/journalAuthors'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Whose journals there are, and which of them waits for a word. */
defineProps<{
  authors: readonly JournalAuthor[]
  shownId: string | null
  isStudent: boolean
  notHeard: readonly string[]
}>()
const emit = defineEmits<{ choose: [id: string] }>()
const { date } = useTimes()
function stateOf(author: JournalAuthor, isStudent: boolean) {
  if (author.fresh > 0) return `${author.fresh} new`
  if (!isStudent && author.waits) return 'not answered yet'
  return date(author.last)
}
</script>

<template>
  <nav class="people" aria-label="Whose journal">
    <h2>
      {{ isStudent ? 'Opened to the class' : 'Journals' }}
      <span v-if="!isStudent" class="keys"><KeyHint of="j" /><KeyHint of="k" /></span>
    </h2>
    <PlainButton
      v-for="a in authors"
      :key="a.id"
      :class="{ on: a.id === shownId }"
      :aria-current="a.id === shownId ? 'true' : undefined"
      @click="emit('choose', a.id)"
    >
      <b>{{ a.isMe ? 'Your own' : a.name }}</b><span class="num">{{ a.entries.length }}</span
      ><em>{{ stateOf(a, isStudent) }}</em>
    </PlainButton>
    <p v-if="notHeard.length > 0" class="hint">Nothing yet: {{ notHeard.join(', ') }}.</p>
  </nav>
</template>

<style scoped>
.people {
  overflow: auto;
  padding: 14px 12px 20px;
  border-right: 1px solid var(--line);
}
.people h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  margin-bottom: 8px;
  display: flex;
  justify-content: space-between;
  padding: 0 8px;
}
.keys {
  display: flex;
  gap: 3px;
}
.people button {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 5px 8px;
  border-radius: var(--r);
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink);
}
.people button b {
  font-weight: 550;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.people em {
  grid-column: 1 / -1;
  font-style: normal;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.people button:hover {
  background: var(--sunken);
}
.people .on {
  background: var(--harbour-soft);
}
.people .on em {
  color: var(--ink-2);
}
.people .on b {
  font-weight: 650;
  color: var(--harbour-deep);
}
.people .hint {
  padding: 8px;
}
@media (max-width: 1000px) {
  .people {
    border-right: 0;
    border-bottom: 1px solid var(--line);
    max-height: 30vh;
  }
}
</style>
