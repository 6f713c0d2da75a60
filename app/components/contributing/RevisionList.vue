<script setup lang="ts">
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import * as contributingEndpoints from '#shared/contributing/endpoints'

/** Earlier texts of a contribution, for staff. */
const props = defineProps<{ contributionId: string }>()
const { dayTime } = useTimes()
const { data, error } = useAsyncData(
  `revisions-${props.contributionId}`,
  () =>
    useApi().call(contributingEndpoints.readRevisions, { params: { contributionId: props.contributionId } }),
  { server: false },
)
</script>

<template>
  <ol class="revisions">
    <li v-if="error" class="field-problem">{{ error.message }}</li>
    <li v-for="r in data?.revisions" :key="r.version">
      <p class="hint">until {{ dayTime(r.replacedAt) }}, {{ r.words }} words</p>
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
      <div class="prose" dir="auto" v-html="r.html" />
    </li>
  </ol>
</template>

<style scoped>
.revisions {
  list-style: none;
  margin: 8px 0 0;
  padding: 0 0 0 14px;
  border-left: 3px solid var(--line);
  display: grid;
  gap: 10px;
}
.prose {
  font-size: 0.90625rem;
  color: var(--ink-2);
}
</style>
