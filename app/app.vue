<script setup lang="ts">
import NoticeBar from './components/shell/NoticeBar.vue'
import { useAppearance } from './composables/shell/useAppearance'

useAppearance()
</script>

<template>
  <v-app>
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
    <NoticeBar />
  </v-app>
</template>
