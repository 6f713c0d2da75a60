<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { LetterView } from '#shared/marking/letter'
import { useApi } from '~/composables/shell/useApi'
import LetterSheet from './LetterSheet.vue'
import * as markingEndpoints from '#shared/marking/endpoints'

/** The letter as its student would see it if it were returned now. */
const props = defineProps<{ activityId: string; enrolmentId: string; to: string; title: string }>()
const open = defineModel<boolean>({ required: true })
const api = useApi()
const letter = shallowRef<LetterView | null>(null)
const problem = ref<string | null>(null)
async function load() {
  letter.value = null
  problem.value = null
  try {
    letter.value = await api.call(markingEndpoints.previewLetter, {
      params: { activityId: props.activityId, enrolmentId: props.enrolmentId },
    })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
watch(
  open,
  is => {
    if (is) void load()
  },
  { immediate: true },
)
</script>

<template>
  <ModalDialog v-model="open" max-width="1040" :aria-label="`What ${to} will see`">
    <div class="card box">
      <div class="head">
        <h2>What {{ to }} will see</h2>
        <span class="muted small">{{ title }}</span><span class="grow" /><v-btn
          class="quiet"
          @click="open = false"
          >Close</v-btn
        >
      </div>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p v-else-if="!letter" class="hint" role="status">making it …</p>
      <article v-else><LetterSheet :letter="letter" :thread="null" /></article>
    </div>
  </ModalDialog>
</template>

<style scoped>
.box {
  padding: 16px 22px 26px;
  max-height: 86vh;
  overflow-y: auto;
  background: var(--paper);
}
.head {
  display: flex;
  align-items: baseline;
  gap: 12px;
  margin-bottom: 12px;
}
h2 {
  font: 600 1.125rem/1.3 var(--read);
}
</style>
