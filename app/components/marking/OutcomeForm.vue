<script setup lang="ts">
import * as markingEndpoints from '#shared/marking/endpoints'
import type { OutcomeView } from '#shared/marking/rubric'
import LabelledField from '~/components/controls/LabelledField.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { ApiProblem, newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'

/** The words of a learning outcome, new or changed. What somebody else wrote meanwhile stands beside what is typed. */
const props = defineProps<{ outcome: OutcomeView | null; seminarId: string }>()
const emit = defineEmits<{ stored: [outcome: OutcomeView]; close: [] }>()
const api = useApi()
const { busy, problem, problems, send } = useSending()
const code = ref(props.outcome?.code ?? '')
const statement = ref(props.outcome?.statement ?? '')
const theirs = shallowRef<OutcomeView | null>(null)
let key = newKey() // a lost answer is asked for again under the same; other words are another write
watch([code, statement], () => {
  key = newKey()
})
const name = `outcome-${props.outcome?.id ?? 'new'}`

const store = () => {
  const { seminarId, outcome } = props
  const words = { code: code.value, statement: statement.value }
  if (!outcome)
    return api.call(markingEndpoints.addOutcome, { params: { seminarId }, body: { key, ...words } })
  const { version, retired } = theirs.value ?? outcome
  return api.call(markingEndpoints.changeOutcome, {
    params: { seminarId, outcomeId: outcome.id },
    body: { key, baseVersion: version, retired, ...words },
  })
}
async function keep() {
  const stored = await send(() =>
    store().catch((error: unknown) => {
      if (error instanceof ApiProblem && error.details.code === 'changedMeanwhile') {
        theirs.value = error.details.theirs as OutcomeView // what this endpoint refuses with
        key = newKey()
      }
      throw error
    }),
  )
  if (stored) emit('stored', stored)
}
function takeTheirs() {
  code.value = theirs.value!.code
  statement.value = theirs.value!.statement
}
</script>

<template>
  <form class="form" @submit.prevent="keep">
    <LabelledField
      v-model="code"
      label="Code"
      :name="`${name}-code`"
      autocomplete="off"
      autofocus
      :problem="problems.code"
    />
    <div class="field">
      <label :for="`${name}-statement`">What students should have learnt</label>
      <LinesInput :id="`${name}-statement`" v-model="statement" class="in" rows="2" />
      <p v-if="problems.statement" class="field-problem" role="alert">{{ problems.statement }}</p>
    </div>
    <p v-if="problem && !problems.code && !problems.statement" class="field-problem wide" role="alert">
      {{ problem }}
    </p>
    <p v-if="theirs" class="wide">
      Theirs: <b>{{ theirs.code }}</b>{{ ' ' }}{{ theirs.statement }}{{ ' '
      }}<TextButton @click="takeTheirs">Take theirs</TextButton>
    </p>
    <p class="wide acts">
      <v-btn class="main" type="submit" :disabled="busy">{{
        outcome ? 'Save changes' : 'Add outcome'
      }}</v-btn>
      <v-btn class="quiet" @click="emit('close')">Cancel</v-btn>
    </p>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(6rem, 9rem) 1fr;
  gap: 8px 14px;
  padding: 8px 0;
}
.wide {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  gap: 10px;
}
textarea {
  width: 100%;
}
@media (max-width: 600px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
