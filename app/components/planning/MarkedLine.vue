<script setup lang="ts">
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import { plural } from '#core/language'
import { points } from '~/composables/marking/points'
import {
  combineChoices,
  lateChoices,
  passChoices,
  USUAL_PASS,
  usualCombine,
  usualLateRule,
  type Combine,
  type LateRule,
} from '~/composables/planning/markingChoices'
import ChoicePart from './ChoicePart.vue'
import NumberPart from './NumberPart.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** How it is marked, as a sentence, with the rubric drawn below it. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; write: [] }>()
const rubric = computed(
  () => props.view.rubrics.find(r => r.versionId === props.body.rubricVersionId) ?? null,
)
const rubricPoints = computed(() => (rubric.value ? pointsOf(asDraft(rubric.value)) : null))
const asDraft = (r: ComposerView['rubrics'][number]) => ({
  criteria: r.criteria.map(c => ({ ...c, outcomes: [] })),
})
/** A rubric attached is a rubric used: points and scale follow it at once. */
function useRubric(versionId: string | null) {
  const chosen = props.view.rubrics.find(r => r.versionId === versionId)
  emit(
    'change',
    chosen
      ? {
          rubricVersionId: versionId,
          points: pointsOf(asDraft(chosen)),
          scale: props.body.scale === 'none' ? 'points' : props.body.scale,
        }
      : { rubricVersionId: null },
  )
}
const rubricChoices = computed(() => [
  ...props.view.rubrics.map(r => ({
    value: r.versionId as string | null,
    text: r.title,
    note: `${points(pointsOf(asDraft(r)))} points: ${r.criteria.map(c => c.title).join(', ')}`,
  })),
  { value: null, text: 'no rubric' },
])
const categoryChoices = computed(() => [
  ...props.view.categories.map(c => ({
    value: c.id as string | null,
    text: `${c.title} (${c.weightPercent} %)`,
  })),
  { value: null, text: 'no category', note: 'It is marked and counts nowhere.' },
])
const scaleChoices = computed(() => [
  { value: 'points' as const, text: 'points' },
  { value: 'percent' as const, text: 'percent' },
  {
    value: 'letter' as const,
    text: 'a letter',
    note:
      props.view.scales.length > 0
        ? `by the scale ${props.view.scales.map(s => s.title).join(', ')}`
        : 'set up a scale in the settings first',
  },
  { value: 'complete' as const, text: 'done or not' },
  { value: 'none' as const, text: 'no mark' },
])
function setScale(scale: ActivityBody['scale']) {
  const part: Partial<ActivityBody> = { scale }
  if (scale === 'none') Object.assign(part, { points: null })
  else if (props.body.points === null)
    Object.assign(part, { points: rubricPoints.value ?? (scale === 'complete' ? 100 : 1000) })
  if (scale === 'letter')
    Object.assign(part, { gradingScaleId: props.body.gradingScaleId ?? props.view.scales[0]?.id ?? null })
  emit('change', part)
}
const hoursText = (minutes: number) => String(Math.round(minutes / 6) / 10)
const setLate = (kind: LateRule['kind']) => emit('change', { lateRule: usualLateRule(kind) })
const lateText = computed(() => lateChoices.find(c => c.value === props.body.lateRule.kind)!.text)
function setCombine(by: NonNullable<Combine>['by'] | null) {
  const { combine } = props.body
  emit('change', { combine: usualCombine(by, combine && combine.by !== 'count' ? combine.each : 400) })
}
</script>

