<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import type { useDeskStore } from '~/stores/desk'

/** Below a wiki's history: on to marking the member at hand, or to the next. */
const props = defineProps<{
  givenName: string
  deskTo: string
  next: string
  state: ReturnType<typeof useDeskStore>['state']
  problem: string | null
}>()
const emit = defineEmits<{ next: [] }>()
const stateWords = computed(() => {
  if (props.problem) return props.problem
  if (props.state === 'saved') return ''
  return props.state === 'saving' ? 'saving …' : props.state
})
</script>

<template>
  <div class="foot">
    <v-btn class="main" :to="deskTo">Mark {{ givenName }}</v-btn
    ><v-btn @click="emit('next')">{{ next }} <KeyHint of="]" /></v-btn
    ><span class="hint" role="status">{{ stateWords }}</span>
  </div>
</template>

<style scoped>
.foot {
  position: sticky;
  bottom: 0;
  background: var(--sunken);
  margin: auto -20px 0;
  padding: 11px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
}
</style>
