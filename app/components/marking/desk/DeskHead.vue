<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { ActivityView } from '#shared/contributing/activity'
import type { DeskView, RecordView } from '#shared/marking/desk'
import KindTag from '~/components/planning/KindTag.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import ChipButton from '~/components/controls/ChipButton.vue'

/** What is being marked, how far it is, and the acts on all of it. */
const onlyMine = defineModel<boolean>('onlyMine', { required: true })
const props = defineProps<{
  activity: ActivityView
  counts: DeskView['counts'] | null
  record: RecordView | null
  isShared: boolean
  namesHidden: boolean
  held: number
  byRubric: boolean
}>()
const emit = defineEmits<{ names: []; return: [] }>()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
function historyPath(record: RecordView) {
  const group = record.group ? `&group=${record.group.id}` : ''
  return `/seminars/${props.activity.seminarId}/activities/${props.activity.id}/history?student=${record.student.id}${group}`
}
</script>

<template>
  <header class="desk-head">
    <KindTag :kind="activity.kind" />
    <h1>{{ activity.title }}</h1>
    <span class="small muted"
      >{{ activity.closesAt < (seminar.shell?.now ?? '') ? 'closed' : 'closes' }}
      {{ dayTime(activity.closesAt) }}</span
    >
    <span class="grow" />
    <span v-if="counts" class="small num"
      ><b>{{ counts.ready }}</b> ready · <b>{{ counts.held }}</b> held · <b>{{ counts.returned }}</b> returned
      · <b>{{ counts.underWay }}</b> under way</span
    >
    <div class="acts">
      <ChipButton
        v-if="isShared"
        :class="{ on: onlyMine }"
        :aria-pressed="onlyMine"
        @click="onlyMine = !onlyMine"
      >
        only my share
      </ChipButton>
      <v-btn v-if="KINDS[activity.kind].standsIn === 'pages' && record" :to="historyPath(record)"
        >Who wrote what</v-btn
      >
      <v-btn v-if="byRubric" :to="`/seminars/${activity.seminarId}/activities/${activity.id}/criteria`"
        >One criterion at a time</v-btn
      >
      <v-btn :aria-pressed="namesHidden" @click="emit('names')">{{
        namesHidden ? 'Show names' : 'Hide names'
      }}</v-btn>
      <v-btn v-if="held > 0" @click="emit('return')">Return {{ held }} held</v-btn>
    </div>
  </header>
</template>

<style scoped>
.acts {
  display: contents;
}
@media (max-width: 700px) {
  .acts {
    display: flex;
    gap: 8px;
    max-width: 100%;
    padding: 3px;
    margin: -3px;
    overflow-x: auto;
    scrollbar-width: none;
  }
}
</style>
