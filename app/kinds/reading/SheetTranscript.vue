<script setup lang="ts">
import { useGap } from '~/kinds/reading/useGap'
import { clock } from '~/composables/files/clock'
import TextButton from '~/components/controls/TextButton.vue'
import { useTermsStore } from '~/stores/terms'

interface Line {
  readonly from: number
  readonly to: number
  readonly voice: string | null
  readonly text: string
  readonly start: number
  readonly end: number
}
/**
 * A stretch of a transcript, line by line, with the seminar's terms lit up in it; the line that is being said is
 * lit, and each begins to play from its time.
 */
const props = defineProps<{ lines: readonly Line[]; currentLineStart: number | null }>()
const emit = defineEmits<{ drawn: [root: HTMLElement]; play: [at: number] }>()
const terms = useTermsStore()
const linked = computed(() => terms.linkLines(props.lines.map(l => l.text)))
const { root, shown, part, close } = useGap(
  () => linked.value,
  r => emit('drawn', r),
)
defineExpose({ part, close, root })
</script>

<template>
  <div ref="root" class="transcript">
    <div
      v-for="(line, i) in lines"
      :key="line.start"
      class="said"
      :class="{ on: currentLineStart === line.start, turn: i === 0 || lines[i - 1]!.voice !== line.voice }"
    >
      <span class="who" data-not-text
        ><TextButton
          class="num"
          :aria-label="`Play from ${clock(line.from)}`"
          @click="emit('play', line.from)"
        >
          {{ clock(line.from) }}</TextButton
        ><b v-if="line.voice && (i === 0 || lines[i - 1]!.voice !== line.voice)">{{ line.voice }}</b></span
      >
      <!-- eslint-disable-next-line vue/no-v-html -- plain text, made HTML with links of our own -->
      <p v-html="shown[i]" />
    </div>
  </div>
</template>

<style scoped>
.transcript {
  max-width: 39rem;
  margin: 0 auto;
  font: 400 1.0625rem/1.55 var(--read);
}
.said {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 0 14px;
  padding: 1px 0;
}
.turn {
  padding-top: 9px;
}
.who {
  display: flex;
  flex-direction: row-reverse;
  justify-content: flex-start;
  gap: 8px;
  align-items: baseline;
  font: 500 0.75rem/1.4 var(--ui);
  color: var(--ink-2);
}
.who .link {
  color: var(--ink-3);
  font-size: 0.75rem;
  text-decoration: none;
  min-width: 30px;
  text-align: right;
}
.who .link:hover {
  text-decoration: underline;
}
.on p {
  background: linear-gradient(var(--harbour-soft), var(--harbour-soft));
  box-shadow: -4px 0 0 var(--harbour);
}
@media (max-width: 760px) {
  .said {
    grid-template-columns: 44px minmax(0, 1fr);
    gap: 0 8px;
  }
  .who b {
    display: none;
  }
}
</style>
