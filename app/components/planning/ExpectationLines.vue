<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import { differenceInCalendarDays } from 'date-fns'
import { KINDS } from '#core/kinds'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { shiftDays } from '#core/planning/moveSchedule'
import { localDay } from '#core/planning/week'
import { mondayOf } from '~/composables/planning/termWeeks'
import { useSeminarStore } from '~/stores/seminar'
import type { PhaseName } from '#core/planning/schedule'
import type { ActivityBody } from '#shared/planning/composer'
import { entryWord } from '#core/planning/expectationWords'
import { plural } from '#core/language'
import { offeredExpectations, phaseWord } from '~/composables/planning/offeredExpectations'
import { newKey } from '~/composables/shell/useApi'
import ChoicePart from './ChoicePart.vue'
import NumberPart from './NumberPart.vue'
import TimePart from './TimePart.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Expectations as sentences; every number and time in them is changed where it stands. */
const props = defineProps<{ body: ActivityBody; disabled: boolean }>()
const emit = defineEmits<{
  change: [rules: ActivityBody['rules']]
  end: [phase: PhaseName, at: string]
  light: [ruleId: string | null]
}>()
const seminar = useSeminarStore()
const timeZone = computed(() => seminar.shell?.timeZone ?? 'UTC')
const phaseOf = (name: PhaseName) => props.body.phases.find(p => p.name === name)
const set = (i: number, part: Partial<ExpectationRule>) =>
  emit(
    'change',
    props.body.rules.map((r, j) => (j === i ? { ...r, rule: { ...r.rule, ...part } as ExpectationRule } : r)),
  )
const drop = (i: number) =>
  emit(
    'change',
    props.body.rules.filter((_, j) => j !== i),
  )
// -- a weekly entry is due on the weekday and at the time at which its phase ends
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map(
  (text, i) => ({ value: i + 1, text }),
)
const endDay = (phase: PhaseName) => localDay(new Date(phaseOf(phase)!.endsAt), timeZone.value)
const weekdayOf = (phase: PhaseName): number =>
  1 + differenceInCalendarDays(endDay(phase), mondayOf(endDay(phase)))
function setWeekday(phase: PhaseName, weekday: number) {
  const end = new Date(phaseOf(phase)!.endsAt)
  const days = weekday - weekdayOf(phase)
  emit('end', phase, shiftDays(end, days, timeZone.value).toISOString())
}
const working = computed(() => KINDS[props.body.kind].workingPhases.filter(name => phaseOf(name)))

const offers = computed(() => offeredExpectations(props.body))
const add = (rule: ExpectationRule) =>
  emit('change', [...props.body.rules, { id: newKey(), rule, needed: true }])
</script>

