<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as peopleEndpoints from '#shared/people/endpoints'

/** Stands above every page of a seminar that was brought back from an archive, until people may be told again. */
const props = defineProps<{ seminarId: string; since: string; mayEnd: boolean }>()
const api = useApi()
const times = useTimes()
const notices = useNotices()
const seminar = useSeminarStore()
const { busy, problem, send } = useSending()

async function end() {
  const done = await send(() =>
    api.call(peopleEndpoints.endSilence, { params: { seminarId: props.seminarId } }),
  )
  if (!done) return
  await seminar.load(props.seminarId)
  notices.say('People are told again from now on. What had become due follows within a minute.')
}
</script>

<template>
  <div class="silence" role="status">
    This seminar was imported from its archive on {{ times.dayTime(since) }}. Until an instructor says so,
    nothing opens, returns or is sent by itself, and nobody is told anything. Rules that write are off.
    <TextButton v-if="mayEnd" :disabled="busy" @click="end">Send mail to people again</TextButton>
    <span v-if="problem" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.silence {
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  padding: 8px 20px;
  font-size: 0.84375rem;
  text-align: center;
}
</style>
