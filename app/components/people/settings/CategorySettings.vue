<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { SettingsBody, SettingsView } from '#shared/people/settings'
import { keptAfterDropping } from '~/composables/people/keptAfterDropping'
import EditableRows from '~/components/shell/EditableRows.vue'
import { newKey } from '~/composables/shell/useApi'
import { numberOf, textOf } from '~/composables/shell/fieldOf'
import SettingsPart from './SettingsPart.vue'

/** How much each sort of work counts. */
const props = defineProps<{ settings: SettingsBody; markedIn: SettingsView['markedIn'] }>()
const emit = defineEmits<{ change: [part: Partial<SettingsBody>] }>()
const little = (row: SettingsBody['categories'][number]) =>
  keptAfterDropping(
    props.markedIn.find(m => m.categoryId === row.id)?.activities ?? 0,
    row.dropLowest,
    row.weightPercent,
  )
const weights = computed(() => props.settings.categories.reduce((sum, c) => sum + c.weightPercent, 0))
const weightsSentence = computed(() => {
  if (weights.value === 100) return '.'
  if (weights.value < 100)
    return `; ${100 - weights.value} % are not given yet. Final marks are calculated as if these made up the whole.`
  return `, ${weights.value - 100} % more than a whole. Final marks are calculated by their proportion.`
})
</script>

<template>
  <SettingsPart title="Categories">
    <div>
      <EditableRows
        :rows="settings.categories"
        add="Add a category"
        empty="Categories say how much each sort of work counts."
        :fresh="
          () => ({
            id: newKey(),
            title: 'New category',
            weightPercent: Math.max(0, 100 - weights),
            dropLowest: 0,
          })
        "
        @change="emit('change', { categories: $event })"
      >
        <template #default="{ row, set }"
          ><LineInput
            class="in title"
            :value="row.title"
            aria-label="Category"
            @input="set({ title: textOf($event) })"
          />{{ ' '
          }}<LineInput
            class="in short"
            type="number"
            min="0"
            max="100"
            :value="row.weightPercent"
            aria-label="Weight in percent"
            @input="set({ weightPercent: numberOf($event) })"
          />
          %
          <label class="drop"
            >without the lowest
            <LineInput
              class="in short"
              type="number"
              min="0"
              max="20"
              :value="row.dropLowest"
              :aria-label="`How many of the lowest of ${row.title} are left out`"
              @input="set({ dropLowest: numberOf($event) })" /></label
          ><span v-if="little(row)" class="little" role="status">{{ little(row) }}</span></template
        >
      </EditableRows>
      <p v-if="settings.categories.length > 0" class="sum" :class="{ off: weights !== 100 }">
        Together {{ weights }} %{{ weightsSentence }}
      </p>
    </div>
  </SettingsPart>
</template>

<style scoped>
.drop {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
  margin-left: 10px;
}
.little {
  font-size: 0.8125rem;
  color: var(--ember);
}
.sum {
  font-size: 0.84375rem;
  color: var(--moss);
  margin-top: 6px;
}
.sum.off {
  color: var(--ember);
}
</style>
