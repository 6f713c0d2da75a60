<script setup lang="ts">
import { useSeminarStore } from '~/stores/seminar'

const seminar = useSeminarStore()
const base = computed(() => `/seminars/${seminar.shell?.id}`)
</script>

<template>
  <div class="tabs">
    <h1 class="visually-hidden">People and groups</h1>
    <NuxtLink v-if="seminar.isStaff" :to="`${base}/people`">People</NuxtLink>
    <NuxtLink :to="`${base}/groups`">Groups</NuxtLink>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 22px;
  align-items: baseline;
  margin-bottom: 10px;
}
a {
  font: 600 1.3125rem/1.25 var(--read);
  color: var(--ink-3);
  text-decoration: none;
  padding-bottom: 3px;
}
a:hover {
  color: var(--ink);
}
a.router-link-active {
  color: var(--ink);
  box-shadow: inset 0 -2px 0 var(--ember);
}
</style>
