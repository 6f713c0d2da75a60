<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import PlainRadio from '~/components/controls/PlainRadio.vue'
import type { ClosingAnswers } from '#core/closing/questions'
import type { ClosingView } from '#shared/closing/closing'
import { localDraft } from '~/autosave/localDraft'
import { useAutosave } from '~/composables/shell/useAutosave'
import { closingDraftKey } from './closingDraftKey'

/** The questions as a student answers them. What is typed is kept in this browser until it is handed in. */
const props = defineProps<{ view: ClosingView; busy: boolean; problem: string | null; trial?: boolean }>()
const emit = defineEmits<{ answer: [answers: ClosingAnswers] }>()
const survey = computed(() => props.view.round!)
type Answers = Record<string, number | number[] | string>
const autosave = useAutosave<Answers>({
  value: { ...props.view.mine?.answers },
  version: null,
  pause: 0,
  send: null, // answers go in as a whole: until then they are nobody's but the student's
  failureOf: error => {
    throw error
  },
  ...(!props.trial && {
    localDraft: localDraft<Answers>(closingDraftKey(props.view), {
      write: kept => kept.value,
      // only answers are written there
      read: written => ({ value: { ...props.view.mine?.answers, ...(written as Answers) }, version: null }),
    }),
  }),
})
const answers = computed({ get: () => autosave.value.value, set: autosave.change })
const count = computed(
  () =>
    survey.value.questions.filter(q => {
      const a = answers.value[q.id]
      if (Array.isArray(a)) return a.length > 0
      if (typeof a === 'string') return a.trim() !== ''
      return a !== undefined
    }).length,
)
const isKept = computed(() => autosave.status.value.kind === 'kept' && autosave.status.value.isInBrowser)
const chosen = (id: string) => (answers.value[id] as number[] | undefined) ?? []
function toggle(id: string, option: number, several: boolean) {
  const now = chosen(id)
  const chosenNow = () => {
    if (several)
      return now.includes(option) ? now.filter(p => p !== option) : [...now, option].sort((a, b) => a - b)
    return [option]
  }
  answers.value = {
    ...answers.value,
    [id]: chosenNow(),
  }
}
function setStep(id: string, step: number) {
  const { [id]: was, ...rest } = answers.value
  answers.value = was === step ? rest : { ...rest, [id]: step }
}
</script>

<template>
  <form @submit.prevent="emit('answer', answers)">
    <p class="promise" :class="{ named: survey.named }">
      <b>{{ survey.named ? 'Your name is kept with your answers.' : 'Names are not kept.' }}</b>
      <template v-if="survey.named">
        Those who teach see who answered what. Until it closes you can change it.
      </template>
      <template v-else>
        That you have answered is noted, so that you are asked once; what you answered goes in with the
        others’, question by question, without name, order or time. Nobody can find out who wrote what, so it
        cannot be changed afterwards. Say nothing in it that tells who you are.
      </template>
    </p>
    <ol>
      <li v-for="(q, i) in survey.questions" :key="q.id">
        <fieldset v-if="q.kind === 'scale'">
          <legend>
            <span class="num">{{ i + 1 }}</span>{{ q.text }}
          </legend>
          <div class="scale">
            <span class="end">{{ q.low }}</span><label
              v-for="step in q.steps"
              :key="step"
              :class="{ on: answers[q.id] === step }"
              ><PlainRadio
                :name="q.id"
                :value="step"
                :checked="answers[q.id] === step"
                @click="setStep(q.id, step)"
              />{{ step }}</label
            ><span class="end">{{ q.high }}</span>
          </div>
        </fieldset>
        <fieldset v-else-if="q.kind === 'choice'">
          <legend>
            <span class="num">{{ i + 1 }}</span>{{ q.text }}
            <span v-if="q.several" class="muted small">as many as you like</span>
          </legend>
          <label v-for="(o, n) in q.options" :key="n" class="option"
            ><component
              :is="q.several ? PlainCheckbox : PlainRadio"
              :name="q.id"
              :checked="chosen(q.id).includes(n)"
              @change="toggle(q.id, n, q.several)"
            />
            {{ o }}</label
          >
        </fieldset>
        <div v-else class="open">
          <label :for="`q-${q.id}`"
            ><span class="num">{{ i + 1 }}</span
            >{{ q.text }}</label
          ><LinesInput
            :id="`q-${q.id}`"
            class="in"
            rows="3"
            maxlength="2000"
            :value="String(answers[q.id] ?? '')"
            @input="answers = { ...answers, [q.id]: ($event.target as HTMLTextAreaElement).value }"
          />
        </div>
      </li>
    </ol>
    <p class="acts">
      <v-btn class="main" type="submit" :disabled="busy || trial || count === 0">{{
        view.mine?.answered ? 'Hand in the changes' : 'Hand in'
      }}</v-btn><span class="muted small"
        >{{ count }} of {{ survey.questions.length }} answered; none has to be<template
          v-if="!trial && isKept"
          >. Kept in this browser until you hand in.</template
        ></span
      >
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 18px;
  max-width: 44rem;
}
.promise {
  background: var(--harbour-soft);
  border-radius: var(--r);
  padding: 10px 14px;
  font-size: 0.875rem;
  line-height: 1.5;
}
.promise.named {
  background: var(--ember-soft);
}
ol {
  list-style: none;
  display: grid;
  gap: 22px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
legend,
.open label {
  font: 600 1.0625rem/1.4 var(--read);
  padding: 0;
  display: block;
}
legend .num,
.open .num {
  color: var(--ember);
  margin-right: 10px;
}
.scale {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-top: 4px;
}
.scale label {
  width: 40px;
  height: 36px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--sheet);
  display: grid;
  place-items: center;
  cursor: pointer;
  font-variant-numeric: tabular-nums;
  position: relative;
}
.scale label:hover {
  border-color: var(--ink-3);
}
.scale .on {
  background: var(--harbour);
  border-color: var(--harbour);
  color: var(--on-harbour);
  font-weight: 650;
}
.scale input {
  position: absolute;
  opacity: 0;
}
.scale label:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.end {
  font-size: 0.8125rem;
  color: var(--ink-2);
  max-width: 12rem;
  margin: 0 6px;
}
.option {
  display: flex;
  gap: 9px;
  align-items: baseline;
  padding: 2px 0;
}
.open {
  display: grid;
  gap: 6px;
}
.open textarea {
  font: 400 0.9375rem/1.5 var(--read);
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
