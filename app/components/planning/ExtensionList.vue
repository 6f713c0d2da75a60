<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { clockAt } from '#core/planning/localTime'
import { daysLater } from '#core/planning/proposeSchedule'
import { localDay, localInstant } from '#core/planning/week'
import type { ComposerView } from '#shared/planning/composer'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useTimes } from '~/composables/planning/useTimes'
import { termOfShell } from '~/composables/planning/termOfShell'
import { useSeminarStore } from '~/stores/seminar'
import { useNotices } from '~/stores/notices'
import TimePart from './TimePart.vue'
import * as planningEndpoints from '#shared/planning/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** More time for single people, with the reason for those who mark. Given at once, taken back with an undo. */
const props = defineProps<{ view: ComposerView; closesAt: string; disabled: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { send, problem, attempt } = useSending()
const { dayTime, now } = useTimes()
const seminar = useSeminarStore()
const adding = ref(false)
const wish = reactive({ enrolmentId: '', dueAt: '', reason: '' })
/** Three days after it closes or, where that is over, from today; not in a break. */
function threeDaysMore() {
  const term = termOfShell(seminar.shell!)
  const closes = new Date(props.closesAt)
  if (closes >= now.value) return daysLater(closes, 3, term).toISOString()
  const today = localInstant(
    localDay(now.value, term.timeZone),
    clockAt(closes, term.timeZone),
    term.timeZone,
  )
  return daysLater(today, 3, term).toISOString()
}
function begin() {
  Object.assign(wish, {
    enrolmentId: '',
    dueAt: threeDaysMore(),
    reason: '',
  })
  adding.value = true
}
async function give() {
  if (!wish.enrolmentId) {
    problem.value = 'Choose for whom.'
    return
  }
  if (
    !(await send(() =>
      api.call(planningEndpoints.giveExtension, {
        params: { activityId: props.view.id, enrolmentId: wish.enrolmentId },
        body: { dueAt: wish.dueAt, reason: wish.reason },
      }),
    ))
  )
    return
  adding.value = false
  emit('changed')
  notices.say(
    `${props.view.people.find(p => p.id === wish.enrolmentId)?.name} has time until ${dayTime(wish.dueAt)}.`,
  )
}
const take = (e: ComposerView['extensions'][number]) =>
  attempt(async () => {
    await api.call(planningEndpoints.removeExtension, {
      params: { activityId: props.view.id, enrolmentId: e.enrolmentId },
    })
    emit('changed')
    notices.say(`${e.name}'s extension is removed.`, {
      label: 'Undo',
      run: async () => {
        await attempt(() =>
          api.call(planningEndpoints.giveExtension, {
            params: { activityId: props.view.id, enrolmentId: e.enrolmentId },
            body: { dueAt: e.dueAt, reason: e.reason },
          }),
        )
        emit('changed')
      },
    })
  })
</script>

<template>
  <div class="extensions">
    <p v-for="e in view.extensions" :key="e.enrolmentId">
      {{ e.name }} has until {{ dayTime(e.dueAt) }} <span class="hint">{{ e.reason }}</span>{{ ' '
      }}<TextButton v-if="!disabled" class="small" @click="take(e)">remove</TextButton>
    </p>
    <form v-if="adding" @submit.prevent="give">
      <PickList v-model="wish.enrolmentId" class="in" aria-label="For whom">
        <option value="">somebody …</option>
        <option v-for="p in view.people" :key="p.id" :value="p.id">{{ p.name }}</option>
      </PickList>
      has until <TimePart v-model="wish.dueAt" label="Extended until" />, because
      <LineInput v-model="wish.reason" class="in" placeholder="why, for those who mark" aria-label="Reason" />
      <TextButton type="submit">Give more time</TextButton>{{ ' '
      }}<TextButton @click="adding = false">cancel</TextButton>
      <span v-if="problem" class="field-problem" role="alert">{{ problem }}</span>
    </form>
    <TextButton v-else-if="!disabled" class="small" @click="begin"> + more time for somebody </TextButton>
  </div>
</template>

<style scoped>
.extensions {
  font: 400 0.9375rem/1.9 var(--read);
  display: grid;
  justify-items: start;
}
.in {
  padding: 2px 6px;
}
</style>
