<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { Gradebook, MarksPreview } from '#shared/marking/gradebook'
import { toBase64 } from '~/composables/files/readFile'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

/** A file of marks on its way in: chosen, looked at, and only then taken. */
const props = defineProps<{ seminarId: string; columns: Gradebook['columns'] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ done: [changed: number] }>()
const api = useApi()
const { busy, problem, problems, send } = useSending()
const activityId = ref('')
const file = shallowRef<{ name: string; base64: string } | null>(null)
const preview = shallowRef<MarksPreview | null>(null)
const reason = ref('')
let key = newKey()
watch(open, is => {
  if (is) {
    file.value = null
    preview.value = null
    reason.value = ''
    key = newKey()
  }
})
async function previewFile(event: Event) {
  const chosen = (event.target as HTMLInputElement).files?.[0]
  if (!chosen) return
  const read = { name: chosen.name, base64: await toBase64(chosen) }
  preview.value = await send(() =>
    api.call(gradebookEndpoints.previewMarks, {
      params: { seminarId: props.seminarId },
      body: {
        ...read,
        activityId: activityId.value,
      },
    }),
  )
  file.value = preview.value ? read : null
}
async function take() {
  const answer = await send(() =>
    api.call(gradebookEndpoints.importMarks, {
      params: { seminarId: props.seminarId },
      body: {
        ...file.value!,
        activityId: activityId.value,
        key,
        reason: reason.value,
      },
    }),
  )
  if (!answer) return
  open.value = false
  emit('done', answer.changed)
}
const KNOWN_BY = { mail: 'mail', number: 'number', name: 'name' } as const
/** "Twelve lines were taken by mail, one by name." */
const usedWords = computed(() => {
  const used = preview.value?.used
  if (!used) return ''
  const parts = (['mail', 'number', 'name'] as const).filter(key => used[key] > 0)
  if (parts.length === 0) return ''
  const [first, ...rest] = parts.map(
    (key, i) =>
      `${inWords(used[key])} ${i === 0 ? `${plural(used[key], 'line is', 'lines are')} taken ` : ''}by ${KNOWN_BY[key]}`,
  )
  return `${capital(first!)}${rest.map(r => `, ${r}`).join('')}.`
})
</script>

<template>
  <ModalDialog v-model="open" max-width="620" aria-label="Import marks">
    <div class="card dialog">
      <h2>Import marks from a file</h2>
      <p class="muted">
        CSV with a line of headings: <b>mail</b>, <b>student number</b> or <b>name</b>, and <b>points</b>. A
        line without an address is taken by number, one without either by name. An empty cell changes nothing.
      </p>
      <label class="lab"
        >Into<PickList v-model="activityId" class="in" @change="preview = null">
          <option value="">choose an activity</option>
          <option v-for="c in columns" :key="c.id" :value="c.id">{{ c.title }}</option>
        </PickList></label
      >
      <label v-if="activityId" class="lab"
        >File<FileInput class="in" accept=".csv,.txt,.tsv" :disabled="busy" @change="previewFile"
      /></label>
      <template v-if="preview">
        <p>
          {{
            preview.changes.length === 0
              ? 'Nothing would change.'
              : `${capital(inWords(preview.changes.length))} ${plural(preview.changes.length, 'mark')} would change`
          }}<template v-if="preview.same > 0"
            >, {{ inWords(preview.same) }} {{ plural(preview.same, 'is', 'are') }} the same</template
          >.<template v-if="usedWords"> {{ usedWords }}</template>
        </p>
        <table v-if="preview.changes.length > 0" class="rows num">
          <thead>
            <tr>
              <th>line</th>
              <th>student</th>
              <th>known by</th>
              <th>now</th>
              <th>then</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in preview.changes" :key="c.line">
              <td>{{ c.line }}</td>
              <td>{{ c.name }}</td>
              <td>{{ KNOWN_BY[c.by] }}</td>
              <td>{{ c.from === null ? '–' : points(c.from) }}</td>
              <td>
                <b>{{ points(c.to) }}</b>
              </td>
            </tr>
          </tbody>
        </table>
        <ul v-if="preview.faults.length > 0" class="faults">
          <li v-for="f in preview.faults" :key="f.line">Line {{ f.line }}, “{{ f.who }}”: {{ f.fault }}.</li>
        </ul>
        <label v-if="preview.changes.length > 0" class="lab"
          >Where they come from<LineInput
            v-model="reason"
            class="in"
            maxlength="500"
            placeholder="the oral exam of 12 October"
        /></label>
      </template>
      <p v-if="problem" class="field-problem" role="alert">
        {{ problems.file ?? problems.reason ?? problem }}
      </p>
      <div class="acts">
        <v-btn class="main" :disabled="busy || !preview || preview.changes.length === 0" @click="take"
          >Import {{ preview?.changes.length ?? 0 }} {{ plural(preview?.changes.length ?? 0, 'mark') }}</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </div>
    </div>
  </ModalDialog>
</template>

<style scoped>
.faults {
  color: var(--brick);
  font-size: 0.8125rem;
  padding-left: 18px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
