<script setup lang="ts">
import type { TalkDesk } from '~/components/contributing/talkDesk'
import type { MarginNote } from '~/kinds/reading/useMargin'
import SideNote from './SideNote.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Notes that are read between the lines of the text, where there is no margin. */
defineProps<{
  notes: readonly MarginNote[]
  desk: TalkDesk
  openNotes: ReadonlySet<string>
  labelOf: (part: number) => string
}>()
const emit = defineEmits<{
  toggle: [id: string]
  follow: [id: string]
  settle: [id: string, settled: boolean]
  tag: [tag: string]
  play: [at: number]
  close: []
}>()
const targetOf = (n: MarginNote) => n.c.note.to?.passage.exact ?? null
</script>

<template>
  <div class="below">
    <SideNote
      v-for="n in notes"
      :key="n.c.id"
      :note="n"
      :letter="null"
      :desk="desk"
      :open="openNotes.has(n.c.id)"
      :lit="false"
      :target="targetOf(n)"
      :target-page="n.c.note.to ? labelOf(n.c.note.to.part) : null"
      @toggle="emit('toggle', n.c.id)"
      @follow="emit('follow', n.c.id)"
      @settle="emit('settle', n.c.id, $event)"
      @tag="emit('tag', $event)"
      @play="emit('play', $event)"
    />
    <p><TextButton @click="emit('close')">close</TextButton></p>
  </div>
</template>

<style scoped>
.below {
  background: var(--paper);
  border-block: 1px solid var(--line);
  padding: 10px 14px 6px 22px;
  display: grid;
  gap: 10px;
}
.below .link {
  font: 500 0.8125rem/1.4 var(--ui);
}
</style>
