<script setup lang="ts">
import type { EditState } from '~/composables/shell/useSharedEdit'
import TextButton from '~/components/controls/TextButton.vue'

/** Where one's changes are: said in words, always at the same place. */
const props = defineProps<{ state: EditState; problem: string | null; joined: string | null }>()
const emit = defineEmits<{ retry: [] }>()
const words = computed(
  () =>
    ({
      saved: 'saved',
      changed: 'changed …',
      saving: 'saving …',
      refused: '',
      'kept here': 'kept in this browser',
      clash: 'two texts',
    })[props.state],
)
</script>

<template>
  <p class="saved" aria-live="polite">
    <span v-if="joined" class="joined">{{ joined }} saved something meanwhile; both are kept. </span>
    <span v-if="problem" class="problem" role="alert">{{ problem }} </span>
    <span v-else>{{ words }}</span>
    <TextButton v-if="state === 'kept here' || (state === 'refused' && problem)" @click="emit('retry')">
      Try again
    </TextButton>
  </p>
</template>

<style scoped>
.saved {
  font-size: 0.78125rem;
  color: var(--ink-3);
}
.link {
  margin-left: 6px;
}
.problem {
  color: var(--brick);
}
.joined {
  color: var(--harbour);
}
</style>
