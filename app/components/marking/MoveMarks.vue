<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { MoveView } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as markingEndpoints from '#shared/marking/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** Moving marks given under an earlier version of the rubric to its newest: shown before it is done. */
const props = defineProps<{ activityId: string; marks: number }>()
const emit = defineEmits<{ moved: [n: number] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const open = ref(false)
const view = shallowRef<MoveView | null>(null)
const left = reactive(new Set<string>())
async function preview() {
  open.value = true
  view.value = null
  left.clear()
  view.value = await send(() =>
    api.call(markingEndpoints.readRubricMove, { params: { activityId: props.activityId } }),
  )
}
const chosen = computed(() => view.value?.marks.filter(m => !left.has(m.enrolmentId)) ?? [])
const pts = (n: number | null) => (n === null ? 'not whole' : points(n))
async function move() {
  const answer = await send(() =>
    api.call(markingEndpoints.moveMarksToRubric, {
      params: { activityId: props.activityId },
      body: {
        key: newKey(),
        enrolmentIds: chosen.value.map(m => m.enrolmentId),
      },
    }),
  )
  if (!answer) return
  open.value = false
  emit('moved', answer.returned)
}
const toggle = (id: string) => {
  if (!left.delete(id)) left.add(id)
}
</script>

<template>
  <p class="older">
    {{ marks === 1 ? 'One mark was' : `${inWords(marks)} marks were` }} given under an earlier version of the
    rubric and {{ plural(marks, 'keeps', 'keep') }} it.
    <TextButton @click="preview"> see what moving {{ plural(marks, 'it', 'them') }} would do </TextButton>
  </p>
  <ModalDialog v-model="open" max-width="640" aria-label="Moving marks to the newest version">
    <div class="card dialog">
      <h2>To version {{ view?.to ?? '…' }} of {{ view?.title ?? 'the rubric' }}</h2>
      <p class="muted">
        Steps go over to the criterion and level of the same name. What has no counterpart is left for you to
        judge.
      </p>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <table v-if="view" class="rows">
        <thead>
          <tr>
            <th />
            <th>student</th>
            <th>version</th>
            <th>now</th>
            <th>then</th>
            <th>left to judge</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in view.marks" :key="m.enrolmentId">
            <td>
              <PlainCheckbox
                :checked="!left.has(m.enrolmentId)"
                :aria-label="`Move ${m.name}`"
                @change="toggle(m.enrolmentId)"
              />
            </td>
            <td>
              {{ m.name }}<span v-if="m.state === 'returned'" class="hint"> held until returned again</span>
            </td>
            <td class="num">{{ m.from }}</td>
            <td class="num">{{ pts(m.pointsBefore) }}</td>
            <td class="num">{{ pts(m.pointsAfter) }}</td>
            <td>{{ m.left.join(', ') || '–' }}</td>
          </tr>
        </tbody>
      </table>
      <div class="acts">
        <v-btn class="main" :disabled="busy || chosen.length === 0" @click="move"
          >Move {{ inWords(chosen.length) }} {{ plural(chosen.length, 'mark') }}</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </div>
    </div>
  </ModalDialog>
</template>

<style scoped>
.older {
  background: var(--ember-soft);
  padding: 8px 20px;
  font-size: 0.8125rem;
}
.older::first-letter {
  text-transform: uppercase;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
