<script setup lang="ts">
import { useSessionStore } from '~/stores/session'

const route = useRoute()
const seminar = useSessionStore().session?.seminars.find(s => s.id === route.params.seminarId)
await navigateTo(`/seminars/${route.params.seminarId}/${seminar?.role === 'student' ? 'week' : 'plan'}`, {
  replace: true,
})
</script>

<template>
  <div />
</template>
