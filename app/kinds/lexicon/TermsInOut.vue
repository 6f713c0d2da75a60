<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { addressOf } from '#shared/http/endpoint'
import { decodeText } from '#core/people/roster/decodeText'
import type { ActivityView } from '#shared/contributing/activity'
import type { LexiconImported } from '#shared/kinds/lexicon/lexicon'
import type { z } from 'zod'
import { plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

/** Terms taken along as a file, and, for staff, taken in from a table after seeing what it would do. */
type Imported = z.infer<typeof LexiconImported>
const props = defineProps<{ activity: ActivityView; mayImport: boolean }>()
const emit = defineEmits<{ taken: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const takenAs = (as: 'csv' | 'json' | 'html') =>
  addressOf(lexiconEndpoints.downloadTerms, { params: { activityId: props.activity.id }, query: { as } })
const preview = shallowRef<(Imported & { text: string; key: string }) | null>(null)
async function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const { text } = decodeText(new Uint8Array(await file.arrayBuffer()))
  const key = newKey()
  const answer = await send(() =>
    api.call(lexiconEndpoints.importTerms, {
      params: { activityId: props.activity.id },
      body: { key, text, trial: true },
    }),
  )
  if (answer) preview.value = { ...answer, text, key }
}
async function take() {
  const { text, key } = preview.value!
  const answer = await send(() =>
    api.call(lexiconEndpoints.importTerms, {
      params: { activityId: props.activity.id },
      body: { key, text, trial: false },
    }),
  )
  if (!answer) return
  preview.value = null
  notices.say(`${answer.added.length} ${plural(answer.added.length, 'term')} came in.`)
  emit('taken')
}
</script>

<template>
  <section class="in-out">
    <details>
      <summary>{{ mayImport ? 'Export and import' : 'Export' }}</summary>
      <p class="row">
        as <a :href="takenAs('csv')" download>CSV</a><a :href="takenAs('json')" download>JSON</a
        ><a :href="takenAs('html')" download>HTML</a>
      </p>
      <template v-if="mayImport">
        <p class="row">
          <label class="link"
            >Import terms from a CSV file<FileInput
              accept=".csv,text/csv,text/plain"
              class="visually-hidden"
              :disabled="busy"
              @change="choose"
          /></label>
        </p>
        <p class="hint">
          Its first line names the columns: term, definition, other forms, category, sources, found in longer
          words.
        </p>
      </template>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <div v-if="preview" class="preview" role="status">
        <p>
          <b>{{ preview.added.length }}</b> {{ plural(preview.added.length, 'term') }} would be
          imported<template v-if="preview.added.length > 0"
            >: {{ preview.added.slice(0, 12).join(', ')
            }}{{ preview.added.length > 12 ? ' …' : '' }}</template
          >.
        </p>
        <ul v-if="preview.skipped.length > 0">
          <li v-for="s in preview.skipped.slice(0, 20)" :key="`${s.line}-${s.term}`">
            line {{ s.line }}{{ s.term ? `, “${s.term}”` : '' }}: {{ s.why }}
          </li>
        </ul>
        <p class="row">
          <v-btn v-if="preview.added.length > 0" class="main" :disabled="busy" @click="take"
            >Import {{ preview.added.length }}</v-btn
          ><v-btn class="quiet" @click="preview = null">Cancel</v-btn>
        </p>
      </div>
    </details>
  </section>
</template>

<style scoped>
.in-out {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 12px;
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
}
summary {
  cursor: pointer;
  font-weight: 650;
  font-size: 0.8125rem;
  color: var(--ink);
}
.row {
  display: flex;
  gap: 6px 12px;
  flex-wrap: wrap;
  margin-top: 7px;
  align-items: center;
}
.preview {
  background: var(--sunken);
  border-radius: var(--r);
  padding: 8px 12px 10px;
  margin-top: 9px;
}
.preview ul {
  list-style: none;
  max-height: 12em;
  overflow: auto;
  margin-top: 5px;
}
label.link:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
  border-radius: 4px;
}
</style>
