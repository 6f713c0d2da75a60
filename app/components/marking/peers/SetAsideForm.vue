<script setup lang="ts">
import CheckBox from '~/components/controls/CheckBox.vue'
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import type { SettingAside } from '#shared/marking/peers'

/** Why a review does not count, whether it is done all the same, and whether its reviewer is told. */
const props = defineProps<{ given: string; before?: SettingAside }>()
const emit = defineEmits<{ aside: [choice: SettingAside]; cancel: [] }>()
const reason = ref(props.before?.reason ?? '')
const isDone = ref(props.before?.countsAsDone ?? true)
const tell = ref(props.before?.tell ?? false)
const problem = ref(false)
const field = ref<Focusable | null>(null)
onMounted(() => field.value?.focus())
function aside() {
  problem.value = reason.value.trim() === ''
  if (problem.value) field.value?.focus()
  else emit('aside', { reason: reason.value.trim(), countsAsDone: isDone.value, tell: tell.value })
}
</script>

<template>
  <form class="why" @submit.prevent="aside" @keydown.enter.stop @keydown.esc="emit('cancel')">
    <LineInput
      ref="field"
      v-model="reason"
      class="in"
      maxlength="500"
      placeholder="Why it does not count"
      aria-label="Why it does not count"
      :aria-invalid="problem"
    />
    <v-btn class="main" type="submit">Set it aside</v-btn
    ><v-btn class="quiet" @click="emit('cancel')">Cancel</v-btn>
    <p v-if="problem" class="field-problem" role="alert">Say why; the reason is kept with the review.</p>
    <div class="choices">
      <CheckBox v-model="isDone">it counts as done for {{ given }}</CheckBox>
      <CheckBox v-model="tell">tell {{ given }}, with the reason</CheckBox>
    </div>
  </form>
</template>

<style scoped>
.why {
  display: flex;
  flex: 1 1 320px;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.in {
  flex: 1 1 180px;
}
.choices,
.field-problem {
  flex: 1 1 100%;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
</style>
