<script setup lang="ts">
import type { RichNode } from '#core/contributing/richText'
import type { RecordView } from '#shared/marking/desk'
import type { SaveState } from '../../stores/desk'
import LetterTalk from './LetterTalk.vue'

const RichEditor = defineAsyncComponent(() => import('../contributing/RichEditor.vue'))
const props = defineProps<{ activityId: string, record: RecordView, state: SaveState, problem: string | null, left: number, busy: boolean }>()
const emit = defineEmits<{ letter: [doc: RichNode], note: [text: string], waive: [waived: boolean], hold: [], reopen: [], return: [] }>()
const stateWords = computed(() => ({ 'saved': props.record.mark.version > 0 ? 'saved' : '', 'saving': 'saving …', 'not saved': 'not saved', 'two texts': 'two versions' })[props.state])
const held = computed(() => props.record.mark.state === 'held')
const late = computed(() => {
  const minutes = props.record.late?.minutes ?? 0
  return minutes >= 1440 ? `${Math.floor(minutes / 1440)} days` : minutes >= 60 ? `${Math.floor(minutes / 60)} hours` : `${minutes} minutes`
})
</script>

<template>
  <section class="letter" aria-label="Letter">
    <p class="pt"><span>Letter to {{ record.student.givenName }}</span><span>write about a criterion <kbd>w</kbd></span><span class="state" role="status" :class="{ no: state === 'not saved' }">{{ stateWords }}</span></p>
    <div class="paper"><RichEditor :key="record.student.id" :doc="record.mark.letter as RichNode" :label="`Letter to ${record.student.givenName}`" @write="(doc: RichNode) => emit('letter', doc)" /></div>
    <div class="note">
      <label :for="`note-${record.student.id}`"><b>Marker’s note</b> · only staff see it</label>
      <textarea :id="`note-${record.student.id}`" rows="2" :value="record.mark.markerNote" @input="emit('note', ($event.target as HTMLTextAreaElement).value)" />
    </div>
    <label v-if="record.late" class="late"><input type="checkbox" :checked="record.mark.lateWaived" @change="emit('waive', ($event.target as HTMLInputElement).checked)"> {{ late }} late; waive what the rule takes</label>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <LetterTalk v-if="record.mark.state === 'returned'" :path="`/api/activities/${activityId}/records/${record.student.id}/replies`" :to-whom="record.student.givenName" />
    <div class="foot">
      <template v-if="held"><v-btn class="main" :disabled="busy" @click="emit('return')">Return now</v-btn><v-btn :disabled="busy" @click="emit('reopen')">Take back to the desk</v-btn></template>
      <template v-else-if="record.mark.state === 'returned'"><span class="back">Returned. Changing anything holds it again; {{ record.student.givenName }} keeps this letter until the next return.</span></template>
      <template v-else><v-btn class="main" :disabled="busy" @click="emit('hold')">Hold and go on <kbd>Ctrl ↵</kbd></v-btn><v-btn :disabled="busy" @click="emit('return')">Return now</v-btn></template>
    </div>
  </section>
</template>

<style scoped>
.letter { border-left: 1px solid var(--line); padding: 13px 20px 0 18px; display: flex; flex-direction: column; min-height: 0; }
.pt { font: 600 0.75rem/1 var(--ui); color: var(--ink-3); display: flex; justify-content: space-between; align-items: center; gap: 10px; margin-bottom: 9px; }
.pt span:nth-child(2) { font-weight: 500; margin-left: auto; }
.state { min-width: 40px; text-align: right; }
.state.no { color: var(--brick); }
.paper { background: var(--sheet); border: 1px solid var(--line); border-radius: var(--r); flex: 1; min-height: 180px; overflow-y: auto; }
.paper :deep(.prose) { font-size: 0.90625rem; min-height: 100%; }
.note { margin-top: 10px; border: 1px dashed var(--line); border-radius: var(--r); padding: 8px 12px; font-size: 0.78125rem; color: var(--ink-2); }
.note b { color: var(--ink); }
.note textarea { display: block; width: 100%; border: 0; background: none; font: inherit; color: inherit; resize: vertical; padding: 3px 0 0; field-sizing: content; max-height: 110px; }
.late { display: flex; gap: 8px; align-items: center; font-size: 0.78125rem; margin-top: 8px; }
.late input { accent-color: var(--harbour); }
.field-problem { margin-top: 8px; }
.foot { display: flex; flex-wrap: wrap; gap: 8px; padding: 12px 0 14px; align-items: center; }
.back { font-size: 0.8125rem; color: var(--ink-2); }
</style>
