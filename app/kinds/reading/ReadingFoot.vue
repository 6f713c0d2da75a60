<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { plural } from '#core/language'
import type { ReadingView } from '#shared/kinds/reading/reading'
import type { ActivityView } from '#shared/contributing/activity'
import type { MarginNote, useMargin } from '~/kinds/reading/useMargin'
import type { usePlayer } from '~/kinds/reading/usePlayer'
import NotesInOut from './NotesInOut.vue'
import PlayerBar from './PlayerBar.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Below a reading: its player or what it is, its size, and the ways to the next note. */
const follows = defineModel<boolean>('follows', { required: true })
const props = defineProps<{
  activity: ActivityView
  text: NonNullable<ReadingView['text']>
  margin: ReturnType<typeof useMargin>
  player: ReturnType<typeof usePlayer>
  minutes: number | null
  zoom: number
  isStudent: boolean
}>()
const emit = defineEmits<{
  zoom: [factor: number]
  step: [among?: readonly MarginNote[]]
  nextOwn: []
  taken: []
}>()
const openQuestions = computed(() => props.margin.openQuestions.value)
const noteTimes = computed(() =>
  props.margin.all.value.flatMap(m => (m.c.note.time ? [[m.c.note.time[0], m.c.note.time[1]] as const] : [])),
)
const titleAndCredit = computed(() =>
  props.text.credit ? `${props.text.title} · ${props.text.credit}` : props.text.title,
)
const { at, length, playing, speed, problem } = props.player
</script>

<template>
  <footer class="no-print">
    <template v-if="text.form === 'recording' && text.file">
      <audio
        v-if="text.file.type.startsWith('audio/')"
        :ref="player.media"
        :src="text.file.url"
        preload="metadata"
        v-on="player.events"
      />
      <PlayerBar
        :at="at"
        :length="length"
        :playing="playing"
        :speed="speed"
        :problem="problem"
        :follows="follows"
        :notes="noteTimes"
        @toggle="player.toggle"
        @seek="player.seek"
        @speed="speed = $event"
        @follow="follows = $event"
      />
    </template>
    <template v-else>
      <span class="muted">{{ titleAndCredit }}</span>
      <span v-if="minutes" class="muted">{{ minutes }} {{ plural(minutes, 'minute') }} to read</span>
      <span v-if="text.form === 'paper'" class="zoom"
        ><TextButton aria-label="Smaller" @click="emit('zoom', 1 / 1.2)">−</TextButton
        ><span class="num">{{ Math.round(zoom * 100) }} %</span
        ><TextButton aria-label="Larger" @click="emit('zoom', 1.2)">+</TextButton></span
      >
      <span class="grow" />
    </template>
    <NotesInOut :activity="activity" :form="text.form" @taken="emit('taken')" />
    <span class="hints"
      ><TextButton @click="emit('step')">next note <KeyHint of="j" /></TextButton
      ><TextButton :disabled="openQuestions.length === 0" @click="emit('step', openQuestions)">
        next open question <KeyHint of="u" /></TextButton
      ><TextButton v-if="isStudent" @click="emit('nextOwn')">
        next page of yours <KeyHint of="]" /> </TextButton
    ></span>
  </footer>
</template>

<style scoped>
footer {
  flex: none;
  min-height: 34px;
  border-top: 1px solid var(--line);
  display: flex;
  align-items: center;
  gap: 8px 16px;
  padding: 3px 20px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  flex-wrap: wrap;
}
footer > .muted {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 26rem;
}
.zoom {
  display: flex;
  gap: 8px;
  align-items: center;
}
.zoom .link {
  font: 600 1rem/1 var(--ui);
  text-decoration: none;
  padding: 4px 6px;
}
.hints {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
.hints .link {
  font: inherit;
  color: inherit;
  text-decoration: none;
}
.hints .link:hover {
  text-decoration: underline;
}
.grow {
  flex: 1;
}
@media (max-width: 1000px) {
  .hints kbd {
    display: none;
  }
}
@media (max-width: 760px) {
  footer {
    padding: 4px 14px;
  }
}
</style>
