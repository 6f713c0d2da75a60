<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import LineInput from '~/components/controls/LineInput.vue'
import { clock } from '~/composables/files/clock'
import TextButton from '~/components/controls/TextButton.vue'

/** What plays, how far it is, how fast, and where its notes are. */
const props = defineProps<{
  at: number
  length: number
  playing: boolean
  speed: number
  problem: boolean
  follows: boolean
  notes: ReadonlyArray<readonly [number, number]>
}>()
const emit = defineEmits<{ toggle: []; seek: [at: number]; speed: [speed: number]; follow: [on: boolean] }>()
const SPEEDS = [0.8, 1, 1.25, 1.5]
const share = (s: number) => `${props.length > 0 ? (s / props.length) * 100 : 0}%`
</script>

<template>
  <div class="player">
    <v-btn class="main" @click="emit('toggle')">{{ playing ? 'Pause' : 'Play' }} <KeyHint of="p" /></v-btn>
    <span class="num">{{ clock(at) }}</span>
    <span class="line">
      <i v-for="(t, i) in notes" :key="i" class="at" :style="{ left: share(t[0]) }" />
      <LineInput
        type="range"
        min="0"
        :max="Math.max(1, length)"
        step="0.5"
        :value="at"
        aria-label="Place in the recording"
        :aria-valuetext="clock(at)"
        :style="{ '--done': share(at) }"
        @input="emit('seek', Number(($event.target as HTMLInputElement).value))"
      />
    </span>
    <span class="num muted">{{ clock(length) }}</span>
    <span class="speeds" role="group" aria-label="Speed"
      ><TextButton
        v-for="s in SPEEDS"
        :key="s"
        class="num"
        :class="{ on: s === speed }"
        :aria-pressed="s === speed"
        @click="emit('speed', s)"
      >
        {{ s }}×
      </TextButton></span
    >
    <TextButton :aria-pressed="follows" @click="emit('follow', !follows)">
      {{ follows ? 'the text follows' : 'make the text follow' }}
    </TextButton>
    <span v-if="problem" class="field-problem" role="alert"
      >It cannot be played here. Its transcript can be read all the same.</span
    >
  </div>
</template>

<style scoped>
.player {
  display: flex;
  align-items: center;
  gap: 12px;
  flex: 1;
  min-width: 0;
  flex-wrap: wrap;
}
.line {
  position: relative;
  flex: 1;
  min-width: 120px;
  height: 22px;
  display: flex;
  align-items: center;
}
.at {
  position: absolute;
  top: 0;
  width: 2px;
  height: 7px;
  background: var(--k-reading);
  pointer-events: none;
}
input {
  appearance: none;
  width: 100%;
  height: 22px;
  background: none;
  margin: 0;
  cursor: pointer;
}
input::-webkit-slider-runnable-track {
  height: 3px;
  background: linear-gradient(to right, var(--harbour) var(--done), var(--spine) var(--done));
}
input::-moz-range-track {
  height: 3px;
  background: linear-gradient(to right, var(--harbour) var(--done), var(--spine) var(--done));
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 5px;
  height: 17px;
  margin-top: -7px;
  background: var(--harbour);
  border-radius: 1px;
}
input::-moz-range-thumb {
  width: 5px;
  height: 17px;
  background: var(--harbour);
  border: 0;
  border-radius: 1px;
}
.speeds {
  display: flex;
  gap: 8px;
}
.speeds .link {
  text-decoration: none;
  color: var(--ink-3);
}
.speeds .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
</style>
