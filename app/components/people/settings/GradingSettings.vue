<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { readBands, type BandFault } from '#core/marking/readBands'
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
/** What was typed and cannot be taken, by scale: it stays in its field, with the reason beside it. */
const refused = reactive(new Map<string, { readonly text: string; readonly because: string }>())
function bands(event: Event, id: string) {
  const text = textOf(event)
  const read = readBands(text)
  if (read.kind === 'refused') {
    refused.set(id, { text, because: bandFaultWords(read.because) })
    return
  }
  refused.delete(id)
  emit('change', {
    scales: props.settings.scales.map(scale =>
      scale.id === id ? { ...scale, bands: read.bands.map(band => ({ ...band })) } : scale,
    ),
  })
}
function bandFaultWords(fault: BandFault): string {
  switch (fault.code) {
    case 'notABand':
      return `“${fault.part}” has no percent at its end.`
    case 'overHundred':
      return `“${fault.part}” is over 100 %.`
    case 'twice':
      return `“${fault.part}”: this letter is there already.`
    case 'notDescending':
      return `“${fault.part}” must begin below the one before it.`
    case 'tooFew':
      return 'A scale has two bands or more, such as “Pass 50, Not yet 0”.'
    case 'noZero':
      return 'The last band begins at 0.'
  }
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
      <template #default="{ row, set }"
        ><LineInput
          class="in title"
          :value="row.title"
          aria-label="Scale"
          @input="set({ title: textOf($event) })"
        /><LineInput
          class="in bands"
          :value="refused.get(row.id)?.text ?? bandText(row.bands)"
          aria-label="Letters with the percent each begins at, highest first"
          :aria-invalid="refused.has(row.id)"
          @change="bands($event, row.id)"
        />
        <p v-if="refused.has(row.id)" class="field-problem" role="alert">
          {{ refused.get(row.id)!.because }} It stays as it was until this is mended.
        </p></template
      >
    </EditableRows>
  </SettingsPart>
</template>

<style scoped>
.bands {
  flex: 1;
  min-width: 12rem;
}
.field-problem {
  flex-basis: 100%;
  order: 1; /* below what removes the row */
}
</style>
