<script setup lang="ts">
import { listed } from '#core/language'
import * as markingEndpoints from '#shared/marking/endpoints'
import { useApi } from '~/composables/shell/useApi'

/** Other markers who have the same record open. */
const props = defineProps<{ activityId: string; studentId: string; given: string }>()
const EVERY = 15_000 // milliseconds
const api = useApi()
const others = ref<readonly string[]>([])
async function say() {
  if (document.visibilityState !== 'visible') return
  const id = props.studentId
  const answer = await api
    .call(markingEndpoints.noteMarkerHere, { params: { activityId: props.activityId, enrolmentId: id } })
    .catch(() => null) // without a line nobody knows; what is saved is checked in any case
  if (id === props.studentId) others.value = answer?.others.map(o => o.name) ?? []
}
let timer: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  watch(
    () => props.studentId,
    () => {
      others.value = []
      void say()
    },
    { immediate: true },
  )
  timer = setInterval(() => void say(), EVERY)
  document.addEventListener('visibilitychange', say)
})
onBeforeUnmount(() => {
  clearInterval(timer)
  document.removeEventListener('visibilitychange', say)
})
const sentence = computed(() => {
  if (others.value.length === 0) return ''
  const verb = others.value.length === 1 ? 'has' : 'have'
  return `${listed(others.value)} ${verb} ${props.given}’s record open, too.`
})
</script>

<template>
  <p role="status" :class="{ here: sentence !== '' }">{{ sentence }}</p>
</template>

<style scoped>
.here {
  padding: 6px 20px;
  font-size: 0.8125rem;
  background: var(--ember-soft);
  color: var(--ink);
}
</style>
