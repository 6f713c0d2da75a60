<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import type { VoicesView } from '#shared/voices/voices'
import { useSeminarStore } from '~/stores/seminar'
import ActivityPicker, { type ActivityFilter } from './ActivityPicker.vue'
import VoicesTabs from './VoicesTabs.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Of which activities, of whom and of which weeks the voices are; each choice goes into the address. */
const props = defineProps<{
  view: VoicesView
  activities: ActivityFilter
  sectionId: string | undefined
  groupId: string | undefined
  narrowed: boolean
}>()
const emit = defineEmits<{ change: [query: Record<string, string | undefined>] }>()
const seminar = useSeminarStore()
const weeks = computed(() => seminar.shell?.weeks ?? [])
const population = computed({
  get: () => {
    if (props.sectionId) return `s${props.sectionId}`
    return props.groupId ? `g${props.groupId}` : ''
  },
  set: chosen =>
    emit('change', {
      section: chosen.startsWith('s') ? chosen.slice(1) : undefined,
      group: chosen.startsWith('g') ? chosen.slice(1) : undefined,
    }),
})
const setActivities = ({ kind, ids }: ActivityFilter) =>
  emit('change', {
    kind,
    activity: ids.length === 1 ? ids[0] : undefined,
    among: ids.length > 1 ? ids.join(',') : undefined,
  })
// the span never turns round: one end takes the other along
const from = computed({
  get: () => props.view.from,
  set: week => emit('change', { from: String(week), to: String(Math.max(props.view.to, week)) }),
})
const to = computed({
  get: () => props.view.to,
  set: week => emit('change', { to: String(week), from: String(Math.min(props.view.from, week)) }),
})
</script>

<template>
  <div class="bar">
    <VoicesTabs />
    <span class="grow" />
    <span class="pick"
      >of <ActivityPicker :activities="view.activities" :filter="activities" @filter="setActivities"
    /></span>
    <label v-if="view.sections.length + view.groups.length > 0" class="pick"
      >by
      <PickList v-model="population" class="in" aria-label="Whose voices">
        <option value="">everyone</option>
        <optgroup v-if="view.sections.length > 0" label="Sections">
          <option v-for="s in view.sections" :key="s.id" :value="`s${s.id}`">{{ s.title }}</option>
        </optgroup>
        <optgroup v-if="view.groups.length > 0" label="Groups">
          <option v-for="g in view.groups" :key="g.id" :value="`g${g.id}`">{{ g.title }}</option>
        </optgroup>
      </PickList></label
    >
    <label v-if="!seminar.chosenWeek" class="pick"
      >weeks
      <PickList v-model.number="from" class="in" aria-label="From week">
        <option v-for="w in weeks" :key="w.number" :value="w.number">{{ w.number }}</option></PickList
      >–<PickList v-model.number="to" class="in" aria-label="To week">
        <option v-for="w in weeks" :key="w.number" :value="w.number">{{ w.number }}</option>
      </PickList></label
    >
    <TextButton
      v-if="!seminar.chosenWeek && narrowed"
      class="small"
      @click="emit('change', { from: undefined, to: undefined })"
    >
      all of it
    </TextButton>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 4px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.pick {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.pick .in {
  max-width: 15rem;
  padding: 4px 8px;
  font-size: 0.8125rem;
}
@media (max-width: 1000px) {
  .grow {
    display: none;
  }
  .bar :deep(.tabs) {
    width: 100%;
  }
}
</style>
