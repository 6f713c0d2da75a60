<script setup lang="ts">
import { plainText, type RichNode } from '#core/contributing/richText'
import { moveToWeek } from '#core/planning/moveToWeek'
import { isWorkingPhase } from '#core/planning/schedule'
import { weekOf } from '#core/planning/week'
import type { ActivityBody } from '#shared/planning/composer'
import { newKey } from '~/composables/shell/useApi'
import { termOfShell } from '~/composables/planning/termOfShell'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import RichEditor from '../contributing/RichEditor.vue'
import TimePart from './TimePart.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Prompts for later, written ahead; each is shown to students from its time on. */
const props = defineProps<{ body: ActivityBody; disabled: boolean }>()
const emit = defineEmits<{ change: [prompts: ActivityBody['prompts']] }>()
const { now } = useTimes()
const seminar = useSeminarStore()
const open = ref<string | null>(null)
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
const sorted = computed(() => [...props.body.prompts].sort((a, b) => a.releaseAt.localeCompare(b.releaseAt)))
const set = (id: string, part: Partial<ActivityBody['prompts'][number]>) =>
  emit(
    'change',
    props.body.prompts.map(p => (p.id === id ? { ...p, ...part } : p)),
  )
/** A week after the last one, a break left out; the first with the activity, and none after it closes. */
function nextRelease(): Date {
  const opens = new Date(props.body.opensAt)
  const last = sorted.value.at(-1)
  if (!last) return opens > now.value ? opens : now.value
  const term = termOfShell(seminar.shell!)
  const next = moveToWeek(
    new Date(last.releaseAt),
    weekOf(new Date(last.releaseAt), term) + 1,
    term,
  )(new Date(last.releaseAt))
  const closes = Math.max(
    ...props.body.phases.filter(p => isWorkingPhase(p.name)).map(p => Date.parse(p.endsAt)),
  )
  return next.getTime() < closes ? next : new Date(last.releaseAt)
}
function add() {
  const releaseAt = nextRelease().toISOString()
  const id = newKey()
  open.value = id
  emit('change', [...props.body.prompts, { id, doc: EMPTY, releaseAt }])
}
</script>

<template>
  <div class="prompts">
    <div v-for="(p, i) in sorted" :key="p.id" class="prompt">
      <p class="head">
        <b>{{ i + 1 }}</b> from
        <TimePart
          label="Shown from"
          :due="false"
          :model-value="p.releaseAt"
          :disabled="disabled"
          @update:model-value="set(p.id, { releaseAt: $event })"
        /><span class="hint">{{ Date.parse(p.releaseAt) <= now.getTime() ? 'its time has come' : '' }}</span
        ><TextButton v-if="open !== p.id" class="words" @click="open = p.id">
          {{ plainText(p.doc) || 'write it' }}</TextButton
        ><PlainButton
          v-if="!disabled"
          class="off"
          :aria-label="`Remove prompt ${i + 1}`"
          @click="
            emit(
              'change',
              body.prompts.filter(x => x.id !== p.id),
            )
          "
        >
          ×
        </PlainButton>
      </p>
      <RichEditor
        v-if="open === p.id"
        :doc="p.doc"
        :label="`Prompt ${i + 1}`"
        autofocus
        @write="set(p.id, { doc: $event })"
      />
    </div>
    <TextButton v-if="!disabled" class="small" @click="add">
      +
      {{
        body.prompts.length === 0
          ? 'prompts for later weeks, each shown at its time'
          : 'another prompt, a week later'
      }}
    </TextButton>
  </div>
</template>

<style scoped>
.prompts {
  display: grid;
  gap: 4px;
  justify-items: stretch;
}
.prompts > .link {
  justify-self: start;
}
.prompt {
  border-bottom: 1px solid var(--line-soft);
  padding-bottom: 4px;
}
.head {
  display: flex;
  gap: 9px;
  align-items: baseline;
  font: 400 0.9375rem/1.8 var(--read);
}
.words {
  flex: 1;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font: 400 0.9375rem/1.5 var(--read);
  color: var(--ink-2);
  text-decoration: none;
}
.off {
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
  margin-left: auto;
}
</style>
