<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import PlainRadio from '~/components/controls/PlainRadio.vue'
import { dayAfter } from '#core/planning/week'
import { VueDraggable } from 'vue-draggable-plus'
import type { ClosingQuestionBody, ClosingView, ClosingWrite } from '#shared/closing/closing'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { newKey } from '~/composables/shell/useApi'
import { useSeminarStore } from '~/stores/seminar'
import MomentField from '~/components/controls/MomentField.vue'
import ChipButton from '~/components/controls/ChipButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Sets the questions: what is asked, whether names are kept, from when to when. `again`: a further round, with the same to begin with. */
const props = defineProps<{
  view: ClosingView
  again?: boolean
  busy: boolean
  problem: string | null
  problems: Readonly<Record<string, string>>
}>()
const emit = defineEmits<{ keep: [write: ClosingWrite]; cancel: [] }>()
const zone = useSeminarZone()
const usual = (): ClosingQuestionBody[] => [
  {
    id: newKey(),
    kind: 'scale',
    text: 'How much did this activity help you to think further?',
    steps: 5,
    low: 'not at all',
    high: 'very much',
  },
  {
    id: newKey(),
    kind: 'choice',
    text: 'What helped you most?',
    options: ['the reading', 'what others wrote', 'writing myself', 'answers I got'],
    several: true,
  },
  { id: newKey(), kind: 'open', text: 'What should be different next time?' },
]
const before = props.view.round
const survey = props.again ? null : before
/** In a further round the same questions are others: what was answered before stays with those. */
const askedBefore = () =>
  structuredClone(toRaw(before!.questions)).map(q => (props.again ? { ...q, id: newKey() } : q))
const questions = ref<ClosingQuestionBody[]>(before ? askedBefore() : usual())
const named = ref(before?.named ?? false)
const seminar = useSeminarStore()
const onTheMinute = (at: string) => new Date(Math.ceil(Date.parse(at) / 60_000) * 60_000).toISOString()
/** A further round begins at the next full minute, after the last has closed. */
const nextMinute = () => {
  const { now } = seminar.shell!
  return onTheMinute(before!.closesAt > now ? before!.closesAt : now)
}
const begins = () => {
  if (props.again) return nextMinute()
  const { closesAt } = props.view.activity
  return Date.parse(closesAt) > Date.parse(seminar.shell!.now) ? closesAt : onTheMinute(seminar.shell!.now)
}
const from = ref(zone.localOf(survey?.opensAt ?? begins()))
// a week later by the calendar, also where the clocks change in between
const weekAfter = (local: string) => `${dayAfter(local.slice(0, 10), 7)}${local.slice(10)}`
const until = ref(survey ? zone.localOf(survey.closesAt) : weekAfter(from.value))
const locked = computed(() => !props.again && props.view.staff !== null && !props.view.staff.mayChange)
function add(kind: ClosingQuestionBody['kind']) {
  const id = newKey()
  const emptyQuestion = () => {
    if (kind === 'scale') return { id, kind, text: '', steps: 5, low: 'not at all', high: 'very much' }
    if (kind === 'choice') return { id, kind, text: '', options: ['', ''], several: false }
    return { id, kind, text: '' }
  }
  questions.value.push(emptyQuestion())
}
const KINDS = { scale: 'a scale', choice: 'a choice', open: 'in words' } as const
const keep = () =>
  emit('keep', {
    round: (before?.number ?? 1) + (props.again ? 1 : 0),
    questions: questions.value,
    named: named.value,
    opensAt: zone.instantOf(from.value),
    closesAt: zone.instantOf(until.value),
  })
</script>

