<script setup lang="ts">
import { keptNames } from '#core/people/names'
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as peopleEndpoints from '#shared/people/endpoints'

/** One person added by hand; the form stays open for the next. */
const props = defineProps<{
  seminarId: string
  sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
}>()
const emit = defineEmits<{ added: []; close: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send } = useSending()
const person = reactive({
  givenName: '',
  familyName: '',
  email: '',
  role: 'student' as const,
  sectionId: null as string | null,
  invite: true,
})
const first = ref<Focusable | null>(null)
let key = newKey()
onMounted(() => first.value?.focus())
async function add() {
  const added = await send(() =>
    api.call(peopleEndpoints.addPerson, { params: { seminarId: props.seminarId }, body: { key, ...person } }),
  )
  if (!added) return
  notices.say(`${keptNames(person).name} is in the seminar.`)
  key = newKey()
  Object.assign(person, { givenName: '', familyName: '', email: '' })
  emit('added')
  first.value?.focus()
}
</script>

<template>
  <form class="add" novalidate @submit.prevent="add" @keydown.esc="emit('close')">
    <label class="lab"
      >First name<LineInput
        ref="first"
        v-model="person.givenName"
        class="in"
        :aria-invalid="Boolean(problems.givenName)"
    /></label>
    <label class="lab"
      >Family name<LineInput
        v-model="person.familyName"
        class="in"
        :aria-invalid="Boolean(problems.familyName)"
    /></label>
    <label class="lab wide"
      >E-mail<LineInput
        v-model="person.email"
        class="in"
        type="email"
        :aria-invalid="Boolean(problems.email)"
    /></label>
    <label class="lab"
      >Role<PickList v-model="person.role" class="in">
        <option>student</option>
        <option>assistant</option>
        <option>observer</option>
        <option>instructor</option>
      </PickList></label
    >
    <label v-if="sections.length > 0" class="lab"
      >Section<PickList v-model="person.sectionId" class="in">
        <option :value="null">no section</option>
        <option v-for="s in sections" :key="s.id" :value="s.id">{{ s.title }}</option>
      </PickList></label
    >
    <div class="end">
      <CheckBox v-model="person.invite">mail an invitation</CheckBox
      ><v-btn class="main" type="submit" :disabled="busy">Add</v-btn
      ><v-btn class="quiet" @click="emit('close')">Close</v-btn>
    </div>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 12px;
  align-items: end;
  padding: 12px 14px 14px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  margin-bottom: 12px;
}
.wide {
  flex: 1;
  min-width: 14rem;
}
.end {
  display: flex;
  gap: 10px;
  align-items: center;
}
.field-problem {
  width: 100%;
}
</style>
