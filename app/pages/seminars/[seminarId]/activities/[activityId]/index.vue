<script setup lang="ts">
import { KIND_PAGES } from '~/kinds/pages'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import ActivityBrief from '~/components/planning/ActivityBrief.vue'
import { ruleWords } from '#core/planning/expectationWords'
import { capital } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'

definePageMeta({ layout: 'seminar', key: route => String(route.params.activityId) })
const route = useRoute()
const store = useThreadStore()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const { error, refresh } = await useAsyncData(`thread-${route.params.activityId}`, async () => {
  await store.load(route.params.activityId as string, true)
  return true
})
useHead({ title: () => store.activity?.title ?? 'Activity' })
const page = computed(() => (store.activity ? KIND_PAGES[store.activity.kind] : undefined))
</script>

<template>
  <ProblemPage v-if="error || !store.activity" :sentence="error?.message ?? ''" @retry="refresh()" />
  <component :is="page" v-else-if="page" />
  <main v-else class="brief">
    <KindTag :kind="store.activity.kind" />
    <h1>{{ store.activity.title }}</h1>
    <NuxtLink
      v-if="seminar.shell?.role === 'instructor'"
      class="small"
      :to="`/seminars/${store.activity.seminarId}/activities/${store.activity.id}/plan`"
      >Change how it is planned</NuxtLink
    >
    <ActivityBrief :activity="store.activity" />
    <ul class="asks">
      <li v-for="e in store.activity.expectations" :key="e.id">
        {{ capital(ruleWords(e.rule, store.activity.kind)) }}, by {{ dayTime(e.dueAt) }}
      </li>
    </ul>
  </main>
</template>

<style scoped>
.asks {
  margin: 16px 0;
  padding-left: 1.2em;
  font: 400 0.96875rem/1.6 var(--read);
}
.brief {
  padding: 24px 20px;
  max-width: 760px;
  margin: 0 auto;
}
h1 {
  font: 600 1.4375rem/1.3 var(--read);
  margin: 8px 0 12px;
}
</style>
