<script setup lang="ts">
import { useSessionStore } from '../stores/session'

const seminars = useSessionStore().session?.seminars ?? []
if (seminars[0]) await navigateTo(`/seminars/${seminars[0].id}`, { replace: true })
useHead({ title: 'Your seminars' })
</script>

<template>
  <main class="none">
    <h1>You are in no seminar yet</h1>
    <p>An instructor adds you to one, or gives you a code to join it with.</p>
  </main>
</template>

<style scoped>
.none { margin: 18vh auto; padding: 0 20px; max-width: 30rem; }
h1 { font: 600 1.4rem/1.3 var(--read); }
p { margin-top: 8px; color: var(--ink-2); }
</style>
