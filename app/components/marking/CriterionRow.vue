<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { RubricView } from '#shared/contributing/activity'
import type { DeskStudent, RecordView } from '#shared/marking/desk'
import type { HiddenNames } from '~/composables/marking/useHiddenNames'
import { points } from '~/composables/marking/points'
import FillMark from './FillMark.vue'
import { vRoving } from '~/components/controls/vRoving'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** One student in the view of one criterion: what they wrote, and their step in it. */
const props = defineProps<{
  student: DeskStudent
  record: RecordView | null
  failed: boolean
  criterion: RubricView['criteria'][number]
  versionId: string
  on: boolean
  names: HiddenNames
  to: string
}>()
const emit = defineEmits<{ focus: []; step: [levelId: string | null, given?: number] }>()
const step = computed(() => props.record?.mark.steps.find(s => s.criterionId === props.criterion.id) ?? null)
const older = computed(() => props.record?.rubric && props.record.rubric.versionId !== props.versionId)
const blind = computed(() => props.record?.second?.isMine && props.record.second.state === 'asked')
const level = computed(() => props.criterion.levels.find(l => l.id === step.value?.levelId) ?? null)
const ranged = computed(() =>
  level.value?.pointsFrom != null && level.value.pointsFrom < level.value.points ? level.value : null,
)
const wrong = ref(false)
function type(event: Event) {
  const n = Math.round(Number((event.target as HTMLInputElement).value.replace(',', '.')) * 100)
  wrong.value =
    !ranged.value || !Number.isFinite(n) || n < ranged.value.pointsFrom! || n > ranged.value.points
  if (!wrong.value) emit('step', ranged.value!.id, n)
}
const cited = computed(
  () => props.record?.mark.citations.filter(c => c.criterionId === props.criterion.id) ?? [],
)
const FOLDED_WORDS = 110 // nine lines hold some 80: what is folded hides something worth a click
const isLong = (item: { readonly words: number }) => item.words > FOLDED_WORDS
const unfolded = reactive(new Set<string>())
</script>

<template>
  <section class="one" :class="{ on }" :aria-label="student.name" @click="emit('focus')">
    <div class="side">
      <p class="who">
        <FillMark :standing="student.standing" /> <b>{{ student.name }}</b>
      </p>
      <template v-if="record">
        <p v-if="older" class="hint">
          marked under version {{ record.rubric!.version }}; move it on the desk first
        </p>
        <p v-else-if="blind" class="hint">yours to mark a second time; do that on the desk</p>
        <div
          v-else
          v-roving
          class="rungs"
          role="radiogroup"
          :aria-label="`Step of ${student.name}`"
          :style="{ '--n': criterion.levels.length }"
        >
          <PlainButton
            v-for="l in criterion.levels"
            :key="l.id"
            role="radio"
            :aria-checked="step?.levelId === l.id"
            :aria-label="`${l.title}, ${points(l.points)} points`"
            :class="{
              at: step?.levelId === l.id,
              below: step && l.points < step.points && step.levelId !== l.id,
            }"
            @click="emit('step', step?.levelId === l.id ? null : l.id)"
            @focus="emit('focus')"
          >
            {{ points(l.points) }}
          </PlainButton>
        </div>
        <label v-if="ranged && !older" class="typed"
          >points
          <LineInput
            class="in"
            inputmode="decimal"
            :value="points(step!.points)"
            :aria-invalid="wrong"
            @change="type"
        /></label>
        <p v-for="(c, i) in cited" :key="i" class="cite">“{{ names.hide(c.exact) }}”</p>
        <NuxtLink class="link small" :to="to">on the desk</NuxtLink>
      </template>
    </div>
    <div class="texts" role="group" tabindex="0" :aria-label="`What ${student.name} wrote`">
      <p v-if="failed" class="field-problem">This record could not be fetched. Open it on the desk.</p>
      <p v-else-if="!record" class="hint">fetching it …</p>
      <p v-else-if="record.items.length === 0" class="hint">nothing here yet</p>
      <article v-for="item in record?.items ?? []" :key="item.id" :class="{ gone: item.withdrawn }">
        <p class="meta">
          {{ item.answers ? `reply to ${names.hide(item.answers.name)}` : 'opening' }} ·
          {{ item.words }} words
        </p>
        <p class="words" :class="{ folded: isLong(item) && !unfolded.has(item.id) }">
          {{ names.hide(item.text) }}
        </p>
        <TextButton
          v-if="isLong(item)"
          class="small"
          :aria-expanded="unfolded.has(item.id)"
          @click.stop="unfolded.delete(item.id) || unfolded.add(item.id)"
        >
          {{ unfolded.has(item.id) ? 'Show less' : `Show all ${item.words} words` }}
        </TextButton>
      </article>
    </div>
  </section>
</template>

<style scoped>
.one {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 22px;
  padding: 13px 20px 14px 16px;
  border-bottom: 1px solid var(--line-soft);
  border-left: 4px solid transparent;
}
.on {
  border-left-color: var(--ember);
  background: color-mix(in srgb, var(--ember-soft) 45%, var(--sheet));
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}
.who {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.875rem;
}
.rungs {
  display: grid;
  grid-template-columns: repeat(var(--n), 1fr);
  gap: 3px;
}
.rungs button {
  font: 600 0.75rem/1 var(--ui);
  padding: 8px 0 7px;
  background: var(--sunken);
  color: var(--ink-2);
  border: 0;
  border-radius: 3px;
  cursor: pointer;
}
.rungs button:hover {
  background: var(--harbour-soft);
}
.rungs .below {
  background: var(--step-below);
  color: var(--harbour-deep);
}
.rungs .at,
.rungs .at:hover {
  background: var(--harbour);
  color: var(--on-harbour);
}
.typed {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.75rem;
}
.typed .in {
  width: 5em;
  padding: 3px 7px;
}
.cite {
  font: italic 400 0.8125rem/1.4 var(--read);
  color: var(--ink-2);
  border-left: 2px solid var(--ember);
  padding-left: 8px;
}
.texts {
  display: flex;
  gap: 22px;
  overflow-x: auto;
}
article {
  flex: 0 0 min(340px, 100%);
}
.folded {
  display: -webkit-box;
  -webkit-line-clamp: 9;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
article > .words {
  font: 400 0.90625rem/1.5 var(--read);
  white-space: pre-line;
}
.meta {
  font-size: 0.75rem;
  color: var(--ink-3);
  margin-bottom: 3px;
}
.gone {
  opacity: 0.6;
}
@media (max-width: 800px) {
  .one {
    grid-template-columns: 1fr;
  }
  .texts {
    flex-direction: column;
  }
  article {
    flex: none;
  }
}
</style>
