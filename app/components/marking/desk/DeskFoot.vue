<script setup lang="ts">
import { points } from '~/composables/marking/points'

/** On a narrow screen: the total, and going on to the next student, within reach of a thumb whatever part is shown. */
defineProps<{
  total: { readonly points: number; readonly max: number; readonly left: number }
  state: string // of the mark
  busy: boolean
}>()
const emit = defineEmits<{ hold: []; return: [] }>()
</script>

<template>
  <div class="desk-foot">
    <span v-if="total.max > 0" class="num sum"
      ><b>{{ points(total.points) }}</b> of {{ points(total.max) }}{{ total.left > 0 ? ' so far' : '' }}</span
    >
    <span class="grow" />
    <v-btn v-if="state === 'held'" class="main" :disabled="busy" @click="emit('return')">Return now</v-btn>
    <span v-else-if="state === 'returned'" class="small muted">returned</span>
    <v-btn v-else class="main" :disabled="busy" @click="emit('hold')">Hold and go on</v-btn>
  </div>
</template>

<style scoped>
.desk-foot {
  display: none;
}
@media (max-width: 1000px) {
  .desk-foot {
    position: sticky;
    bottom: 0;
    z-index: 6;
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 9px 20px calc(9px + env(safe-area-inset-bottom));
    background: var(--sunken);
    border-top: 1px solid var(--line);
  }
}
.sum {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.sum b {
  font: 600 1.25rem/1 var(--read);
  color: var(--ink);
}
</style>
