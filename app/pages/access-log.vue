<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { LOGGED_ACTS, type AccessLogEntry, type LoggedAct } from '#shared/people/accessLog'
import * as accessLogEndpoints from '#shared/people/accessLogEndpoints'
import TextButton from '../components/controls/TextButton.vue'
import DueFailures from '../components/people/DueFailures.vue'
import ProblemPage from '../components/shell/ProblemPage.vue'
import { useApi } from '../composables/shell/useApi'
import { useSending } from '../composables/shell/useSending'

definePageMeta({ layout: 'plain' })
useHead({ title: 'Access log' })
const api = useApi()
const { busy, problem, send } = useSending()
const find = ref('')
const act = ref<LoggedAct | ''>('')
const query = () => ({ find: find.value, ...(act.value && { act: act.value }) })
const { data, error, refresh } = await useAsyncData('access-log', () =>
  api.call(accessLogEndpoints.readAccessLog, { query: query() }),
)
const { data: due } = await useAsyncData('due-failures', () =>
  api.call(accessLogEndpoints.readDueFailures, {}),
)
const older = ref<AccessLogEntry[]>([])
const hasMore = ref(data.value?.more ?? false)
const entries = computed(() => [...(data.value?.entries ?? []), ...older.value])
const acts = Object.entries(LOGGED_ACTS) as Array<[LoggedAct, string]> // its keys are the acts
async function look() {
  older.value = []
  await refresh()
  hasMore.value = data.value?.more ?? false
}
async function more() {
  const page = await send(() =>
    api.call(accessLogEndpoints.readAccessLog, {
      query: { ...query(), before: entries.value.at(-1)!.id },
    }),
  )
  if (!page) return
  older.value.push(...page.entries)
  hasMore.value = page.more
}
// the reader's own clock is known in the browser only; until then the server's stands there
const zone = ref('UTC')
onMounted(() => {
  zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone
})
const at = computed(
  () => new Intl.DateTimeFormat('en-GB', { timeZone: zone.value, dateStyle: 'medium', timeStyle: 'medium' }),
)
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf">
    <div class="leaf-head">
      <h1>Access log</h1>
      <p class="muted small">who signed in, what was downloaded, and what was refused; kept for 400 days</p>
      <span class="grow" />
      <form class="find" role="search" @submit.prevent="look">
        <label
          ><span class="visually-hidden">Look for</span
          ><LineInput v-model="find" class="in" type="search" placeholder="name, address or seminar"
        /></label>
        <label
          ><span class="visually-hidden">What was done</span
          ><PickList v-model="act" class="in" @change="look">
            <option value="">everything</option>
            <option v-for="[code, label] in acts" :key="code" :value="code">{{ label }}</option>
          </PickList></label
        >
        <v-btn type="submit">Search</v-btn>
      </form>
    </div>
    <DueFailures v-if="due" :failures="due.failures" :at="at" />
    <p v-if="entries.length === 0" class="invite">Nothing of this kind is written down.</p>
    <div v-else class="scroll" tabindex="0" role="region" aria-label="Entries">
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">When ({{ zone }})</th>
            <th scope="col">Who</th>
            <th scope="col">What</th>
            <th scope="col">Outcome</th>
            <th scope="col">Seminar</th>
            <th scope="col">About</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="e in entries" :key="e.id" :class="{ refused: !e.done }">
            <td>{{ at.format(new Date(e.at)) }}</td>
            <td>{{ e.who ?? 'nobody signed in' }}</td>
            <td>{{ LOGGED_ACTS[e.act] }}</td>
            <td>{{ e.done ? 'done' : 'refused' }}</td>
            <td>{{ e.seminar ?? '' }}</td>
            <td class="about">{{ e.about }}</td>
            <td>{{ e.client }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="hasMore" class="more">
      <TextButton :disabled="busy" @click="more">Show older entries</TextButton>
      <span v-if="problem" class="field-problem" role="alert">{{ problem }}</span>
    </p>
  </main>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.find .in {
  max-width: 15rem;
}
.scroll {
  overflow-x: auto;
}
table {
  min-width: 60rem;
}
td:first-child {
  white-space: nowrap;
}
.about {
  min-width: 12rem;
  max-width: 22rem;
  overflow-wrap: anywhere;
  color: var(--ink-3);
}
.refused td:nth-child(4) {
  color: var(--ember);
  font-weight: 600;
}
.more {
  padding: 14px 0;
}
</style>
