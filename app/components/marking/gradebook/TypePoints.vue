<script setup lang="ts">
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'
import { points } from '~/composables/marking/points'

/** One student's points for one activity, typed; the next student's follow. */
const reason = defineModel<string>('reason', { required: true })
const props = defineProps<{
  row: GradeRow
  column: Gradebook['columns'][number]
  initial: string
  /** Whether the text is chosen whole, so that typing replaces it. */
  selects: boolean
  busy: boolean
  problem: string | null
}>()
const emit = defineEmits<{ set: [hundredths: number | null]; away: [] }>()
const text = ref(props.initial)
const field = ref<Focusable | null>(null)
const fault = ref<string | null>(null)
onMounted(() => {
  field.value?.focus()
  if (props.selects) field.value?.select()
})
function set() {
  const typed = text.value.trim()
  const hundredths = typed === '' ? null : Math.round(Number(typed.replace(',', '.')) * 100)
  const isNumber = hundredths === null || Number.isFinite(hundredths)
  fault.value = isNumber ? null : 'Write the points as a number.'
  if (isNumber) emit('set', hundredths)
}
</script>

<template>
  <form class="typing" @submit.prevent="set" @keydown.esc.prevent="emit('away')">
    <p>
      <b>{{ row.name }}</b><br /><span class="muted">{{ column.title }}</span>
    </p>
    <label class="lab"
      >Points, of {{ points(column.max)
      }}<LineInput ref="field" v-model="text" class="in" inputmode="decimal"
    /></label>
    <label class="lab"
      >Why<LineInput
        v-model="reason"
        class="in"
        maxlength="500"
        :placeholder="column.byHand ? 'if you like' : 'kept with the mark'"
    /></label>
    <p v-if="fault ?? problem" class="field-problem" role="alert">{{ fault ?? problem }}</p>
    <p class="acts">
      <v-btn class="main" type="submit" :disabled="busy">Set and go down <kbd>↵</kbd></v-btn
      ><v-btn class="quiet" @click="emit('away')">Cancel</v-btn>
    </p>
  </form>
</template>

<style scoped>
.typing {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  font-size: 0.8125rem;
  line-height: 1.5;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
