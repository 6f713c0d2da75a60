<script setup lang="ts">
import type { ActivityBody, ComposerView, EffectView } from '#shared/planning/composer'
import type { SharedEdit } from '~/composables/shell/useSharedEdit'
import SavedMark from '~/components/shell/SavedMark.vue'
import EffectPanel from '../EffectPanel.vue'
import PublishBar from '../PublishBar.vue'

/** The acts of the whole plan: applying what waits in something published, or publishing a draft. */
const props = defineProps<{
  view: ComposerView
  edit: SharedEdit<ActivityBody>
  live: boolean
  people: number
  disabled: boolean
  effect: EffectView | null
  effectProblem: string | null
}>()
const emit = defineEmits<{
  apply: [andNotify: boolean]
  publish: [opens: string, andNotify: boolean]
  unpublish: []
}>()
const body = computed(() => props.edit.mine.value)
const isUndecided = computed(() => props.edit.clashes.value.length > 0)
const isRefused = computed(() => Boolean(props.effectProblem) || isUndecided.value)
const problem = computed(() => props.effectProblem ?? props.edit.problem.value)
</script>

<template>
  <footer>
    <template v-if="live && edit.changed.value">
      <EffectPanel class="grow" :effect="effect" :problem="problem" />
      <v-btn class="quiet" @click="edit.letGo()">Discard changes</v-btn>
      <v-btn :disabled="isRefused" @click="emit('apply', false)">Save changes</v-btn>
      <v-btn class="main" :disabled="isRefused" @click="emit('apply', true)">Save and tell students</v-btn>
    </template>
    <template v-else-if="live">
      <SavedMark
        class="grow"
        :state="edit.state.value"
        :problem="edit.problem.value"
        :joined="edit.joined.value"
      />
      <NuxtLink :to="`/seminars/${view.seminarId}/activities/${view.id}`">See it</NuxtLink>
      <v-btn v-if="view.contributions === 0" @click="emit('unpublish')">Back to draft</v-btn>
    </template>
    <PublishBar
      v-else
      :view="view"
      :body="body"
      :people="people"
      :disabled="disabled || isUndecided"
      @publish="(opens, andNotify) => emit('publish', opens, andNotify)"
      @unschedule="emit('unpublish')"
      ><SavedMark
        :state="edit.state.value"
        :problem="edit.problem.value"
        :joined="edit.joined.value"
        @retry="edit.save()"
    /></PublishBar>
  </footer>
</template>

<style scoped>
footer {
  grid-column: 1 / -1;
  min-height: 58px;
  padding: 9px 20px 9px 56px;
  background: var(--sunken);
  border-top: 1px solid var(--line);
  display: flex;
  gap: 12px;
  align-items: center;
}
.grow {
  flex: 1;
}
@media (max-width: 1000px) {
  footer {
    padding: 9px 18px;
    flex-wrap: wrap;
    position: sticky;
    bottom: 0;
  }
}
</style>
