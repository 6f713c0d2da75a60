<script setup lang="ts">
import type { MarkHistory } from '#shared/marking/desk'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import * as markingEndpoints from '#shared/marking/endpoints'

/** What has happened to a mark: who, when, what and why, newest first. */
const props = defineProps<{ activityId: string; enrolmentId: string; version: number }>()
const api = useApi()
const { dayTime } = useTimes()
const history = shallowRef<MarkHistory | null>(null)
const problem = ref<string | null>(null)
async function load() {
  problem.value = null
  try {
    history.value = await api.call(markingEndpoints.readMarkHistory, {
      params: { activityId: props.activityId, enrolmentId: props.enrolmentId },
    })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(load)
watch(() => [props.activityId, props.enrolmentId, props.version], load)
</script>

<template>
  <section class="history" aria-label="History of this mark">
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p v-else-if="history?.entries.length === 0" class="hint">Nothing has happened to this mark yet.</p>
    <ol v-else>
      <li v-for="(e, i) in history?.entries ?? []" :key="i">
        <b>{{ e.by }}</b> {{ e.text }}<span class="hint">{{ dayTime(e.at) }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.history {
  max-height: 190px;
  overflow-y: auto;
  border-top: 1px solid var(--line-soft);
  margin-top: 10px;
  padding-top: 8px;
}
ol {
  list-style: none;
  display: grid;
  gap: 6px;
  font-size: 0.78125rem;
  line-height: 1.4;
  color: var(--ink-2);
}
b {
  color: var(--ink);
  font-weight: 600;
}
.hint {
  display: block;
}
</style>
