<script setup lang="ts">
import CheckBox from '~/components/controls/CheckBox.vue'
import { daysLater } from '#core/planning/proposeSchedule'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { plural } from '#core/language'
import { termOfShell } from '~/composables/planning/termOfShell'
import { useSeminarStore } from '~/stores/seminar'
import { useTimes } from '~/composables/planning/useTimes'
import TimePart from './TimePart.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** When it opens, whether students are told, and the act itself. */
const props = defineProps<{ view: ComposerView; body: ActivityBody; people: number; disabled: boolean }>()
const emit = defineEmits<{ publish: [opens: string, notifies: boolean]; unschedule: [] }>()
const { now, dayTime } = useTimes()
const seminar = useSeminarStore()
const SOON = 3_600_000 // milliseconds: what was to open within the hour opens on publishing
const planned = computed(() => Date.parse(props.body.opensAt) > now.value.getTime() + SOON)
const tomorrow = () => daysLater(now.value, 1, termOfShell(seminar.shell!)).toISOString()
const opens = ref<'now' | 'planned' | 'day'>(planned.value ? 'planned' : 'now')
// a day is chosen from its own opening, or from tomorrow
const day = ref(planned.value ? props.body.opensAt : tomorrow())
const notifies = ref(true)
const at = computed(() => {
  if (opens.value === 'now') return 'now'
  if (opens.value === 'planned') return props.body.opensAt
  return day.value
})
const label = computed(
  () => `${opens.value === 'now' ? 'Publish' : 'Schedule'}${notifies.value ? ' and tell students' : ''}`,
)
</script>

<template>
  <template v-if="view.isTemplate"
    ><span class="grow">A template: plan activities from it with “Plan an activity”.</span><slot
  /></template>
  <template v-else-if="view.state === 'scheduled'">
    <span class="grow">It opens by itself {{ dayTime(body.opensAt) }}.</span><slot />
    <v-btn :disabled="disabled" @click="emit('unschedule')">Back to draft</v-btn
    ><v-btn class="main" :disabled="disabled" @click="emit('publish', 'now', notifies)">Publish it now</v-btn>
  </template>
  <template v-else>
    <span class="opens">Opens</span>
    <ChipButton :class="{ on: opens === 'now' }" :aria-pressed="opens === 'now'" @click="opens = 'now'">
      on publishing
    </ChipButton>
    <ChipButton
      v-if="planned"
      :class="{ on: opens === 'planned' }"
      :aria-pressed="opens === 'planned'"
      @click="opens = 'planned'"
    >
      {{ dayTime(body.opensAt) }}
    </ChipButton>
    <ChipButton v-if="opens !== 'day'" @click="opens = 'day'">choose a day …</ChipButton>
    <span v-else class="chosen"><TimePart v-model="day" label="Opens" :due="false" /></span>
    <span class="grow" /><slot />
    <CheckBox v-model="notifies" class="tell"
      >{{ people }} {{ plural(people, 'student gets', 'students get') }} a note and an e-mail</CheckBox
    >
    <NuxtLink class="v-btn draft" :to="`/seminars/${view.seminarId}/plan`">Save as draft</NuxtLink>
    <v-btn class="main" :disabled="disabled" @click="emit('publish', at, notifies)">{{ label }}</v-btn>
  </template>
</template>

<style scoped>
.opens {
  color: var(--ink-2);
  font-size: 0.8125rem;
}
.grow {
  flex: 1;
}
.tell {
  display: flex;
  gap: 6px;
  font-size: 0.8125rem;
  color: var(--ink-2);
  align-items: center;
}
.draft {
  display: inline-flex;
  align-items: center;
}
.chosen {
  font-size: 0.9375rem;
}
</style>
