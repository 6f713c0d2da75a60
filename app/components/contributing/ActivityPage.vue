<script setup lang="ts">
import type { ActivityView } from '#shared/contributing/activity'
import type { Key } from '~/composables/shell/useKeys'
import KeyList from '../shell/KeyList.vue'
import ActivityHead from './ActivityHead.vue'

/** The frame of every kind's page: its head, what is read and written, what stands beside it, and the list of its keys. */
defineProps<{ activity: ActivityView; keys: readonly Key[]; ownAt?: string | null; brief?: 'below' }>()
const listOpen = defineModel<boolean>('listOpen', { required: true })
</script>

<template>
  <div class="activity-page">
    <ActivityHead :activity="activity" :own-at="ownAt" :brief="brief" />
    <slot />
    <KeyList v-model="listOpen" :keys="keys" />
  </div>
</template>

<style scoped>
.activity-page {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
@media (max-width: 1000px) {
  .activity-page {
    overflow: auto;
  }
}
</style>
