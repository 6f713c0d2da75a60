<script setup lang="ts">
import type { ActivityView } from '#shared/contributing/activity'
import ActivityHead from './ActivityHead.vue'

/** The frame of every kind's page: its head, what is read and written, and what stands beside it. */
defineProps<{ activity: ActivityView; ownAt?: string | null; brief?: 'below' }>()
</script>

<template>
  <div class="activity-page">
    <ActivityHead :activity="activity" :own-at="ownAt" :brief="brief" />
    <slot />
  </div>
</template>

<style scoped>
.activity-page {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
/* a window from here on is one frame; pages in one column scroll within it, narrower ones with the window */
@media (min-width: 900px) and (max-width: 1000px) {
  .activity-page {
    overflow: auto;
  }
}
</style>
