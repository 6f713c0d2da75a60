<script setup lang="ts">
import type { SeminarShell } from '#shared/people/seminar'
import { useTimes } from '~/composables/planning/useTimes'
import { kindInSentence } from '~/kinds/words'
import { vRoving } from '../controls/vRoving'
import PlainButton from '~/components/controls/PlainButton.vue'

const props = defineProps<{
  weeks: SeminarShell['weeks']
  current: number // number of the week of now
  chosen: number | null // the week the page is narrowed to
}>()
const emit = defineEmits<{ choose: [week: number] }>()
const { date } = useTimes()
const row = ref<HTMLElement | null>(null)
onMounted(() => {
  const now = row.value?.querySelector<HTMLElement>('.now')
  if (row.value && now)
    row.value.scrollLeft = now.offsetLeft - row.value.clientWidth / 2 + now.clientWidth / 2
})
/** What the week's button says to whoever does not see it. */
const nameOf = (week: SeminarShell['weeks'][number]) => {
  const name = week.label === null ? `${week.title}, no teaching` : `Week ${week.label}`
  const kinds = week.kinds.map(k => kindInSentence(k)).join(', ')
  return `${name}, from ${date(week.startsAt)}${week.number === props.current ? ', now' : ''}${kinds && `: ${kinds}`}`
}
</script>

<template>
  <nav aria-label="Weeks of the term">
    <div
      ref="row"
      v-roving
      class="ribbon"
      role="toolbar"
      aria-label="Weeks: arrows go from one to the next"
      :style="{ '--weeks': weeks.length }"
    >
      <PlainButton
        v-for="week in weeks"
        :key="week.number"
        :aria-pressed="week.number === chosen"
        :aria-current="week.number === current ? 'true' : undefined"
        :class="{
          pause: week.label === null,
          past: week.number < current,
          now: week.number === current,
          chosen: week.number === chosen,
        }"
        @click="emit('choose', week.number)"
      >
        <span class="visually-hidden">{{ nameOf(week) }}</span>
        <span class="label" aria-hidden="true"
          ><b>{{ week.label ?? week.title }}</b
          ><span>{{ date(week.startsAt) }}</span></span
        >
        <span class="ticks"
          ><i
            v-for="kind in week.kinds"
            :key="kind"
            :style="{ '--tick': `var(--t-${kind})`, '--tick-now': `var(--k-${kind})` }"
        /></span>
      </PlainButton>
    </div>
  </nav>
</template>

<style scoped>
.ribbon {
  height: 44px;
  background: var(--band);
  display: grid;
  grid-template-columns: repeat(var(--weeks), minmax(0, 1fr));
  padding: 0 20px;
  color: var(--on-band-2);
  font-size: 0.75rem;
}
button {
  position: relative;
  display: block;
  text-align: left;
  background: none;
  border: 0;
  border-left: 1px solid rgb(255 255 255 / 0.11);
  padding: 7px 8px 0;
  line-height: 1.25;
  cursor: pointer;
  color: inherit;
  overflow: hidden;
  height: 44px;
}
button:last-child {
  border-right: 1px solid rgb(255 255 255 / 0.11);
}
button:hover {
  background: rgb(255 255 255 / 0.06);
}
button:focus-visible {
  box-shadow: inset 0 0 0 2px var(--ember);
  border-radius: 0;
}
.label {
  position: absolute;
  left: 8px;
  top: 7px;
  white-space: nowrap;
}
.label b {
  font-weight: 600;
  color: var(--on-band);
  font-size: 0.78125rem;
}
.label span {
  margin-left: 4px;
}
.pause {
  background: repeating-linear-gradient(135deg, transparent 0 6px, rgb(255 255 255 / 0.07) 6px 12px);
}
.past {
  color: var(--on-band-3);
}
.past .label b {
  color: var(--on-band-2);
}
.now {
  background: var(--paper);
  color: var(--ink-2);
}
.now:hover {
  background: var(--sheet);
}
.now .label b {
  color: var(--harbour-deep);
}
.now::after {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 0;
  height: 3px;
  background: var(--ember);
}
.chosen {
  box-shadow: inset 0 -4px 0 var(--t-wiki);
}
.ticks {
  position: absolute;
  left: 8px;
  bottom: 8px;
  display: flex;
  gap: 3px;
}
.ticks i {
  width: 13px;
  height: 4px;
  border-radius: 2px;
  background: var(--tick);
}
.now .ticks i {
  background: var(--tick-now);
}
@media (max-width: 900px) {
  .ribbon {
    grid-template-columns: repeat(var(--weeks), 78px);
    overflow-x: auto;
    padding: 0 8px;
    scrollbar-width: none;
  }
}
@media (forced-colors: active) {
  .ribbon {
    forced-color-adjust: none;
  }
}
</style>
