<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { ACTIVITY_KINDS, type ActivityKind } from '#core/kinds/kind'
import type { SeminarShell } from '#shared/people/seminar'
import { KIND_WORDS } from '~/kinds/words'
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** A new activity: its kind, or a template, and the week it begins in. */
const props = defineProps<{
  shell: SeminarShell
  templates: ReadonlyArray<{ readonly id: string; readonly kind: string; readonly title: string }>
}>()
const emit = defineEmits<{
  plan: [kind: ActivityKind, week: number, templateId: string | null]
  topics: [file: File, week: number]
}>()
const week = ref(Math.min(props.shell.weeks.length, Math.max(1, props.shell.week)))
const open = ref(false)
function choose(kind: ActivityKind, templateId: string | null) {
  open.value = false
  emit('plan', kind, week.value, templateId)
}
function takeFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  open.value = false
  emit('topics', file, week.value)
}
</script>

<template>
  <CardMenu v-model="open" label="Plan an activity">
    <template #opener="{ opener }"><v-btn v-bind="opener" class="main">Plan an activity</v-btn></template>
    <div class="new">
      <label class="lab"
        >Beginning in<PickList v-model.number="week" class="in">
          <option v-for="w in shell.weeks" :key="w.number" :value="w.number">
            {{ w.label === null ? w.title : `week ${w.label}` }}{{ w.number === shell.week ? ', now' : '' }}
          </option>
        </PickList></label
      >
      <ul>
        <li v-for="kind in ACTIVITY_KINDS" :key="kind">
          <PlainButton :style="{ '--k': `var(--k-${kind})` }" @click="choose(kind, null)">
            <b>{{ KIND_WORDS[kind].name }}</b><span>{{ KIND_WORDS[kind].note }}</span>
          </PlainButton>
        </li>
      </ul>
      <template v-if="templates.length > 0"
        ><p class="hint">or from a template</p>
        <ul>
          <li v-for="t in templates" :key="t.id">
            <PlainButton
              :style="{ '--k': `var(--k-${t.kind})` }"
              @click="choose(t.kind as ActivityKind, t.id)"
            >
              <b>{{ t.title }}</b>
            </PlainButton>
          </li>
        </ul></template
      >
      <label class="file"
        >Topics from a cartridge (.imscc, .xml)<FileInput
          accept=".imscc,.xml,.zip"
          class="visually-hidden"
          @change="takeFile"
      /></label></div
  ></CardMenu>
</template>

<style scoped>
.new {
  padding: 14px 16px;
  width: 330px;
  display: grid;
  gap: 10px;
}
ul {
  list-style: none;
}
li button {
  width: 100%;
  display: grid;
  grid-template-columns: 6.5rem 1fr;
  gap: 10px;
  text-align: left;
  border: 0;
  background: none;
  padding: 6px 6px 6px 8px;
  border-left: 4px solid var(--k);
  margin-bottom: 3px;
  cursor: pointer;
  border-radius: 0 5px 5px 0;
  align-items: baseline;
}
li button:hover {
  background: var(--sunken);
}
li b {
  font-weight: 600;
  color: var(--k);
  white-space: nowrap;
}
.file {
  font-size: 0.8125rem;
  color: var(--harbour);
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.file:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
li span {
  color: var(--ink-2);
  font-size: 0.8125rem;
}
</style>
