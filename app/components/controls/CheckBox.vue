<script setup lang="ts">
/** One thing that is so or not, with its words beside it. */
const on = defineModel<boolean>({ required: true })
defineProps<{ disabled?: boolean }>()
</script>

<template>
  <v-checkbox v-model="on" class="check" density="compact" hide-details :disabled="disabled">
    <template #label><slot /></template>
  </v-checkbox>
</template>

<style scoped>
.check {
  font: inherit;
  flex: none;
  max-width: 100%;
}
.check :deep(.v-selection-control) {
  --v-selection-control-size: 24px;
  min-height: 24px;
  gap: 6px;
}
.check :deep(.v-icon) {
  font-size: 19px;
  color: var(--harbour);
  opacity: 1;
}
.check :deep(.v-label) {
  opacity: 1;
  color: inherit;
  font: inherit;
  white-space: normal;
}
.check :deep(.v-selection-control__input:hover::before),
.check :deep(.v-ripple__container) {
  display: none;
}
.check :deep(.v-selection-control--focus-visible .v-selection-control__input) {
  outline: 2px solid var(--ember);
  border-radius: 4px;
}
.check :deep(.v-selection-control--focus-visible .v-selection-control__input::before) {
  opacity: 0;
}
</style>
