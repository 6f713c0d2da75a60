<script setup lang="ts">
import { KIND_PAGES } from '../../../../../components/contributing/kindPages'
import KindTag from '../../../../../components/planning/KindTag.vue'
import ProblemPage from '../../../../../components/shell/ProblemPage.vue'
import { useThreadStore } from '../../../../../stores/thread'

definePageMeta({ layout: 'seminar', key: route => String(route.params.activityId) })
const route = useRoute()
const store = useThreadStore()
const { error, refresh } = await useAsyncData(`thread-${route.params.activityId}`, async () => {
  await store.load(route.params.activityId as string)
  return true
})
useHead({ title: () => store.activity?.title ?? 'Activity' })
const page = computed(() => store.activity ? KIND_PAGES[store.activity.kind] : undefined)
</script>

<template>
  <ProblemPage v-if="error || !store.activity" :sentence="error?.message ?? ''" @retry="refresh()" />
  <component :is="page" v-else-if="page" />
  <main v-else class="brief">
    <KindTag :kind="store.activity.kind" />
    <h1>{{ store.activity.title }}</h1>
    <!-- eslint-disable-next-line vue/no-v-html -- the instructor's brief, sanitised on the server when it was written -->
    <div class="prose" v-html="store.activity.briefHtml" />
  </main>
</template>

<style scoped>
.brief { padding: 24px 20px; max-width: 760px; margin: 0 auto; }
h1 { font: 600 1.4375rem/1.3 var(--read); margin: 8px 0 12px; }
</style>
