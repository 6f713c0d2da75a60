<script setup lang="ts">
import { inWords } from '#core/language'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import TextButton from '~/components/controls/TextButton.vue'

/** Who still owes reviews, and what can be done about it. */
const props = defineProps<{
  owing: ReadonlyArray<{ readonly id: string; readonly owes: number }>
  needsRepair: boolean
  names: PeerNames
}>()
const emit = defineEmits<{ write: []; repair: []; practice: []; reviewers: [] }>()
const list = computed(() => props.owing.map(o => `${props.names.lastOf(o.id)}\u00a0${o.owes}`).join(', '))
const writeWords = computed(() =>
  props.owing.length === 1 ? 'Write to the one' : `Write to the ${inWords(props.owing.length)}`,
)
</script>

<template>
  <p v-if="owing.length > 0" class="owed">
    <span><b>Owed:</b> {{ list }}</span
    ><TextButton @click="emit('write')">{{ writeWords }}</TextButton>
  </p>
  <p class="owed">
    <span v-if="needsRepair" class="warn">Some works lack a reader.</span
    ><span :class="{ wide: !needsRepair }"
      ><TextButton @click="emit('repair')">Reassign</TextButton>{{ ' '
      }}<TextButton @click="emit('practice')">Practice round</TextButton>{{ ' '
      }}<TextButton @click="emit('reviewers')">Reviewers</TextButton></span
    >
  </p>
</template>

<style scoped>
.owed {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 0.8125rem;
  border-top: 1px solid var(--line);
  padding-top: 9px;
}
.owed .link {
  white-space: nowrap;
}
.owed .link + .link {
  margin-left: 10px;
}
.wide {
  flex: 1;
  display: flex;
  justify-content: space-between;
}
.warn {
  color: var(--ember);
}
</style>
