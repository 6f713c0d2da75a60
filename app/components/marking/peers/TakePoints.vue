<script setup lang="ts">
import { points } from '~/composables/marking/points'
import type { Take } from '~/stores/peers'

/** What can become the mark: the readers' consensus, the marker's own points, each by a button that says so; or what is held. */
const props = defineProps<{
  mark: { readonly state: 'open' | 'held' | 'returned'; readonly points: number } | null
  takenFrom: 'consensus' | null
  /** What each would come to, hundredths; null while it cannot be taken. */
  takes: Readonly<Record<Take, number | null>>
  /** The consensus is not what was taken any more. */
  hasMoved: boolean
  /** The marker's own points are not what was taken. */
  ownDiffers: boolean
  worth: number
  busy: boolean
  deskTo: string
}>()
const emit = defineEmits<{ take: [what: Take]; reopen: [] }>()
const isSettled = computed(() => props.mark?.state === 'held' || props.mark?.state === 'returned')
const outOf = (taken: number | null) => (taken === null ? null : `${points(taken)} / ${points(props.worth)}`)
const consensusWords = computed(() => outOf(props.takes.consensus))
const ownWords = computed(() => outOf(props.takes.own))
const settledWords = computed(() => {
  if (!props.mark) return ''
  const from = props.takenFrom === 'consensus' ? ', the consensus' : ''
  return `${outOf(props.mark.points)}${from}`
})
const mayTakeOwn = computed(() => props.takes.own !== null && (!isSettled.value || props.ownDiffers))
</script>

<template>
  <div class="acts">
    <template v-if="mark && isSettled">
      <p class="done">
        <b>{{ mark.state === 'held' ? 'Held' : 'Returned' }}: {{ settledWords }}</b>
      </p>
      <p v-if="hasMoved" class="moved" role="status">
        {{
          mark.state === 'held'
            ? `The consensus is ${consensusWords} now; what is held is what it was when it was taken.`
            : `The consensus is ${consensusWords} now; what was returned stays as it is until you reopen it.`
        }}
      </p>
      <v-btn :disabled="busy" @click="emit('reopen')">Reopen</v-btn>
      <v-btn
        v-if="hasMoved && mark.state === 'held' && consensusWords"
        :disabled="busy"
        @click="emit('take', 'consensus')"
        >Use the consensus again: {{ consensusWords }}</v-btn
      >
    </template>
    <v-btn v-else class="main" :disabled="busy || consensusWords === null" @click="emit('take', 'consensus')"
      >Use the consensus{{ consensusWords ? `: ${consensusWords}` : '' }} <kbd>↵</kbd></v-btn
    >
    <v-btn v-if="mayTakeOwn && mark?.state !== 'returned'" :disabled="busy" @click="emit('take', 'own')"
      >Use your points: {{ ownWords }}</v-btn
    >
    <v-btn :to="deskTo">Mark it myself</v-btn>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.done,
.moved {
  flex: 1 1 100%;
  font-size: 0.84375rem;
}
.moved {
  color: var(--ink-2);
  line-height: 1.45;
}
</style>
