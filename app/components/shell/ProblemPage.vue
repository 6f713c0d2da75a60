<script setup lang="ts">
/** What stands in a page's place when its data could not be had: what happened, and what to do. */
defineProps<{ sentence: string }>()
const emit = defineEmits<{ retry: [] }>()
</script>

<template>
  <main class="problem">
    <div role="alert">
      <h1>This page could not be shown</h1>
      <p>{{ sentence }}</p>
    </div>
    <div class="acts">
      <v-btn class="main" @click="emit('retry')">Try again</v-btn>
      <NuxtLink to="/">Back to the start</NuxtLink>
    </div>
  </main>
</template>

<style scoped>
.problem {
  margin: 12vh auto;
  padding: 0 20px;
  max-width: 34rem;
}
h1 {
  font: 600 1.3125rem/1.3 var(--read);
}
p {
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
  margin-top: 8px;
}
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
  margin-top: 18px;
}
</style>
