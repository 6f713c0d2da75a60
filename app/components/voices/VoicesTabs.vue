<script setup lang="ts">
import { useSeminarStore } from '~/stores/seminar'

/** Who speaks, to whom one has spoken, and what one has written to them. */
const seminar = useSeminarStore()
const base = computed(() => `/seminars/${seminar.shell?.id}`)
const route = useRoute()
const at = (path: string) => route.path.startsWith(`${base.value}/${path}`)
const fresh = computed(() => seminar.shell?.messages.fresh ?? 0)
</script>

<template>
  <nav class="tabs" aria-label="Voices">
    <NuxtLink :to="`${base}/voices`" :aria-current="at('voices') ? 'page' : undefined">Voices</NuxtLink>
    <NuxtLink :to="`${base}/presence`" :aria-current="at('presence') ? 'page' : undefined">Presence</NuxtLink>
    <NuxtLink :to="`${base}/messages`" :aria-current="at('messages') ? 'page' : undefined"
      >Messages<b v-if="fresh > 0" class="num">{{ fresh }}</b></NuxtLink
    >
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 20px;
  align-items: baseline;
}
a {
  font: 600 0.84375rem/1.3 var(--ui);
  color: var(--ink-2);
  text-decoration: none;
  padding: 3px 0 4px;
}
a:hover {
  color: var(--ink);
}
a[aria-current] {
  color: var(--ink);
  box-shadow: inset 0 -2px 0 var(--ember);
}
b {
  color: var(--ember);
  margin-left: 5px;
}
</style>
