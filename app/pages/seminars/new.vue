<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import type { SeminarWrite } from '#shared/people/settings'
import TermFields from '~/components/people/TermFields.vue'
import { newKey, useApi } from '~/composables/shell/useApi'
import { mondayOf, timeZones } from '~/composables/planning/termWeeks'
import { useSending } from '~/composables/shell/useSending'
import { useSessionStore } from '~/stores/session'
import * as peopleEndpoints from '#shared/people/endpoints'

definePageMeta({ layout: 'plain' })
useHead({ title: 'Set up a seminar' })
const api = useApi()
const session = useSessionStore()
const { busy, problems, problem, send } = useSending()
const today = useState('new-seminar-day', () => new Date().toISOString().slice(0, 10))
// the id is made here: a wish sent again after a lost answer makes one seminar, not two
const id = newKey()
const seminar = reactive({ title: '', code: '', college: '', timeZone: 'Europe/Amsterdam' })
const term = ref({
  firstDay: mondayOf(today.value),
  weeks: 12,
  breaks: [] as Array<{ week: number; title: string }>,
})
const zones = ref<string[]>([seminar.timeZone])
onMounted(() => {
  zones.value = timeZones()
  seminar.timeZone = zones.value[0]!
})
async function found() {
  const made = await send(() =>
    api.call(peopleEndpoints.makeSeminar, {
      body: {
        id,
        ...seminar,
        ...term.value,
      } satisfies SeminarWrite,
    }),
  )
  if (!made) return
  await session.load()
  await navigateTo(`/seminars/${made.seminarId}/people`)
}
</script>

<template>
  <main class="leaf narrow">
    <div class="leaf-head"><h1>Set up a seminar</h1></div>
    <form novalidate @submit.prevent="found">
      <label class="lab title"
        >Title<LineInput
          v-model="seminar.title"
          class="in"
          :aria-invalid="Boolean(problems.title)"
          placeholder="Harbour Cities, 1500–1800"
          autofocus
        /><small v-if="problems.title" class="field-problem" role="alert">{{ problems.title }}</small></label
      >
      <div class="row">
        <label class="lab"
          >Short code<LineInput
            v-model="seminar.code"
            class="in"
            :aria-invalid="Boolean(problems.code)"
            placeholder="HC 342"
          /><small v-if="problems.code" class="field-problem" role="alert">{{ problems.code }}</small></label
        >
        <label class="lab">College<LineInput v-model="seminar.college" class="in" /></label>
        <label class="lab"
          >Time zone<PickList v-model="seminar.timeZone" class="in">
            <option v-for="zone in zones" :key="zone">{{ zone }}</option>
          </PickList></label
        >
      </div>
      <TermFields v-model="term" :problems="problems" />
      <p v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">
        {{ problem }}
      </p>
      <p class="end">
        <v-btn class="main" type="submit" :disabled="busy">Set it up</v-btn
        ><span class="hint">Everything can be changed later. Next come the people.</span>
      </p>
    </form>
  </main>
</template>

<style scoped>
.narrow {
  max-width: 860px;
  padding-top: 30px;
}
form {
  display: grid;
  gap: 18px;
}
.title .in {
  font: 600 1.25rem/1.3 var(--read);
  padding: 9px 11px;
}
.row {
  display: grid;
  grid-template-columns: 9rem 1fr 1fr;
  gap: 14px;
}
.end {
  display: flex;
  gap: 16px;
  align-items: center;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