<template>
  <div class="marked">
    <p class="sentence">
      It gets
      <ChoicePart
        label="How it is marked"
        :model-value="body.scale"
        :choices="scaleChoices"
        :disabled="disabled"
        @update:model-value="setScale"
      />
      <template v-if="body.scale === 'letter' && view.scales.length > 1"
        >of
        <ChoicePart
          label="Grading scale"
          :model-value="body.gradingScaleId"
          :choices="view.scales.map(scale => ({ value: scale.id as string | null, text: scale.title }))"
          :disabled="disabled"
          @update:model-value="emit('change', { gradingScaleId: $event })"
      /></template>
      <template v-if="body.scale === 'none'">and takes feedback only</template>
      <template v-else
        >, out of
        <NumberPart
          label="Points"
          :min="1"
          :max="1000"
          :model-value="(body.points ?? 0) / 100"
          :text="points(body.points ?? 0)"
          :disabled="disabled"
          unit="points"
          @update:model-value="emit('change', { points: $event * 100 })"
        />
        {{ plural((body.points ?? 0) / 100, 'point') }}</template
      >
      <template v-if="body.scale !== 'none' || rubric"
        >, by
        <ChoicePart
          label="Rubric"
          :model-value="body.rubricVersionId"
          :choices="rubricChoices"
          :disabled="disabled"
          @update:model-value="useRubric" /></template
      >.
      <template v-if="body.scale !== 'none'">
        It
        <ChoicePart
          label="Whether it counts"
          :model-value="body.practice"
          :choices="[
            { value: false, text: 'counts' },
            { value: true, text: 'is practice', note: 'marked, not counted; everyone is told so' },
          ]"
          :disabled="disabled"
          @update:model-value="emit('change', { practice: $event })"
        />
        <template v-if="!body.practice">
          in
          <ChoicePart
            label="Category"
            :model-value="body.categoryId"
            :choices="categoryChoices"
            :disabled="disabled"
            @update:model-value="emit('change', { categoryId: $event })" /></template
        >,
        <ChoicePart
          label="Pass mark"
          :model-value="body.passPercent !== null"
          :choices="passChoices"
          :disabled="disabled"
          @update:model-value="emit('change', { passPercent: $event ? USUAL_PASS : null })"
        /><template v-if="body.passPercent !== null"
          >{{ ' '
          }}<NumberPart
            label="Passed from, in percent"
            :model-value="body.passPercent"
            :max="100"
            unit="percent"
            :usual="[40, 50, 60, 70]"
            :disabled="disabled"
            @update:model-value="emit('change', { passPercent: $event })"
          />
          %</template
        >. Late work
        <ChoicePart
          label="Late work"
          :model-value="body.lateRule.kind"
          :choices="lateChoices"
          :text="lateText"
          :disabled="disabled"
          @update:model-value="setLate"
        /><template v-if="body.lateRule.kind === 'perDay'"
          >:
          <NumberPart
            label="Percent a day"
            :model-value="body.lateRule.percentPerDay"
            :max="100"
            unit="percent"
            :disabled="disabled"
            @update:model-value="
              emit('change', {
                lateRule: { ...body.lateRule, percentPerDay: $event } as ActivityBody['lateRule'],
              })
            "
          />
          % a day, never below
          <NumberPart
            label="Floor in percent"
            :model-value="body.lateRule.floorPercent"
            :max="100"
            unit="percent"
            :disabled="disabled"
            @update:model-value="
              emit('change', {
                lateRule: { ...body.lateRule, floorPercent: $event } as ActivityBody['lateRule'],
              })
            "
          />
          %</template
        ><template v-else-if="body.lateRule.kind === 'cap'"
          >:
          <NumberPart
            label="Cap in percent"
            :model-value="body.lateRule.capPercent"
            :max="100"
            unit="percent"
            :disabled="disabled"
            @update:model-value="
              emit('change', {
                lateRule: { ...body.lateRule, capPercent: $event } as ActivityBody['lateRule'],
              })
            "
          />
          %</template
        ><template v-if="body.lateRule.kind !== 'none'"
          >, after
          <NumberPart
            label="Hours of grace"
            :model-value="Math.round(body.lateRule.graceMinutes / 60)"
            :text="hoursText(body.lateRule.graceMinutes)"
            :max="1600"
            unit="hours"
            :usual="[0, 1, 12, 24]"
            :disabled="disabled"
            @update:model-value="
              emit('change', {
                lateRule: { ...body.lateRule, graceMinutes: 60 * $event } as ActivityBody['lateRule'],
              })
            "
          />
          {{ plural(body.lateRule.graceMinutes / 60, 'hour') }} of grace</template
        >.
      </template>
    </p>
    <p v-if="!rubric && body.scale !== 'none'" class="sentence">
      The mark is
      <ChoicePart
        label="What makes the mark"
        :model-value="body.combine?.by ?? null"
        :choices="combineChoices"
        :disabled="disabled"
        @update:model-value="setCombine"
      /><template v-if="body.combine?.by === 'count'"
        >:
        <NumberPart
          label="How many make full marks"
          :min="1"
          :max="100"
          :model-value="body.combine.need"
          :disabled="disabled"
          :usual="[1, 2, 3, 5]"
          @update:model-value="emit('change', { combine: { by: 'count', need: $event } })"
        />
        that count make full marks</template
      ><template v-else-if="body.combine"
        >, each up to
        <NumberPart
          label="Points for one contribution"
          :min="1"
          :max="1000"
          :model-value="body.combine.each / 100"
          :disabled="disabled"
          unit="points"
          :usual="[1, 2, 4, 5, 10]"
          @update:model-value="
            emit('change', { combine: { ...body.combine, each: $event * 100 } as ActivityBody['combine'] })
          " />
        points<template v-if="body.combine.by === 'best'"
          >, the best
          <NumberPart
            label="How many count"
            :min="1"
            :max="100"
            :model-value="body.combine.k"
            :disabled="disabled"
            :usual="[1, 2, 3]"
            @update:model-value="
              emit('change', { combine: { ...body.combine, k: $event } as ActivityBody['combine'] })
            " /></template></template
      >.
    </p>
    <div v-if="rubric" class="bars">
      <span v-for="c in rubric.criteria" :key="c.id" :style="{ flex: c.max * c.weight }"
        ><em :title="c.title">{{ c.title }}</em
        ><i
          ><u v-for="l in c.levels" :key="l.id">{{ points(l.points) }}</u></i
        ></span
      >
      <span class="sum" :class="{ off: body.points !== rubricPoints }"
        ><b>= {{ points(rubricPoints ?? 0) }}</b
        >{{
          body.points === rubricPoints || body.points === null ? 'adds up' : `not ${points(body.points)}`
        }}</span
      >
    </div>
    <p v-if="!rubric && !disabled" class="small">
      <TextButton @click="emit('write')">Write a rubric for this</TextButton>
    </p>
    <p v-if="rubric" class="small">
      <NuxtLink :to="`/seminars/${view.seminarId}/rubrics/${rubric.id}`">Change the rubric</NuxtLink>
    </p>
  </div>
</template>

<style scoped>
.sentence {
  font: 400 1.03125rem/1.9 var(--read);
}
.bars {
  display: flex;
  gap: 14px;
  margin: 5px 0 4px;
  max-width: 700px;
}
.bars span {
  min-width: 0;
  display: grid;
  gap: 3px;
  align-content: start;
}
.bars em {
  font: 500 0.78125rem/1.2 var(--ui);
  font-style: normal;
  font-weight: 600;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.bars i {
  display: flex;
  gap: 2px;
  font-style: normal;
}
.bars u {
  flex: 1;
  background: var(--sunken);
  text-align: center;
  font: 600 0.71875rem/20px var(--ui);
  text-decoration: none;
  border-radius: 3px;
}
.sum {
  border-left: 1px solid var(--line);
  padding-left: 12px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  flex: none;
  white-space: nowrap;
}
.sum b {
  font: 600 1rem/1.1 var(--read);
  color: var(--ink);
}
.sum.off {
  color: var(--ember);
}
</style>
