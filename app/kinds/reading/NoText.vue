<script setup lang="ts">
/** A reading whose text was not chosen yet. */
const props = defineProps<{ isStaff: boolean; libraryTo: string | null }>()
const sentence = computed(() =>
  props.isStaff
    ? 'No text has been chosen yet. Add one to the library, then choose it, and the pages that are to be read, in the plan of this reading.'
    : 'The text to be read is not here yet.',
)
</script>

<template>
  <div>
    <p class="empty">{{ sentence }}</p>
    <p v-if="libraryTo"><NuxtLink :to="libraryTo">To the library</NuxtLink></p>
  </div>
</template>

<style scoped>
.empty {
  color: var(--ink-2);
  font: 400 1rem/1.55 var(--read);
}
</style>
