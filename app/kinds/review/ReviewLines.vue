<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import { HAND_IN_WAYS, type SubmissionMethod } from '#core/kinds/review/reviewSettings'
import { ATTACHABLE } from '#core/contributing/talkSettings'
import type { ReviewSettingsBody } from '#shared/kinds/review/settings'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { plural } from '#core/language'
import { withSubject } from '~/composables/planning/reviewSubject'
import { newKey } from '~/composables/shell/useApi'
import ChoicePart from '~/components/planning/ChoicePart.vue'
import NumberPart from '~/components/planning/NumberPart.vue'
import TimePart from '~/components/planning/TimePart.vue'
import ChipButton from '~/components/controls/ChipButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** How a peer review goes, as sentences: who reviews what, how work comes in, what is asked, and when it is let out. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
const review = computed(() => props.body.review)
const set = (part: Partial<ReviewSettingsBody>) => emit('change', { review: { ...review.value, ...part } })
const WAYS: Readonly<Record<SubmissionMethod, string>> = {
  text: 'written here',
  file: 'as a file',
  link: 'as a link',
  paper: 'on paper',
}
const TYPE_WORDS = {
  picture: 'pictures',
  paper: 'PDF',
  document: 'documents',
  recording: 'recordings',
} as const
const toggleMethod = (method: SubmissionMethod) => {
  const methods = review.value.ways.includes(method)
    ? review.value.ways.filter(w => w !== method)
    : [...review.value.ways, method]
  if (methods.length > 0) set({ ways: methods })
}
const toggleType = (type: (typeof ATTACHABLE)[number]) => {
  const { attach } = props.body
  emit('change', {
    attach: {
      ...attach,
      types: attach.types.includes(type) ? attach.types.filter(t => t !== type) : [...attach.types, type],
    },
  })
}
const plans = computed(() => [
  { value: '', text: 'anybody but themselves' },
  ...props.view.groupPlans.map(p => ({ value: p.id, text: `nobody of their group in “${p.title}”` })),
])
const targets = computed(() => [
  { value: '', text: 'nothing: it is only talked about' },
  ...props.view.shareable.map(a => ({ value: a.id, text: `the group’s mark in “${a.title}”` })),
])
const setSubject = (subject: ReviewSettingsBody['subject']) =>
  emit('change', withSubject(props.body, subject))
const question = (i: number, part: Partial<ReviewSettingsBody['questions'][number]>) =>
  set({ questions: review.value.questions.map((q, j) => (j === i ? { ...q, ...part } : q)) })
const addQuestion = () =>
  set({
    questions: [
      ...review.value.questions,
      { id: newKey(), text: 'What would you have to see to believe it?', model: null, minWords: 20 },
    ],
  })
const last = computed(() => props.body.phases.find(p => p.name === 'review')?.endsAt ?? props.body.opensAt)
</script>

