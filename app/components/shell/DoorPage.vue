<script setup lang="ts">
/** A page before one is in: the mark, a heading, and one thing to do. */
defineProps<{ heading: string; lead?: string }>()
</script>

<template>
  <main class="doorway">
    <p class="mark">J<i>o</i>vrel</p>
    <h1>{{ heading }}</h1>
    <p v-if="lead" class="lead">{{ lead }}</p>
    <slot />
  </main>
</template>

<style scoped>
.doorway {
  margin: 11vh auto 40px;
  padding: 0 20px;
  width: 100%;
  max-width: 440px;
  display: grid;
  gap: 12px;
}
.mark {
  font: 600 1.75rem/1 var(--read);
  letter-spacing: -0.02em;
  color: var(--harbour-deep);
  margin-bottom: 12px;
}
.mark i {
  color: var(--ember);
  font-style: normal;
}
h1 {
  font: 600 1.3125rem/1.25 var(--read);
}
.lead {
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
}
.doorway :deep(form) {
  display: grid;
  gap: 16px;
  margin-top: 6px;
}
.doorway :deep(form .main) {
  justify-self: start;
}
@media (max-width: 560px) {
  .doorway {
    margin-top: 5vh;
  }
}
</style>
