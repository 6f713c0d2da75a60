<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { RichNode } from '#core/contributing/richText'
import type { LetterFile, RecordView } from '#shared/marking/desk'
import { lateWords } from '~/composables/marking/lateWords'
import type { HiddenNames } from '~/composables/marking/useHiddenNames'
import { points } from '~/composables/marking/points'
import { useTimes } from '~/composables/planning/useTimes'
import type { MarkChange, SaveState } from '~/composables/marking/markSaving'
import HistoryList from './HistoryList.vue'
import LetterFiles from './LetterFiles.vue'
import LetterTalk from './LetterTalk.vue'
import SetPoints from './SetPoints.vue'
import TextButton from '~/components/controls/TextButton.vue'

const RichEditor = defineAsyncComponent(() => import('../contributing/RichEditor.vue'))
const props = defineProps<{
  activityId: string
  seminarId: string
  record: RecordView
  names: HiddenNames
  state: SaveState
  problem: string | null
  busy: boolean
  max: number
  /** What the student has, where the mark was returned before; hundredths. */
  hasNow: number | null
  byRubric: boolean
  /** The criterion that is written about. */
  about: string | null
  historyOpen: boolean
  together: number
}>()
const emit = defineEmits<{
  change: [part: MarkChange]
  hold: []
  reopen: []
  return: []
  takeBack: []
  write: []
  phrases: []
  preview: []
  history: []
  leave: []
}>()
const { dayTime } = useTimes()
const stateWords = computed(
  () =>
    ({
      saved: props.record.mark.version > 0 ? 'saved' : '',
      saving: 'saving …',
      'not saved': 'not saved',
      'two texts': 'two versions',
    })[props.state],
)
const mark = computed(() => props.record.mark)
const held = computed(() => mark.value.state === 'held')
const given = computed(() => props.names.givenOf(props.record.student))
const letter = computed(() => props.names.hideDoc(mark.value.letter as RichNode))
</script>

