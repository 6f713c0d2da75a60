<script setup lang="ts">
import NoticeBar from './components/shell/NoticeBar.vue'
import { useAppearance } from './composables/shell/useAppearance'

useAppearance()
</script>

<template>
  <v-app>
    <NuxtLoadingIndicator class="on-the-way" color="var(--ember)" :throttle="0" />
    <NuxtRouteAnnouncer />
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
    <NoticeBar />
  </v-app>
</template>
