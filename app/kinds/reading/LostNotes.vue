<script setup lang="ts">
import type { MarginNote } from '~/kinds/reading/useMargin'
import { capital, inWords, plural } from '#core/language'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import SideNote from './SideNote.vue'

/** Notes whose words are gone from the newest version of a text: kept, with the words they were written to. */
defineProps<{
  notes: readonly MarginNote[]
  desk: TalkDesk
  openNotes: ReadonlySet<string>
  lit: string | null
}>()
const emit = defineEmits<{ toggle: [id: string]; settle: [id: string, settled: boolean] }>()
</script>

<template>
  <section v-if="notes.length > 0" class="lost" aria-label="Notes whose words are gone">
    <h2>
      {{ capital(inWords(notes.length)) }}
      {{ plural(notes.length, 'note whose words are', 'notes whose words are') }} no longer in this text
    </h2>
    <div v-for="m in notes" :key="m.c.id">
      <p class="was">“{{ m.c.note.passage?.exact }}”</p>
      <SideNote
        :note="m"
        :letter="null"
        :desk="desk"
        :open="openNotes.has(m.c.id)"
        :lit="lit === m.c.id"
        :target="null"
        :target-page="null"
        @toggle="emit('toggle', m.c.id)"
        @settle="s => emit('settle', m.c.id, s)"
      />
    </div>
  </section>
</template>

<style scoped>
.lost {
  padding: 16px var(--gutter) 40px;
  background: var(--sunken);
  border-top: 1px solid var(--line);
}
.lost h2 {
  font: 600 1rem/1.3 var(--read);
  margin-bottom: 8px;
}
.lost > div {
  padding: 8px 0 8px 20px;
  max-width: 44rem;
  border-top: 1px solid var(--line-soft);
}
.was {
  font: italic 400 0.875rem/1.4 var(--read);
  color: var(--ink-3);
  text-decoration: line-through;
}
</style>