<template>
  <form @submit.prevent="keep">
    <p v-if="again" class="note">
      A further round: its answers stand by themselves, and without names they are shown once four or more
      have answered and it has closed.
    </p>
    <p v-if="locked" class="note">
      Somebody has answered already: the questions and the promise about names stand as they are. The end can
      still be moved.
    </p>
    <div class="when">
      <div class="lab">
        Open from<MomentField
          v-model="from"
          label="Open from"
          :today="zone.today.value"
          :usual="zone.usualTime.value"
          :disabled="locked"
        />
      </div>
      <div class="lab">
        until<MomentField
          v-model="until"
          label="until"
          :today="zone.today.value"
          :usual="zone.usualTime.value"
        />
      </div>
      <p v-if="zone.named.value" class="hint">{{ zone.named.value }}</p>
      <fieldset :disabled="locked">
        <legend>Names</legend>
        <label
          ><PlainRadio v-model="named" :value="false" /> are not kept: nobody can tell whose an answer is.
          Results are shown once it has closed.</label
        >
        <label><PlainRadio v-model="named" :value="true" /> are kept with the answers.</label>
      </fieldset>
    </div>
    <VueDraggable v-model="questions" tag="ol" handle=".grip" :disabled="locked" :animation="120">
      <li v-for="(q, i) in questions" :key="q.id">
        <span class="grip" :class="{ off: locked }" aria-hidden="true">⠿</span>
        <div class="body">
          <p class="kind small">
            <span class="muted">{{ i + 1 }}, {{ KINDS[q.kind] }}</span
            ><span class="grow" /><TextButton
              v-if="i > 0 && !locked"
              @click="questions.splice(i - 1, 0, questions.splice(i, 1)[0]!)"
            >
              up</TextButton
            ><TextButton v-if="!locked" @click="questions.splice(i, 1)">remove</TextButton>
          </p>
          <LineInput
            v-model="q.text"
            class="in text"
            :aria-label="`Question ${i + 1}`"
            :disabled="locked"
            placeholder="the question"
            maxlength="400"
          />
          <p v-if="q.kind === 'scale'" class="row">
            from 1, <LineInput v-model="q.low" class="in" aria-label="What 1 means" :disabled="locked" />, to
            <PickList v-model.number="q.steps" class="in" aria-label="Steps" :disabled="locked">
              <option v-for="n in [3, 4, 5, 6, 7, 8, 9, 10]" :key="n" :value="n">{{ n }}</option></PickList
            >,
            <LineInput v-model="q.high" class="in" aria-label="What the last step means" :disabled="locked" />
          </p>
          <template v-if="q.kind === 'choice'">
            <p v-for="(_, o) in q.options" :key="o" class="row">
              <LineInput
                v-model="q.options[o]"
                class="in text"
                :aria-label="`Choice ${o + 1}`"
                :disabled="locked"
                placeholder="what can be chosen"
              /><TextButton
                v-if="q.options.length > 2 && !locked"
                class="small"
                @click="q.options.splice(o, 1)"
              >
                remove
              </TextButton>
            </p>
            <p class="row">
              <TextButton v-if="!locked && q.options.length < 12" class="small" @click="q.options.push('')">
                another</TextButton
              ><label class="small"
                ><PlainCheckbox v-model="q.several" :disabled="locked" /> several can be chosen</label
              >
            </p>
          </template>
        </div>
      </li>
    </VueDraggable>
    <p v-if="!locked && questions.length < 12" class="add">
      Ask more:
      <ChipButton v-for="kind in ['scale', 'choice', 'open'] as const" :key="kind" @click="add(kind)">
        {{ KINDS[kind] }}
      </ChipButton>
    </p>
    <p v-if="problem" class="field-problem" role="alert">
      {{ problem
      }}<template v-for="(p, f) in problems" :key="f"
        ><template v-if="p !== problem"> {{ p }}</template></template
      >
    </p>
    <p class="acts">
      <v-btn class="main" type="submit" :disabled="busy || questions.length === 0">Save questions</v-btn
      ><v-btn class="quiet" @click="emit('cancel')">Cancel</v-btn>
    </p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 16px;
  max-width: 52rem;
}
.note {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 8px 12px;
}
.when {
  display: flex;
  gap: 14px 24px;
  flex-wrap: wrap;
  align-items: start;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 3px;
  font-size: 0.84375rem;
  max-width: 30rem;
}
legend {
  font: 600 0.8125rem/1.3 var(--ui);
  padding: 0;
  margin-bottom: 4px;
}
fieldset label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
ol {
  list-style: none;
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr);
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  padding: 10px 14px 12px 8px;
}
.grip {
  color: var(--ink-3);
  cursor: grab;
  line-height: 1;
  padding-top: 2px;
}
.off {
  visibility: hidden;
}
.body {
  display: grid;
  gap: 7px;
}
.kind {
  display: flex;
  gap: 14px;
}
.text {
  width: 100%;
  font: 400 0.96875rem/1.4 var(--read);
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  font-size: 0.84375rem;
}
.row .text {
  flex: 1;
}
.row label {
  display: flex;
  gap: 6px;
}
.add {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.acts {
  display: flex;
  gap: 12px;
}
</style>
