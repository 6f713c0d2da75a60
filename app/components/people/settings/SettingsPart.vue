<script setup lang="ts">
/** One part of the settings: its name at the side, and sentences with fields in them. */
defineProps<{ title: string }>()
</script>

<template>
  <section>
    <h2>{{ title }}</h2>
    <slot />
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 8px 26px;
  padding: 18px 0;
  border-top: 1px solid var(--line);
}
h2 {
  font: 600 1rem/1.4 var(--read);
}
:deep(.sentence) {
  font: 400 1rem/2.1 var(--read);
  margin-top: 6px;
}
:deep(.sentence .in),
:deep(.row .in) {
  font: 600 0.9375rem/1.3 var(--read);
  color: var(--harbour-deep);
  padding: 3px 7px;
}
:deep(.title) {
  width: 14rem;
}
@media (max-width: 700px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
