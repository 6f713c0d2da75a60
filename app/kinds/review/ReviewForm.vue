<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import { countWords } from '#core/contributing/measureText'
import type { Lack } from '#core/kinds/review/missing'
import type { ReviewDesk, ReviewGiven } from '#shared/kinds/review/review'
import { points } from '~/composables/marking/points'
import ScoreLadder from './ScoreLadder.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** What is asked of a reviewer: a score and a remark for each criterion, the questions, and remarks on passages. */
const props = defineProps<{
  desk: ReviewDesk
  given: ReviewGiven
  lacks: readonly Lack[]
  open: boolean
  lit: number | null
}>()
const emit = defineEmits<{
  change: [part: Partial<ReviewGiven>, step?: boolean]
  light: [i: number | null]
  drop: [i: number]
}>()
const lack = (kind: Lack['kind'], id: string) => props.lacks.find(l => l.kind === kind && l.id === id) ?? null
const isLacking = (id: string) => props.lacks.some(l => l.id === id)
function score(id: string, value: number | null) {
  const { [id]: _gone, ...rest } = props.given.points
  emit('change', { points: value === null ? rest : { ...rest, [id]: value } }, true)
}
const remark = (id: string, text: string) =>
  emit('change', { remarks: { ...props.given.remarks, [id]: text } })
const answer = (id: string, text: string) =>
  emit('change', { answers: { ...props.given.answers, [id]: text } })
const note = (i: number, text: string) =>
  emit('change', { passages: props.given.passages.map((p, j) => (j === i ? { ...p, note: text } : p)) })
const count = (text: string | undefined, need: number) => {
  if (need > 0) return `${countWords(text ?? '')} of ${need} words`
  if (countWords(text ?? '') > 0) return `${countWords(text ?? '')} words`
  return ''
}
const theirs = (id: string) => props.desk.sample?.points[id]
const off = (id: string) => {
  const t = theirs(id)
  const own = props.given.points[id]
  return t === undefined || own === undefined ? null : own - t
}
function offWords(c: { readonly id: string }) {
  if (off(c.id) === null) return ''
  if (off(c.id) === 0) return ', as you did.'
  return `; you are ${points(Math.abs(off(c.id)!))} ${off(c.id)! > 0 ? 'above' : 'below'}.`
}
</script>

<template>
  <div class="form">
    <fieldset
      v-for="c in desk.criteria"
      :key="c.id"
      :data-lack="open && isLacking(c.id)"
      :data-part="c.id"
      :data-criterion="c.title"
    >
      <legend>
        {{ c.title
        }}<span class="num">{{
          given.points[c.id] === undefined
            ? `of ${points(c.max)}`
            : `${points(given.points[c.id]!)} of ${points(c.max)}`
        }}</span>
      </legend>
      <ScoreLadder
        :label="`Score for ${c.title}`"
        :max="c.max"
        :levels="c.levels"
        :value="given.points[c.id]"
        :disabled="!open"
        @set="score(c.id, $event)"
      />
      <p v-if="theirs(c.id) !== undefined" class="theirs">
        <b>The instructor gave {{ points(theirs(c.id)!) }}</b
        >{{ offWords(c) }}
        {{ desk.sample?.why[c.id] }}
      </p>
      <label class="remark"
        ><span class="visually-hidden">Remark on {{ c.title }}</span
        ><LinesInput
          rows="2"
          :readonly="!open"
          :value="given.remarks[c.id] ?? ''"
          :placeholder="
            desk.remarkWords > 0
              ? 'What do you see in it, and what would help its author?'
              : 'A remark, if you like'
          "
          @input="remark(c.id, ($event.target as HTMLTextAreaElement).value)"
        />
      </label>
      <p
        v-if="open"
        class="wc num"
        :class="{ short: lack('remark', c.id) && (given.remarks[c.id] ?? '') !== '' }"
      >
        {{ count(given.remarks[c.id], desk.remarkWords) }}
      </p>
    </fieldset>
    <fieldset v-for="q in desk.questions" :key="q.id" :data-lack="open && isLacking(q.id)" :data-part="q.id">
      <legend>{{ q.text }}</legend>
      <details v-if="q.model">
        <summary>A model answer</summary>
        <p>{{ q.model }}</p>
      </details>
      <label class="remark"
        ><span class="visually-hidden">{{ q.text }}</span
        ><LinesInput
          rows="3"
          :readonly="!open"
          :value="given.answers[q.id] ?? ''"
          @input="answer(q.id, ($event.target as HTMLTextAreaElement).value)"
        />
      </label>
      <p
        v-if="open"
        class="wc num"
        :class="{ short: lack('answer', q.id) && (given.answers[q.id] ?? '') !== '' }"
      >
        {{ count(given.answers[q.id], q.minWords) }}
      </p>
    </fieldset>
    <fieldset v-if="desk.work && (given.passages.length > 0 || open)">
      <legend>In the text</legend>
      <p v-if="given.passages.length === 0" class="hint">Select a passage to remark on it where it stands.</p>
      <div
        v-for="(p, i) in given.passages"
        :key="i"
        class="passage"
        :class="{ on: lit === i }"
        @focusin="emit('light', i)"
        @mouseenter="emit('light', i)"
      >
        <blockquote>{{ p.exact }}</blockquote>
        <LinesInput
          :id="`passage-${i}`"
          rows="1"
          :readonly="!open"
          :value="p.note"
          aria-label="Remark on this passage"
          placeholder="Your remark"
          @input="note(i, ($event.target as HTMLTextAreaElement).value)"
        />
        <TextButton v-if="open" class="small" @click="emit('drop', i)">remove</TextButton>
      </div>
    </fieldset>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: 16px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 5px;
  min-width: 0;
}
legend {
  display: flex;
  width: 100%;
  justify-content: space-between;
  gap: 12px;
  font: 600 0.9375rem/1.4 var(--ui);
  padding: 0 0 5px;
}
legend span {
  font-weight: 500;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
textarea {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--sheet);
  color: var(--ink);
  font: 400 0.9375rem/1.5 var(--read);
  padding: 8px 11px;
  resize: vertical;
  field-sizing: content;
  min-height: 3.2em;
}
textarea:focus-visible {
  border-color: var(--harbour);
}
textarea[readonly] {
  background: transparent;
  border-style: dashed;
}
.wc {
  font-size: 0.75rem;
  color: var(--ink-3);
  text-align: right;
  min-height: 1em;
}
.wc.short {
  color: var(--ember);
}
.theirs {
  font-size: 0.8125rem;
  line-height: 1.45;
  background: var(--harbour-soft);
  border-radius: var(--r);
  padding: 6px 10px;
}
details {
  font-size: 0.84375rem;
  border-left: 3px solid var(--k-review);
  padding-left: 10px;
}
summary {
  cursor: pointer;
  color: var(--harbour);
  font-weight: 500;
}
details p {
  font: 400 0.90625rem/1.5 var(--read);
  margin-top: 4px;
  white-space: pre-line;
}
.passage {
  border-left: 3px solid var(--cited);
  padding: 2px 0 4px 10px;
  display: grid;
  gap: 5px;
}
.passage.on {
  border-left-color: var(--ember);
}
blockquote {
  font: italic 400 0.875rem/1.45 var(--read);
  color: var(--ink-2);
  display: -webkit-box;
  -webkit-line-clamp: 3;
  line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.passage .link {
  justify-self: end;
}
</style>
