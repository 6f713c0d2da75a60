<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { dayAfter } from '#core/planning/week'
import { dayWords, mondayOf } from '~/composables/planning/termWeeks'
import DayField from '~/components/controls/DayField.vue'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

interface TermShape {
  firstDay: string
  weeks: number
  breaks: Array<{ week: number; title: string }>
}
/** A term drawn as its weeks: begin, length, and breaks set by clicking a week. */
const term = defineModel<TermShape>({ required: true })
const zone = useSeminarZone()
defineProps<{ problems: Readonly<Record<string, string>> }>()
const weeks = computed(() => {
  let label = 0
  return Array.from({ length: Math.max(1, Math.min(40, term.value.weeks || 1)) }, (_, i) => {
    const pause = term.value.breaks.find(b => b.week === i + 1)
    return {
      week: i + 1,
      label: pause ? null : ++label,
      title: pause?.title ?? null,
      from: dayWords(dayAfter(term.value.firstDay, 7 * i)).replace(/ \d{4}$/, ''),
    }
  })
})
const set = (part: Partial<TermShape>) => {
  term.value = { ...term.value, ...part }
}
const MOST_WEEKS = 40
const shortened = ref(false) // a break was set just now
const teachingWords = computed(() => {
  const breaks = term.value.breaks.filter(b => b.week <= term.value.weeks).length
  const teaching = term.value.weeks - breaks
  return breaks === 0 ? '' : `${teaching} of them with teaching, `
})
function lengthen() {
  set({ weeks: term.value.weeks + 1 })
  shortened.value = false
}
function toggle(week: number) {
  const has = term.value.breaks.some(b => b.week === week)
  shortened.value = !has
  set({
    breaks: has
      ? term.value.breaks.filter(b => b.week !== week)
      : [...term.value.breaks, { week, title: 'Break' }].sort((a, b) => a.week - b.week),
  })
}
const rename = (week: number, title: string) =>
  set({ breaks: term.value.breaks.map(b => (b.week === week ? { week, title } : b)) })
const last = computed(() => dayWords(dayAfter(term.value.firstDay, 7 * term.value.weeks - 1)))
</script>

<template>
  <div class="term">
    <p class="sentence">
      The term begins on
      <DayField
        label="First Monday"
        :model-value="term.firstDay"
        :today="zone.today.value"
        :invalid="Boolean(problems.firstDay)"
        @update:model-value="set({ firstDay: mondayOf($event) })"
      />
      and has
      <label
        ><span class="visually-hidden">Weeks</span
        ><LineInput
          class="in short"
          type="number"
          min="1"
          max="40"
          :value="term.weeks"
          @input="set({ weeks: Number(($event.target as HTMLInputElement).value) || 1 })"
      /></label>
      weeks, {{ teachingWords }}to {{ last }}.
    </p>
    <p v-if="problems.firstDay || problems.weeks || problems.breaks" class="field-problem" role="alert">
      {{ problems.firstDay ?? problems.weeks ?? problems.breaks }}
    </p>
    <p class="hint">
      Click a week without teaching to make it a break. Any day you choose is moved to its Monday.
    </p>
    <div class="strip" role="group" aria-label="Weeks of the term">
      <PlainButton
        v-for="w in weeks"
        :key="w.week"
        :class="{ pause: w.label === null }"
        :aria-pressed="w.label === null"
        @click="toggle(w.week)"
      >
        <span class="visually-hidden"
          >Week from {{ w.from }}{{ w.label === null ? `: ${w.title}` : '' }}</span
        >
        <b aria-hidden="true">{{ w.label ?? '–' }}</b><span aria-hidden="true">{{ w.from }}</span>
      </PlainButton>
    </div>
    <p v-if="shortened && term.weeks < MOST_WEEKS" class="hint" role="status">
      This break takes one of the term’s weeks.
      <TextButton @click="lengthen">Make the term a week longer</TextButton>
    </p>
    <p v-for="b in term.breaks" :key="b.week" class="pause-name">
      <span>{{ dayWords(dayAfter(term.firstDay, 7 * (b.week - 1))).replace(/ \d{4}$/, '') }}</span><LineInput
        class="in"
        :value="b.title"
        aria-label="What this break is called"
        @input="rename(b.week, ($event.target as HTMLInputElement).value)"
      /><TextButton @click="toggle(b.week)">remove the break</TextButton>
    </p>
  </div>
</template>

<style scoped>
.term {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.sentence {
  font: 400 1.0625rem/1.9 var(--read);
}
.sentence .in {
  font: 600 1rem/1.3 var(--read);
  color: var(--harbour-deep);
}
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 0;
  background: var(--band);
  border-radius: var(--r);
  overflow: hidden;
}
.strip button {
  flex: 1 0 62px;
  max-width: 110px;
  text-align: left;
  background: none;
  border: 0;
  border-left: 1px solid rgb(255 255 255 / 0.14);
  color: var(--on-band-2);
  padding: 6px 7px 7px;
  cursor: pointer;
  font-size: 0.75rem;
  display: grid;
  line-height: 1.3;
  white-space: nowrap;
}
.strip button:hover {
  background: rgb(255 255 255 / 0.08);
}
.strip b {
  color: var(--on-band);
  font-weight: 600;
}
.strip .pause {
  background: repeating-linear-gradient(
    135deg,
    rgb(255 255 255 / 0.05) 0 6px,
    rgb(255 255 255 / 0.16) 6px 12px
  );
}
.strip button:focus-visible {
  box-shadow: inset 0 0 0 2px var(--ember);
  border-radius: 0;
}
.pause-name {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: baseline;
  font-size: 0.84375rem;
}
.pause-name .in {
  flex: 0 1 14rem;
}
.pause-name span {
  min-width: 4rem;
  color: var(--ink-2);
}
</style>
