<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { inWords } from '#core/language'
import { addressOf } from '#shared/http/endpoint'
import type { Gradebook } from '#shared/marking/gradebook'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import { STANDINGS, type GradeFilter } from '~/composables/marking/gradebookLayout'
import CardMenu from '~/components/controls/CardMenu.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Over the gradebook: who is shown, and the ways in and out for marks. */
const filter = defineModel<GradeFilter>({ required: true })
const props = defineProps<{ book: Gradebook; seminarId: string; hidden: number }>()
const emit = defineEmits<{ showHidden: []; import: [] }>()
const FORMS = [
  ['csv', 'CSV'],
  ['xlsx', 'XLSX'],
  ['oneroster', 'OneRoster 1.2 CSV'],
  ['pdf', 'letters as one PDF'],
  ['zip', 'letters as a zip'],
] as const
const part = <K extends keyof GradeFilter>(name: K) =>
  computed({
    get: () => filter.value[name],
    set: value => {
      filter.value = { ...filter.value, [name]: value }
    },
  })
const words = part('words')
const section = part('sectionId')
const group = part('groupId')
const standing = part('standing')
const downloadOf = (form: (typeof FORMS)[number][0]) =>
  addressOf(gradebookEndpoints.downloadResults, { params: { seminarId: props.seminarId }, query: { form } })
</script>

<template>
  <header>
    <h1>Gradebook</h1>
    <LineInput
      v-model="words"
      class="in find"
      type="search"
      placeholder="a name"
      aria-label="Find a student"
    />
    <PickList v-if="book.sections.length > 0" v-model="section" class="in" aria-label="Section">
      <option value="">all sections</option>
      <option v-for="s in book.sections" :key="s.id" :value="s.id">{{ s.title }}</option>
    </PickList>
    <PickList v-if="book.groups.length > 0" v-model="group" class="in" aria-label="Group">
      <option value="">all groups</option>
      <option v-for="g in book.groups" :key="g.id" :value="g.id">{{ g.plan }}: {{ g.title }}</option>
    </PickList>
    <PickList v-model="standing" class="in" aria-label="Who is shown">
      <option v-for="[value, label] in STANDINGS" :key="value" :value="value">{{ label }}</option>
    </PickList>
    <span class="grow" />
    <TextButton v-if="hidden > 0" class="small" @click="emit('showHidden')">
      show {{ inWords(hidden) }} hidden
    </TextButton>
    <v-btn v-if="book.mayEdit" :to="`/seminars/${seminarId}/outcomes`">Outcomes</v-btn>
    <v-btn v-if="book.mayEdit" @click="emit('import')">Import marks</v-btn>
    <CardMenu label="Export results"
      ><template #opener="{ opener }"><v-btn v-bind="opener">Export results</v-btn></template>
      <div class="forms">
        <a v-for="[form, label] in FORMS" :key="form" :href="downloadOf(form)" download>{{ label }}</a><span
          class="hint"
          >only what is returned is in them</span
        >
      </div></CardMenu
    >
  </header>
</template>

<style scoped>
header {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 9px 20px;
  border-bottom: 1px solid var(--line);
}
h1 {
  font: 600 1.1875rem/1.2 var(--read);
  margin-right: 8px;
}
.find {
  width: 9em;
}
header .in {
  font-size: 0.8125rem;
  padding: 4px 8px;
  max-width: 13em;
}
.forms {
  padding: 10px 14px;
  display: grid;
  gap: 8px;
}
.forms a {
  color: var(--ink);
}
</style>
