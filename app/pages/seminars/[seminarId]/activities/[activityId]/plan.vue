<script setup lang="ts">
import ActivityComposer from '~/components/planning/ActivityComposer.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import * as planningEndpoints from '#shared/planning/endpoints'

definePageMeta({ layout: 'seminar', key: route => `plan-${String(route.params.activityId)}` })
const route = useRoute()
const api = useApi()
const {
  data: view,
  error,
  refresh,
} = await useAsyncData(`composer-${route.params.activityId}`, () =>
  api.call(planningEndpoints.readPlannedActivity, {
    params: { activityId: String(route.params.activityId) },
  }),
)
useHead({ title: () => (view.value ? `Planning ${view.value.body.title}` : 'Planning') })
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <ActivityComposer v-else :view="view" @stored="view = $event" @reload="refresh()" />
</template>