<template>
  <div class="lines">
    <p v-for="(r, i) in body.rules" :key="r.id" class="line" :data-rule="r.rule.kind">
      <template v-if="r.rule.kind === 'entries'">
        Each student writes
        <NumberPart
          label="How many"
          :min="1"
          :max="200"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3, 4]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ entryWord(body.kind, r.rule.need) }} of at least
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[50, 100, 200, 300]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words{{ r.rule.need > 1 ? ' each' : '' }}, by
      </template>
      <template v-else-if="r.rule.kind === 'weeklyEntries'">
        Every week each student writes
        <NumberPart
          label="How many a week"
          :min="1"
          :max="7"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ plural(r.rule.need, 'entry', 'entries') }} of at least
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[80, 120, 150, 250]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words, each week by
        <ChoicePart
          label="Due each week on"
          :model-value="weekdayOf(r.rule.due)"
          :choices="WEEKDAYS"
          :disabled="disabled"
          @update:model-value="setWeekday(r.rule.due, $event)"
          @opened="emit('light', $event ? r.id : null)"
        />, the last by
      </template>
      <template v-else-if="r.rule.kind === 'replies'">
        {{ i > 0 ? 'Then' : 'Each student' }}
        {{ KINDS[body.kind].answerType === 'reply' ? 'replies to' : 'comments on the work of' }}
        at least
        <NumberPart
          label="How many classmates"
          :min="1"
          :max="60"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3, 4]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        different {{ plural(r.rule.need, 'classmate') }},
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[20, 40, 60, 100]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words or more each, by
      </template>
      <template v-else-if="r.rule.kind === 'reviews'">
        {{ i > 0 ? 'Then each student hands in' : 'Each student hands in' }}
        <template v-if="r.rule.everyone">a review of everyone in their group, of at least{{ ' ' }}</template
        ><template v-else
          ><NumberPart
            label="How many reviews"
            :min="1"
            :max="20"
            :model-value="r.rule.need"
            :disabled="disabled"
            :usual="[2, 3, 4]"
            @update:model-value="set(i, { need: $event })"
            @opened="emit('light', $event ? r.id : null)"
          />
          {{ plural(r.rule.need, 'review') }} of at least{{ ' ' }}</template
        >
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[40, 60, 100, 150]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words{{ r.rule.need > 1 ? ' each' : '' }}, by
      </template>
      <template v-else-if="r.rule.kind === 'prompts'">
        Every {{ KINDS[body.kind].promptWord }} is answered with at least
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[30, 60, 80, 120]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words, by
      </template>
      <template v-else-if="r.rule.kind === 'holds'">
        <NumberPart
          label="How many"
          :min="1"
          :max="60"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ r.rule.need === 1 ? 'of them' : 'of them each' }}
        {{ r.rule.what === 'source' ? 'links to a source' : 'comes with a picture' }}, by
      </template>
      <template v-else-if="r.rule.kind === 'ownPages'">
        Each student claims
        <NumberPart
          label="How many pages"
          :min="1"
          :max="20"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ plural(r.rule.need, 'page') }} and writes at least
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[200, 300, 400, 600]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words of {{ r.rule.need === 1 ? 'it' : 'each' }}, by
      </template>
      <template v-else-if="r.rule.kind === 'revisions'">
        {{ i > 0 ? 'Then they revise' : 'Each student revises' }}
        <NumberPart
          label="How many pages"
          :min="1"
          :max="20"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ plural(r.rule.need, 'page') }} of their own after comments on
        {{ r.rule.need === 1 ? 'it' : 'them' }}, by
      </template>
      <template v-else-if="r.rule.kind === 'questions'">
        {{ i > 0 ? 'Among them' : 'Each student puts' }} at least
        <NumberPart
          label="How many questions"
          :min="1"
          :max="60"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[1, 2, 3]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        {{ plural(r.rule.need, 'question') }} of at least
        <NumberPart
          label="At least so many words"
          :model-value="r.rule.minWords"
          :disabled="disabled"
          unit="words"
          :usual="[5, 8, 12, 20]"
          @update:model-value="set(i, { minWords: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        words, by
      </template>
      <template v-else-if="r.rule.kind === 'parts'">
        {{ i > 0 ? 'They stand' : 'Notes stand' }} on at least
        <NumberPart
          label="On how many pages"
          :min="1"
          :max="60"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[2, 3, 4]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        different {{ plural(r.rule.need, 'page') }}, by
      </template>
      <template v-else>
        Each student is here on
        <NumberPart
          label="On how many days"
          :min="1"
          :max="60"
          :model-value="r.rule.need"
          :disabled="disabled"
          :usual="[2, 3, 4]"
          @update:model-value="set(i, { need: $event })"
          @opened="emit('light', $event ? r.id : null)"
        />
        different {{ plural(r.rule.need, 'day') }}, by
      </template>
      <TimePart
        v-if="phaseOf(r.rule.due)"
        label="Due"
        :model-value="phaseOf(r.rule.due)!.endsAt"
        :disabled="disabled"
        @update:model-value="emit('end', r.rule.due, $event)"
        @opened="emit('light', $event ? r.id : null)"
      >
        <p v-if="working.length > 1" class="when hint">
          It is the end of
          <PickList
            class="in"
            :value="r.rule.due"
            aria-label="Phase it belongs to"
            @change="set(i, { due: ($event.target as HTMLSelectElement).value as PhaseName })"
          >
            <option v-for="w in working" :key="w" :value="w">
              {{ phaseWord(w) }}
            </option></PickList
          >, and what follows moves with it.
        </p> </TimePart
      ><span class="stop">.</span>
      <PlainButton
        v-if="!disabled"
        class="off"
        :aria-label="`Remove expectation ${i + 1}`"
        title="Remove"
        @click="drop(i)"
      >
        ×
      </PlainButton>
    </p>
    <slot />
    <p v-if="!disabled && offers.length > 0" class="offers">
      <span class="hint">+ add</span
      ><TextButton v-for="o in offers" :key="o.words" @click="add(o.rule)">
        {{ o.words }}
      </TextButton>
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
  position: relative;
  padding-right: 26px;
}
.off {
  position: absolute;
  right: 0;
  top: 4px;
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
  opacity: 0;
  font-size: 1rem;
  padding: 2px 7px;
  border-radius: 4px;
}
.line:hover .off,
.off:focus-visible {
  opacity: 1;
}
.off:hover {
  color: var(--brick);
  background: var(--sunken);
}
.offers {
  display: flex;
  gap: 6px 14px;
  flex-wrap: wrap;
  font-size: 0.84375rem;
  align-items: baseline;
  padding-top: 2px;
}
.when {
  line-height: 2;
}
.when .in {
  padding: 1px 5px;
  font-size: 0.8125rem;
}
</style>
