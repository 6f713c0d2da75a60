<script setup lang="ts">
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import * as markingEndpoints from '#shared/marking/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Feedback' })
const route = useRoute()
const api = useApi()
const { dayTime } = useTimes()
const { data, error, refresh } = await useAsyncData(`letters-${route.params.seminarId}`, () =>
  api.call(markingEndpoints.readOwnLetters, { params: { seminarId: String(route.params.seminarId) } }),
)
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else>
    <h1>Feedback</h1>
    <p v-if="data.letters.length === 0" class="empty">
      No letter has come back yet. When your work has been read, the letter lies here, with the steps you
      reached and the passages it speaks of.
    </p>
    <ul>
      <li v-for="letter in data.letters" :key="letter.activityId">
        <NuxtLink :to="`/seminars/${route.params.seminarId}/activities/${letter.activityId}/letter`">
          <KindTag :kind="letter.kind" /><b>{{ letter.title }}</b
          ><span class="muted">from {{ letter.by }}, {{ dayTime(letter.returnedAt) }}</span
          ><span class="num">{{ letter.shown }}</span>
        </NuxtLink>
      </li>
    </ul>
  </main>
</template>

<style scoped>
main {
  padding: 20px;
  max-width: 820px;
  width: 100%;
  margin: 0 auto;
}
h1 {
  font: 600 1.4375rem/1.2 var(--read);
}
.empty {
  margin-top: 12px;
  font: 400 1rem/1.55 var(--read);
  color: var(--ink-2);
}
ul {
  list-style: none;
  margin-top: 16px;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line);
}
a {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  padding: 14px 6px;
  text-decoration: none;
  color: var(--ink);
}
a:hover {
  background: var(--sheet);
}
b {
  font: 600 1rem/1.3 var(--read);
  flex: 1;
}
</style>
