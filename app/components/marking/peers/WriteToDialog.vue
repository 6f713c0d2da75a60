<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { useApi, newKey } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { inWords, plural } from '#core/language'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

/** A line to reviewers who owe something. Each gets their own; none learns who else. */
const props = defineProps<{
  activityId: string
  people: ReadonlyArray<{ readonly id: string; readonly name: string; readonly owes: number }>
  suggestion: string
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ done: [told: number] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const words = ref(props.suggestion)
const chosen = reactive(new Set(props.people.map(p => p.id)))
const toggle = (id: string) => {
  if (!chosen.delete(id)) chosen.add(id)
}
async function write() {
  const answer = await send(() =>
    api.call(peersEndpoints.remindReviewers, {
      params: { activityId: props.activityId },
      body: {
        key: newKey(),
        enrolmentIds: [...chosen],
        words: words.value,
      },
    }),
  )
  if (answer) {
    open.value = false
    emit('done', answer.told)
  }
}
</script>

<template>
  <ModalDialog v-model="open" max-width="520" aria-label="Write to reviewers">
    <div class="card dialog">
      <h2>Write to {{ inWords(chosen.size) }} {{ plural(chosen.size, 'reviewer') }}</h2>
      <p class="who">
        <label v-for="p in people" :key="p.id"
          ><PlainCheckbox :checked="chosen.has(p.id)" @change="toggle(p.id)" /> {{ p.name }}, owes
          {{ inWords(p.owes) }}</label
        >
      </p>
      <label class="lab"
        >What they read <LinesInput v-model="words" class="in" rows="5" maxlength="3000" />
      </label>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="acts">
        <v-btn class="main" :disabled="busy || chosen.size === 0" @click="write">Send</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 5px 16px;
}
.who label {
  display: inline-flex;
  gap: 7px;
  align-items: center;
}
</style>