<template>
  <section class="letter" aria-label="Letter">
    <p class="pt">
      <span>Letter to {{ given }}</span
      ><span class="state" role="status" :class="{ no: state === 'not saved' }">{{ stateWords }}</span>
    </p>
    <div class="paper" @keydown.esc="emit('leave')">
      <RichEditor
        :key="`${record.student.id}${names.on.value}`"
        :doc="letter"
        :label="`Letter to ${given}`"
        @write="(doc: RichNode) => emit('change', { letter: names.showDoc(doc) })"
      />
    </div>
    <p class="helps beside-key">
      <TextButton @click="emit('phrases')">a phrase</TextButton> <KeyHint of="p" /><template v-if="byRubric"
        ><TextButton class="about" @click="emit('write')">about {{ about ?? 'the criterion' }}</TextButton
        >{{ ' ' }}<KeyHint of="w"
      /></template>
    </p>
    <LetterFiles
      :seminar-id="seminarId"
      :files="mark.files"
      @change="(files: LetterFile[]) => emit('change', { files })"
    />
    <div class="note">
      <label :for="`note-${record.student.id}`"><b>Marker’s note</b> · only staff see it</label>
      <LinesInput
        :id="`note-${record.student.id}`"
        rows="2"
        :value="names.hide(mark.markerNote)"
        :readonly="names.on.value && names.hide(mark.markerNote) !== mark.markerNote"
        @input="emit('change', { markerNote: ($event.target as HTMLTextAreaElement).value })"
        @keydown.esc="emit('leave')"
      />
    </div>
    <label v-if="record.late" class="late"
      ><PlainCheckbox
        :checked="mark.lateWaived"
        @change="emit('change', { lateWaived: ($event.target as HTMLInputElement).checked })"
      />
      {{ lateWords(record.late.minutes) }} late; count as on time</label
    >
    <SetPoints
      v-if="byRubric && max > 0"
      :override="mark.override"
      :calculated="mark.before"
      :max="max"
      needs-reason
      @set="emit('change', { override: $event })"
    />
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <HistoryList
      v-if="historyOpen"
      :activity-id="activityId"
      :enrolment-id="record.student.id"
      :version="mark.version"
    />
    <LetterTalk
      v-if="mark.state === 'returned'"
      :activity-id="activityId"
      :enrolment-id="record.student.id"
      :to-whom="given"
    />
    <div class="foot">
      <template v-if="held"
        ><v-btn class="main" :disabled="busy" @click="emit('return')">Return now</v-btn
        ><v-btn :disabled="busy" @click="emit('reopen')">Reopen</v-btn
        ><span v-if="mark.returnAt" class="back">Returns {{ dayTime(mark.returnAt) }}.</span
        ><span v-if="hasNow !== null" class="back num"
          >{{ given }} has {{ points(hasNow) }} of {{ points(max) }} and the letter that was returned, until
          you return this one. That counts.</span
        ></template
      >
      <template v-else-if="mark.state === 'returned'">
        <v-btn v-if="mark.takeBackUntil" :disabled="busy" @click="emit('takeBack')">Undo return</v-btn>
        <span class="back">{{
          mark.takeBackUntil
            ? `Returned. ${given} is told in some minutes; until then it can be undone.`
            : `Returned. Changing anything holds it again; ${given} keeps this letter until the next return.`
        }}</span>
      </template>
      <template v-else
        ><v-btn class="main" :disabled="busy" @click="emit('hold')">Hold and go on <kbd>Ctrl ↵</kbd></v-btn
        ><v-btn :disabled="busy" @click="emit('return')">Return now</v-btn></template
      >
      <span v-if="together > 1 && mark.state !== 'returned'" class="back"
        >The plan returns all together; {{ together }} are ready and not held yet.</span
      >
      <span class="grow" />
      <TextButton class="small" @click="emit('preview')">as {{ given }} sees it</TextButton>
      <TextButton class="small" :aria-expanded="historyOpen" @click="emit('history')"> history </TextButton>
    </div>
    <p v-if="mark.override && !byRubric" class="visually-hidden">
      {{ points(mark.override.points) }} points set by hand
    </p>
  </section>
</template>

<style scoped>
.about {
  max-width: 11rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.letter {
  border-left: 1px solid var(--line);
  padding: 13px 20px 0 18px;
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow-y: auto;
}
.pt {
  font: 600 0.75rem/1 var(--ui);
  color: var(--ink-3);
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  margin-bottom: 9px;
  white-space: nowrap;
}
.pt > span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  line-height: 1.3;
}
.helps {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.78125rem;
  margin-top: 8px;
}
.helps kbd + .link {
  margin-left: 12px;
}
.state {
  min-width: 40px;
  text-align: right;
}
.state.no {
  color: var(--brick);
}
.paper {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  flex: 1 0 180px;
  min-height: 180px;
  overflow-y: auto;
}
.paper :deep(.prose) {
  font-size: 0.90625rem;
  min-height: 100%;
}
.note {
  margin-top: 8px;
  border: 1px dashed var(--line);
  border-radius: var(--r);
  padding: 8px 12px;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.note b {
  color: var(--ink);
}
.note textarea {
  display: block;
  width: 100%;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  resize: vertical;
  padding: 3px 0 0;
  field-sizing: content;
  max-height: 110px;
}
.late {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.78125rem;
  margin-top: 8px;
}
.field-problem {
  margin-top: 8px;
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 12px 0 14px;
  align-items: center;
  position: sticky;
  bottom: 0;
  background: var(--paper);
}
/* a narrow desk has these at its foot, whatever part is shown */
@media (max-width: 1000px) {
  .foot {
    position: static;
  }
  .paper {
    min-height: 44dvh;
  }
  .foot > .main {
    display: none;
  }
}
.back {
  font-size: 0.8125rem;
  color: var(--ink-2);
  flex: 1 1 180px;
}
</style>
