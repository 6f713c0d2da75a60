<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import type { SettingsBody } from '#shared/people/settings'
import EditableRows from '~/components/shell/EditableRows.vue'
import { newKey } from '~/composables/shell/useApi'
import { numberOf, textOf } from '~/composables/shell/fieldOf'
import SettingsPart from './SettingsPart.vue'

/** How marks make final figures: what counts, who sees it, and the letters. */
const props = defineProps<{ settings: SettingsBody }>()
const emit = defineEmits<{ change: [part: Partial<SettingsBody>] }>()
const grade = (part: Partial<SettingsBody['grading']>) =>
  emit('change', { grading: { ...props.settings.grading, ...part } })
const bandText = (bands: SettingsBody['scales'][number]['bands']) =>
  bands.map(b => `${b.letter} ${b.fromPercent}`).join(', ')
function bands(event: Event, i: number) {
  const parsed = textOf(event)
    .split(',')
    .map(part => /^\s*(.+?)\s+(\d+(?:\.\d+)?)\s*%?\s*$/.exec(part))
    .filter(m => m !== null)
    .map(m => ({ letter: m[1]!, fromPercent: Number(m[2]) }))
  emit('change', {
    scales: props.settings.scales.map((scale, j) => (j === i ? { ...scale, bands: parsed } : scale)),
  })
}
</script>

<template>
  <SettingsPart title="Gradebook">
    <div>
      <p class="sentence">
        Work that is missing when it closes
        <PickList
          class="in"
          :value="String(settings.grading.missingIsZero)"
          aria-label="Missing work"
          @change="grade({ missingIsZero: textOf($event) === 'true' })"
        >
          <option value="true">counts as zero</option>
          <option value="false">is left out</option></PickList
        >. Your figures
        <PickList
          class="in"
          :value="String(settings.grading.countHeld)"
          aria-label="Held marks"
          @change="grade({ countHeld: textOf($event) === 'true' })"
        >
          <option value="false">count what is returned</option>
          <option value="true">count held marks, too</option></PickList
        >.
      </p>
      <p class="sentence">
        Students
        <PickList
          class="in"
          :value="String(settings.grading.showTotal)"
          aria-label="Final figure for students"
          @change="grade({ showTotal: textOf($event) === 'true' })"
        >
          <option value="true">see their final figure as it stands</option>
          <option value="false">see single marks only</option></PickList
        >, with
        <PickList
          class="in"
          :value="settings.grading.gradingScaleId ?? ''"
          aria-label="Letters of the final figure"
          @change="grade({ gradingScaleId: textOf($event) || null })"
        >
          <option value="">no letters</option>
          <option v-for="scale in settings.scales" :key="scale.id" :value="scale.id">
            letters of {{ scale.title }}
          </option></PickList
        >. One passes from
        <LineInput
          class="in short"
          type="number"
          min="0"
          max="100"
          :value="settings.grading.passPercent ?? ''"
          aria-label="Pass mark in percent; empty for none"
          @input="grade({ passPercent: textOf($event) === '' ? null : numberOf($event) })"
        />
        %.
      </p>
    </div>
  </SettingsPart>
  <SettingsPart title="Grading scales">
    <EditableRows
      :rows="settings.scales"
      add="Add a scale"
      empty="A scale turns percent into letters or words."
      :fresh="
        () => ({
          id: newKey(),
          title: 'New scale',
          bands: [
            { letter: 'Pass', fromPercent: 50 },
            { letter: 'Not yet', fromPercent: 0 },
          ],
        })
      "
      @change="emit('change', { scales: $event })"
    >
      <template #default="{ row, set, index }"
        ><LineInput
          class="in title"
          :value="row.title"
          aria-label="Scale"
          @input="set({ title: textOf($event) })" /><LineInput
          class="in bands"
          :value="bandText(row.bands)"
          aria-label="Letters with the percent each begins at, highest first"
          @change="bands($event, index)"
      /></template>
    </EditableRows>
  </SettingsPart>
</template>

<style scoped>
.bands {
  flex: 1;
  min-width: 12rem;
}
</style>
