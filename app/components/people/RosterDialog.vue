<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import FileInput from '~/components/controls/FileInput.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { RosterAnswer, RosterPreview } from '#shared/people/people'
import { keptNames } from '#core/people/names'
import { ROSTER_COLUMNS, type RosterColumn } from '#core/people/roster/rosterHeadings'
import { capital, inWords, plural } from '#core/language'
import { toBase64 } from '~/composables/files/readFile'
import { groupsSentence } from '~/composables/people/importedSentence'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as peopleEndpoints from '#shared/people/endpoints'

/** A roster file on its way in: chosen, looked at, and only then taken. */
const props = defineProps<{ seminarId: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ imported: [answer: RosterAnswer] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const file = shallowRef<{ name: string; base64: string; columns?: Array<RosterColumn | null> } | null>(null)
const preview = shallowRef<RosterPreview | null>(null)
const withdrawMissing = ref(false)
const invite = ref(true)
const come = shallowRef<{ done: number; of: number } | null>(null) // how far the import is
const over = ref(false)
let key = newKey()
const FIELD_WORDS: Readonly<Record<string, string>> = {
  email: 'e-mail',
  name: 'whole name',
  givenName: 'first name',
  familyName: 'family name',
  section: 'section',
  group: 'group',
  studentNumber: 'number',
  role: 'role',
}
const reading = ref(false)

watch(open, is => {
  if (is) {
    file.value = null
    preview.value = null
    withdrawMissing.value = false
    key = newKey()
  }
})
async function previewFile(chosen: File | undefined) {
  over.value = false
  if (!chosen) return
  reading.value = true
  const read = { name: chosen.name, base64: await toBase64(chosen) }
  const seen = await send(() =>
    api.call(peopleEndpoints.previewRoster, { params: { seminarId: props.seminarId }, body: read }),
  )
  reading.value = false
  if (!seen) return
  file.value = read
  preview.value = seen
}
const count = computed(() =>
  preview.value
    ? preview.value.added.length +
      preview.value.changed.length +
      preview.value.back.length +
      (preview.value.groups?.onlyPlaced ?? 0) +
      (withdrawMissing.value ? preview.value.missing.length : 0)
    : 0,
)
/** Whether anybody was found in it: of a file that says nothing nobody is missing. */
const isRead = computed(() => {
  const p = preview.value!
  return p.added.length + p.changed.length + p.back.length + p.same > 0
})
const sentence = computed(() => {
  const p = preview.value!
  const parts = [
    p.added.length > 0 && `${inWords(p.added.length)} would be added`,
    p.changed.length > 0 && `${inWords(p.changed.length)} changed`,
    p.back.length > 0 && `${inWords(p.back.length)} restored`,
    p.same > 0 && `${inWords(p.same)} ${p.same === 1 ? 'is' : 'are'} as they are`,
  ].filter(Boolean)
  return parts.length > 0 ? `${capital(parts.join(', '))}.` : 'Nobody in this file can be taken.'
})
/** What a column holds is said by its heading, or here: then it is looked at anew. */
async function assign(at: number, value: string) {
  const columns = preview.value!.columns.map((c, i) => {
    const field = c.field === value ? null : c.field // one column for one thing
    return i === at ? (ROSTER_COLUMNS.find(f => f === value) ?? null) : field
  })
  const read = { ...file.value!, columns }
  const seen = await send(() =>
    api.call(peopleEndpoints.previewRoster, { params: { seminarId: props.seminarId }, body: read }),
  )
  if (!seen) return
  file.value = read
  preview.value = seen
}
async function take() {
  come.value = null
  const answer = await send(() =>
    api.callLong(
      peopleEndpoints.importRoster,
      {
        params: { seminarId: props.seminarId },
        body: { ...file.value!, key, withdrawMissing: withdrawMissing.value, invite: invite.value },
      },
      (done, of) => {
        come.value = { done, of }
      },
    ),
  )
  if (!answer) return
  open.value = false
  emit('imported', answer)
}
const importVerb = computed(() => {
  if (busy.value) return come.value ? `${come.value.done} of ${come.value.of} done …` : 'Importing …'
  return `Import ${count.value} ${plural(count.value, 'change')}`
})
</script>

<template>
  <ModalDialog v-model="open" max-width="860" scrollable aria-label="Import a roster">
    <div class="card roster">
      <h2>Import a roster</h2>
      <template v-if="!preview">
        <label
          class="drop"
          :class="{ over }"
          @dragover.prevent="over = true"
          @dragleave="over = false"
          @drop.prevent="previewFile($event.dataTransfer?.files[0])"
        >
          <FileInput
            accept=".csv,.txt,.tsv,.zip"
            class="visually-hidden"
            @change="previewFile(($event.target as HTMLInputElement).files?.[0])"
          />
          <b>{{ reading ? 'Reading the file …' : 'Drop a file here, or choose one' }}</b>
          <span
            >A table in CSV with the columns e-mail and name (or given name and family name), and section,
            group, student number and role if you have them; or a OneRoster 1.2 archive. You see what it would
            change before anything is changed.</span
          >
        </label>
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      </template>
      <template v-else>
        <p class="said">
          <b>{{ file?.name }}</b>: {{ sentence }}{{ ' ' }}
          <span v-if="preview.newSections.length > 0"
            >New {{ plural(preview.newSections.length, 'section') }}:
            {{ preview.newSections.join(', ') }}.</span
          >{{ ' ' }}
          <span v-if="preview.groups">{{ groupsSentence(preview.groups) }}</span>
        </p>
        <fieldset v-if="preview.columns.length > 0" class="columns" :disabled="busy">
          <legend class="hint">What stands in each column</legend>
          <label v-for="(c, i) in preview.columns" :key="i" class="lab"
            ><bdi>{{ c.heading || `column ${i + 1}` }}</bdi
            ><PickList
              class="in"
              :value="c.field ?? ''"
              @change="assign(i, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">not read</option>
              <option v-for="f in ROSTER_COLUMNS" :key="f" :value="f">{{ FIELD_WORDS[f] }}</option>
            </PickList></label
          >
        </fieldset>
        <div class="lists">
          <section v-if="preview.faults.length > 0" class="bad">
            <h3>
              {{ capital(inWords(preview.faults.length)) }} {{ plural(preview.faults.length, 'row') }} that
              cannot be taken
            </h3>
            <table class="rows">
              <tbody>
                <tr v-for="(f, i) in preview.faults.slice(0, 200)" :key="i">
                  <td class="num">{{ f.line > 0 ? `line ${f.line}` : '' }}</td>
                  <td>{{ f.sentence }}</td>
                </tr>
              </tbody>
            </table>
            <p v-if="preview.faults.length > 200" class="hint">
              … and {{ preview.faults.length - 200 }} more.
            </p>
          </section>
          <section v-if="preview.changed.length > 0">
            <h3>Changed</h3>
            <table class="rows">
              <tbody>
                <tr v-for="c in preview.changed.slice(0, 200)" :key="c.enrolmentId">
                  <td>{{ keptNames(c.row).name }}</td>
                  <td>
                    <span v-for="x in c.changes" :key="x.field" class="change"
                      >{{ FIELD_WORDS[x.field] }} <s>{{ x.from ?? '–' }}</s> {{ x.to }}</span
                    >
                  </td>
                </tr>
              </tbody>
            </table>
          </section>
          <section v-if="preview.back.length > 0">
            <h3>Restored</h3>
            <p>{{ preview.back.map(b => keptNames(b.row).name).join(', ') }}</p>
          </section>
          <section v-if="preview.missing.length > 0 && isRead">
            <h3>Not in the file</h3>
            <p>
              {{
                preview.missing
                  .slice(0, 40)
                  .map(m => (m.givenName === m.familyName ? m.givenName : keptNames(m).name))
                  .join(', ')
              }}{{ preview.missing.length > 40 ? ` and ${preview.missing.length - 40} more` : '' }}
            </p>
            <CheckBox v-model="withdrawMissing">withdraw them; their work and marks stay</CheckBox>
          </section>
          <section v-if="preview.added.length > 0">
            <h3>Added</h3>
            <table class="rows">
              <tbody>
                <tr v-for="r in preview.added.slice(0, 200)" :key="r.line">
                  <td class="num">line {{ r.line }}</td>
                  <td>{{ keptNames(r).name }}</td>
                  <td>{{ r.email }}</td>
                  <td>{{ r.section }}</td>
                  <td>{{ r.group }}</td>
                  <td>{{ r.role === 'student' ? '' : r.role }}</td>
                </tr>
              </tbody>
            </table>
            <p v-if="preview.added.length > 200" class="hint">… and {{ preview.added.length - 200 }} more.</p>
          </section>
        </div>
        <CheckBox v-if="preview.added.length > 0" v-model="invite"
          >mail each new person an invitation</CheckBox
        >
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
        <div
          v-if="busy"
          class="progress"
          role="progressbar"
          aria-label="Importing"
          :aria-valuemax="come?.of"
          :aria-valuenow="come?.done"
        >
          <i :class="{ waiting: !come }" :style="come ? { width: `${(come.done / come.of) * 100}%` } : {}" />
        </div>
        <p class="end">
          <v-btn class="main" :disabled="busy || count === 0" @click="take">{{ importVerb }}</v-btn>
          <v-btn class="quiet" :disabled="busy" @click="preview = null">Choose another file</v-btn>
        </p>
      </template>
    </div>
  </ModalDialog>
</template>

<style scoped>
.roster {
  padding: 20px 24px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-height: 84vh;
}
h2 {
  font: 600 1.125rem/1.3 var(--read);
}
h3 {
  font: 600 0.8125rem/1.3 var(--ui);
  margin: 10px 0 2px;
}
.drop {
  display: grid;
  gap: 6px;
  padding: 34px 30px;
  border: 1.5px dashed var(--spine);
  border-radius: 10px;
  text-align: center;
  cursor: pointer;
  background: var(--paper);
}
.drop:hover,
.over,
.drop:focus-within {
  border-color: var(--harbour);
  background: var(--harbour-soft);
}
.drop b {
  font: 600 1rem/1.4 var(--read);
}
.drop span {
  color: var(--ink-2);
  max-width: 34rem;
  margin: 0 auto;
}
.said {
  font: 400 1rem/1.5 var(--read);
}
.columns {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  border: 0;
  padding: 0;
  margin: 0;
}
.columns .lab {
  font-size: 0.8125rem;
}
.lists {
  overflow: auto;
  flex: 1;
  min-height: 60px;
  border-top: 1px solid var(--line-soft);
  border-bottom: 1px solid var(--line-soft);
  padding-bottom: 10px;
}
.bad h3 {
  color: var(--brick);
}
.bad td:first-child,
td.num {
  white-space: nowrap;
  color: var(--ink-3);
  width: 5rem;
}
.change {
  margin-right: 14px;
}
.change s {
  color: var(--ink-3);
}
.end {
  display: flex;
  gap: 10px;
}
.progress {
  height: 4px;
  background: var(--sunken);
  border-radius: 2px;
  overflow: hidden;
}
.progress i {
  display: block;
  height: 100%;
  background: var(--harbour);
  transition: width 120ms;
}
.progress .waiting {
  width: 35%;
  animation: go 1.1s ease-in-out infinite alternate;
}
@keyframes go {
  from {
    margin-left: 0;
  }
  to {
    margin-left: 65%;
  }
}
</style>
