<script setup lang="ts">
import ProblemPage from './components/shell/ProblemPage.vue'
import { useAppearance } from './composables/shell/useAppearance'

const props = defineProps<{ error: { statusCode?: number; statusMessage?: string } }>()
useAppearance()
const sentence = computed(() =>
  props.error.statusCode === 404
    ? 'There is nothing at this address, or it is not open to you.'
    : props.error.statusMessage || 'Something went wrong on our side. Nothing was changed.',
)
</script>

<template>
  <v-app>
    <ProblemPage :sentence="sentence" @retry="clearError({ redirect: '/' })" />
  </v-app>
</template>