<template>
  <div class="review-lines">
    <p class="line">
      Everyone reviews
      <ChoicePart
        label="What is reviewed"
        :model-value="review.subject"
        :choices="[
          { value: 'work', text: 'classmates’ work, without names' },
          {
            value: 'teammates',
            text: 'everyone in their group',
            note: 'Each one’s share in what the group made; those reviewed are told what was said, not by whom.',
          },
        ]"
        :disabled="disabled"
        @update:model-value="setSubject($event)"
      /><template v-if="review.subject === 'work'"
        >,
        <NumberPart
          label="Reviews each"
          :min="1"
          :max="20"
          :model-value="review.each"
          :disabled="disabled"
          :usual="[2, 3, 4]"
          @update:model-value="set({ each: $event })" />
        {{ plural(review.each, 'work') }} each, of
        <ChoicePart
          label="Of whom"
          :model-value="review.apartIn ?? ''"
          :choices="plans"
          :disabled="disabled"
          @update:model-value="set({ apartIn: ($event as string) || null })" /></template
      >, and
      <ChoicePart
        label="Themselves"
        :model-value="review.self"
        :choices="[
          { value: true, text: review.subject === 'work' ? 'their own, too' : 'themselves, too' },
          { value: false, text: review.subject === 'work' ? 'not their own' : 'not themselves' },
        ]"
        :disabled="disabled"
        @update:model-value="set({ self: $event })"
      />.
    </p>
    <template v-if="review.subject === 'work'">
      <p class="line">
        Work comes in
        <span class="types"
          ><ChipButton
            v-for="w in HAND_IN_WAYS"
            :key="w"
            :class="{ on: review.ways.includes(w) }"
            :aria-pressed="review.ways.includes(w)"
            :disabled="disabled"
            @click="toggleMethod(w)"
          >
            {{ WAYS[w] }}
          </ChipButton></span
        ><template v-if="body.audience.kind === 'groups'"
          >,
          <ChoicePart
            label="By whom"
            :model-value="review.byGroup"
            :choices="[
              { value: false, text: 'from each person' },
              { value: true, text: 'once from each group' },
            ]"
            :disabled="disabled"
            @update:model-value="set({ byGroup: $event })" /></template
        >; late work is
        <ChoicePart
          label="Late work"
          :model-value="review.late"
          :choices="[
            { value: 'taken', text: 'taken', note: 'It counts as late, and readers are found for it.' },
            { value: 'refused', text: 'refused' },
          ]"
          :disabled="disabled"
          @update:model-value="set({ late: $event })"
        />.
      </p>
      <p v-if="review.ways.includes('file')" class="line">
        Up to
        <NumberPart
          label="How many files"
          :min="1"
          :max="20"
          :model-value="Math.max(1, body.attach.most)"
          :disabled="disabled"
          :usual="[1, 2, 4]"
          @update:model-value="emit('change', { attach: { ...body.attach, most: $event } })"
        />
        {{ plural(Math.max(1, body.attach.most), 'file') }} of up to
        <NumberPart
          label="Megabytes each"
          :min="1"
          :max="20"
          :model-value="body.attach.megabytes"
          :disabled="disabled"
          unit="MB"
          :usual="[5, 10, 20]"
          @update:model-value="emit('change', { attach: { ...body.attach, megabytes: $event } })"
        />
        MB:
        <span class="types"
          ><ChipButton
            v-for="t in ATTACHABLE.filter(x => x !== 'recording')"
            :key="t"
            :class="{ on: body.attach.types.includes(t) }"
            :aria-pressed="body.attach.types.includes(t)"
            :disabled="disabled"
            @click="toggleType(t)"
          >
            {{ TYPE_WORDS[t] }}
          </ChipButton></span
        >
      </p>
    </template>
    <p class="line">
      For each criterion of the rubric they give a score and
      <NumberPart
        label="Words of each remark"
        :min="0"
        :max="500"
        :model-value="review.remarkWords"
        :disabled="disabled"
        unit="words"
        :usual="[0, 10, 20, 40]"
        @update:model-value="set({ remarkWords: $event })"
      />
      words or more; reviews go in
      <ChoicePart
        label="They go in"
        :model-value="review.together"
        :choices="[
          { value: false, text: 'one by one' },
          { value: true, text: 'all at once', note: 'Nothing goes in until all of them are there.' },
        ]"
        :disabled="disabled"
        @update:model-value="set({ together: $event })"
      />.
    </p>
    <div v-for="(q, i) in review.questions" :key="q.id" class="question">
      <label class="lab"
        >Question
        <LineInput
          class="in"
          :value="q.text"
          :disabled="disabled"
          maxlength="500"
          @change="question(i, { text: ($event.target as HTMLInputElement).value })"
      /></label>
      <label class="lab"
        >Model answer, seen while they review
        <LinesInput
          class="in"
          rows="2"
          :value="q.model ?? ''"
          :disabled="disabled"
          @change="question(i, { model: ($event.target as HTMLTextAreaElement).value.trim() || null })"
        />
      </label>
      <p class="hint">
        at least
        <NumberPart
          label="Words of the answer"
          :min="0"
          :max="500"
          :model-value="q.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[0, 20, 40]"
          @update:model-value="question(i, { minWords: $event })"
        />
        words
        <TextButton
          v-if="!disabled"
          class="small"
          @click="set({ questions: review.questions.filter((_, j) => j !== i) })"
        >
          remove it
        </TextButton>
      </p>
    </div>
    <TextButton v-if="!disabled" class="small" @click="addQuestion">
      + a question beside the criteria
    </TextButton>
    <p class="line">
      Reviews are released
      <ChoicePart
        label="Release"
        :model-value="review.release"
        :choices="[
          { value: 'looked', text: 'when you have looked at them' },
          { value: 'at', text: 'at a time' },
          { value: 'atOnce', text: 'each as it comes in', note: 'Then its time may tell who wrote it.' },
        ]"
        :disabled="disabled"
        @update:model-value="
          set({ release: $event, releaseAt: $event === 'at' ? (review.releaseAt ?? last) : null })
        "
      /><template v-if="review.release === 'at' && review.releaseAt"
        >:
        <TimePart
          label="Release at"
          :model-value="review.releaseAt"
          :disabled="disabled"
          :due="false"
          @update:model-value="set({ releaseAt: $event })" /></template
      ><template v-if="review.subject === 'work'"
        >; authors
        <ChoicePart
          label="Helpful"
          :model-value="review.helpful"
          :choices="[
            { value: true, text: 'say how helpful each was' },
            { value: false, text: 'are not asked how helpful they were' },
          ]"
          :disabled="disabled"
          @update:model-value="set({ helpful: $event })" /></template
      >.
    </p>
    <p v-if="review.subject === 'work'" class="line">
      One’s own reviewing counts
      <NumberPart
        label="Percent of the points"
        :min="0"
        :max="100"
        :model-value="review.reviewingPercent"
        :disabled="disabled"
        unit="%"
        :usual="[0, 10, 20, 30]"
        @update:model-value="set({ reviewingPercent: $event })"
      />
      % of the points<template v-if="review.reviewingPercent > 0"
        >: done
        <NumberPart
          label="Done"
          :min="0"
          :max="100"
          :model-value="review.weights.done"
          :disabled="disabled"
          :usual="[40]"
          @update:model-value="set({ weights: { ...review.weights, done: $event } })" />, on time
        <NumberPart
          label="On time"
          :min="0"
          :max="100"
          :model-value="review.weights.onTime"
          :disabled="disabled"
          :usual="[20]"
          @update:model-value="set({ weights: { ...review.weights, onTime: $event } })" />, helpful
        <NumberPart
          label="Helpful"
          :min="0"
          :max="100"
          :model-value="review.weights.helpful"
          :disabled="disabled"
          :usual="[20]"
          @update:model-value="set({ weights: { ...review.weights, helpful: $event } })" />, close to the
        others
        <NumberPart
          label="Close to the others"
          :min="0"
          :max="100"
          :model-value="review.weights.close"
          :disabled="disabled"
          :usual="[20]"
          @update:model-value="set({ weights: { ...review.weights, close: $event } })" /></template
      >.
    </p>
    <p v-else class="line">
      It shares
      <ChoicePart
        label="What it shares"
        :model-value="review.sharesOf ?? ''"
        :choices="targets"
        :disabled="disabled"
        @update:model-value="set({ sharesOf: ($event as string) || null })"
      />, by a factor from
      <NumberPart
        label="Least, percent"
        :min="0"
        :max="100"
        :model-value="Math.round(review.bounds.least * 100)"
        :disabled="disabled"
        unit="%"
        :usual="[50, 70, 80, 90]"
        @update:model-value="set({ bounds: { ...review.bounds, least: $event / 100 } })"
      />
      to
      <NumberPart
        label="Most, percent"
        :min="100"
        :max="200"
        :model-value="Math.round(review.bounds.most * 100)"
        :disabled="disabled"
        unit="%"
        :usual="[100, 105, 110, 120]"
        @update:model-value="set({ bounds: { ...review.bounds, most: $event / 100 } })"
      />
      %; you decide.
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
.types {
  display: inline-flex;
  gap: 6px;
  flex-wrap: wrap;
}
.chip {
  font-family: var(--ui);
  line-height: 1.4;
}
.question {
  display: grid;
  gap: 6px;
  border-left: 3px solid var(--k-review);
  padding: 4px 0 6px 12px;
  margin: 6px 0;
}
</style>
