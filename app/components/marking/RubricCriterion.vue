<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { maxOf, type CriterionDraft } from '#core/marking/rubric/rubricDraft'
import type { OfferedOutcome } from '~/composables/marking/offeredOutcome'
import { points } from '~/composables/marking/points'
import OutcomePicker from '~/components/marking/OutcomePicker.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** What one criterion of a rubric judges, for whom, how much it weighs, and of what it is evidence. */
const props = defineProps<{
  criterion: CriterionDraft
  row: number
  outcomes: readonly OfferedOutcome[]
  faults: readonly string[]
  hasFault: boolean
  readonly: boolean
}>()
const emit = defineEmits<{ change: [part: Partial<CriterionDraft>]; move: [by: number]; drop: [] }>()
const HEAVIEST = 10
const text = (event: Event) => (event.target as HTMLInputElement).value // the field's own event
const name = computed(() => props.criterion.title || 'this criterion')
const weightWords = computed(() =>
  props.criterion.weight > 1 ? `points, weighted ${props.criterion.weight} times` : 'points',
)
const setTitle = (event: Event) => emit('change', { title: text(event).replace(/\n/g, ' ') })
const setScope = (event: Event) => emit('change', { scope: text(event) === 'group' ? 'group' : 'own' })
const setWeight = (event: Event) => emit('change', { weight: Number(text(event)) })
const setSuggestion = (event: Event) =>
  emit('change', { suggestFrom: text(event) === 'timeliness' ? 'timeliness' : null })
</script>

<template>
  <div class="side">
    <PlainButton
      v-if="!readonly"
      class="grip"
      :aria-label="`Move ${name} with the arrow keys`"
      title="Drag, or use the arrow keys"
      @keydown.up.prevent.stop="emit('move', -1)"
      @keydown.down.prevent.stop="emit('move', 1)"
    >
      <i /><i />
    </PlainButton>
    <div class="what">
      <LinesInput
        rows="1"
        class="name"
        :data-row="row"
        data-column="0"
        :value="criterion.title"
        :readonly="readonly"
        placeholder="What is judged"
        :aria-invalid="hasFault"
        @input="setTitle"
      />
      <p class="meta">
        <b class="num">{{ points(maxOf(criterion) * criterion.weight) }}</b> {{ weightWords }}
      </p>
      <p class="meta">
        <PickList
          :value="criterion.scope"
          :disabled="readonly"
          aria-label="For whom it is set"
          @change="setScope"
        >
          <option value="own">each student</option>
          <option value="group">whole group</option>
        </PickList>
        <PickList
          :value="String(criterion.weight)"
          :disabled="readonly"
          aria-label="Weight"
          @change="setWeight"
        >
          <option v-for="w in HEAVIEST" :key="w" :value="String(w)">× {{ w }}</option>
        </PickList>
      </p>
      <p class="meta">
        <PickList
          :value="criterion.suggestFrom ?? ''"
          :disabled="readonly"
          aria-label="Where a step is suggested from"
          @change="setSuggestion"
        >
          <option value="">judged by reading</option>
          <option value="timeliness">suggested from the times</option>
        </PickList>
      </p>
      <div v-if="outcomes.length > 0" class="meta">
        <OutcomePicker
          :outcomes="outcomes"
          :chosen="criterion.outcomes"
          :criterion="name"
          :readonly="readonly"
          @choose="emit('change', { outcomes: $event })"
        />
      </div>
      <p v-for="fault in faults" :key="fault" class="field-problem">{{ fault }}</p>
      <TextButton v-if="!readonly" class="small" @click="emit('drop')">Remove</TextButton>
    </div>
  </div>
</template>

<style scoped>
.side {
  flex: none;
  width: 230px;
  display: flex;
  gap: 6px;
  padding: 10px 12px 10px 0;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
  gap: 7px;
  justify-items: start;
  align-content: start;
}
.grip {
  border: 0;
  background: none;
  padding: 7px 3px;
  cursor: grab;
  display: grid;
  gap: 3px;
  align-self: start;
}
.grip i {
  width: 12px;
  height: 2px;
  background: var(--spine);
}
.grip:hover i {
  background: var(--ink-3);
}
.name {
  border: 0;
  background: transparent;
  color: inherit;
  font: 600 0.9375rem/1.3 var(--read);
  field-sizing: content;
  width: 100%;
  padding: 2px 4px;
  border-radius: 3px;
  resize: none;
  min-width: 0;
}
.name:hover:not([readonly]) {
  background: color-mix(in srgb, var(--ember) 7%, transparent);
}
.name:focus {
  outline: none;
  background: var(--sheet);
  box-shadow: inset 0 0 0 2px var(--ember);
}
.meta {
  font-size: 0.75rem;
  color: var(--ink-3);
  display: flex;
  gap: 6px;
  padding-left: 4px;
}
.meta b {
  color: var(--ink);
}
.meta select {
  appearance: none;
  border: 0;
  background: transparent;
  color: var(--ink-2);
  font: inherit;
  padding: 0;
  min-height: 24px;
  max-width: 11rem;
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
  cursor: pointer;
}
</style>
