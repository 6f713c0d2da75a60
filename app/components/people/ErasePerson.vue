<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { addressOf } from '#shared/http/endpoint'
import type { PersonView } from '#shared/people/people'
import type { ErasePreview } from '#shared/keeping/archive'
import TextButton from '~/components/controls/TextButton.vue'
import GivenNamePlaces from './GivenNamePlaces.vue'
import { ApiProblem, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as keepingEndpoints from '#shared/keeping/endpoints'

/** What is kept of a student: given to them as a file, or taken out for good. The one act here that asks before it is done. */
const props = defineProps<{ person: PersonView | null; seminarId: string }>()
const emit = defineEmits<{ close: []; erased: [name: string] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const typed = ref('')
const preview = shallowRef<ErasePreview | null>(null)
const previewProblem = ref<string | null>(null)
const pointing = ref<readonly string[]>([])
watch(
  () => props.person,
  async person => {
    typed.value = ''
    preview.value = null
    previewProblem.value = null
    pointing.value = []
    if (person?.role === 'student') await look(person)
  },
)
async function look(person: PersonView) {
  try {
    const found = await api.call(keepingEndpoints.previewErasure, {
      params: { seminarId: props.seminarId, enrolmentId: person.id },
    })
    if (props.person?.id !== person.id) return // another was opened meanwhile
    preview.value = found
    // a name that is one person's alone points to them, unless staff say otherwise
    if (found.sharedWith.length === 0) pointing.value = [...new Set(found.places.map(p => p.key))]
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    previewProblem.value = error.message
  }
}
const isLookedThrough = computed(() => props.person?.role !== 'student' || preview.value !== null)
const matches = computed(() => typed.value.trim().toLowerCase() === props.person?.name.toLowerCase())
async function erase() {
  const done = await send(() =>
    api.call(keepingEndpoints.erasePerson, {
      params: { seminarId: props.seminarId, enrolmentId: props.person!.id },
      body: { name: typed.value, pointing: [...pointing.value] },
    }),
  )
  if (done) emit('erased', done.name)
}
</script>

<template>
  <ModalDialog
    :model-value="person !== null"
    max-width="560"
    :aria-label="person ? `What is kept of ${person.name}` : undefined"
    @update:model-value="emit('close')"
  >
    <form v-if="person" class="card dialog" novalidate @submit.prevent="erase">
      <h2>What is kept of {{ person.name }}</h2>
      <p>
        <a
          :href="
            addressOf(keepingEndpoints.downloadDataOfPerson, {
              params: { seminarId, enrolmentId: person.id },
            })
          "
          download
          >Download all their data as one file</a
        >, to hand to them. Words of drafts and held marks are not in it.
      </p>
      <h3>Erase {{ person.givenName }} for good</h3>
      <p>
        Their work and every figure stay, under “Former student”. Name, address and number go; the name goes,
        too, from what others wrote, in full or as the family name, and from letters and messages. Addresses
        of pages stay unless they hold the full name. Recordings of their voice go; transcripts stay. They
        cannot sign in here any more. <b>It cannot be undone.</b>
      </p>
      <GivenNamePlaces
        v-if="preview"
        v-model="pointing"
        :preview="preview"
        :given-name="person.givenName"
        :name="person.name"
      />
      <p v-if="previewProblem" class="field-problem" role="alert">
        {{ previewProblem }} <TextButton @click="look(person)">Try again</TextButton>
      </p>
      <label class="lab"
        >Type “{{ person.name }}” to do it<LineInput
          v-model="typed"
          class="in"
          autocomplete="off"
          spellcheck="false"
      /></label>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="acts">
        <v-btn type="submit" class="erase" :disabled="busy || !matches || !isLookedThrough">{{
          busy ? 'Erasing …' : `Erase ${person.givenName}`
        }}</v-btn><v-btn class="quiet" @click="emit('close')">Cancel</v-btn>
      </p>
    </form>
  </ModalDialog>
</template>

<style scoped>
h3 {
  font: 600 0.9375rem/1.3 var(--ui);
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
p {
  line-height: 1.5;
}
.erase:not(:disabled) {
  background: var(--brick);
  border-color: var(--brick);
  color: #fff;
}
</style>
