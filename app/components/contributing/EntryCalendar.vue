<script setup lang="ts">
import { dateFormat } from '#core/language/dateFormat'
import type { WholeContribution } from '#shared/contributing/thread'
import { plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import PlainButton from '~/components/controls/PlainButton.vue'

/** The days of the term on which there are entries: a dot as large as they are long. Choosing a day goes to its first. */
const props = defineProps<{ entries: readonly WholeContribution[] }>()
const emit = defineEmits<{ goTo: [id: string] }>()
const seminar = useSeminarStore()
const { day } = useTimes()
const DAY = 86_400_000
const keyOf = (at: string | number) =>
  dateFormat('en-CA', { timeZone: seminar.shell?.timeZone ?? 'UTC' }).format(new Date(at))
const weeks = computed(() => {
  const byDay = new Map<string, WholeContribution[]>()
  for (const e of props.entries) byDay.set(keyOf(e.shownAt), [...(byDay.get(keyOf(e.shownAt)) ?? []), e])
  return (seminar.shell?.weeks ?? []).map(w => ({
    label: w.label ?? '–',
    number: w.number,
    isNow: w.number === seminar.shell?.week,
    // noon of each day: no change of clocks moves it to another
    days: Array.from({ length: 7 }, (_, i) => {
      const at = Date.parse(w.startsAt) + i * DAY + DAY / 2
      return { at, entries: byDay.get(keyOf(at)) ?? [] }
    }),
  }))
})
const size = (entries: readonly WholeContribution[]) =>
  Math.min(16, 7 + Math.sqrt(entries.reduce((n, e) => n + e.words, 0)) / 3)
</script>

<template>
  <table class="calendar" aria-label="Calendar of entries">
    <thead>
      <tr>
        <th class="visually-hidden">Week</th>
        <th v-for="(d, i) in ['M', 'T', 'W', 'T', 'F', 'S', 'S']" :key="i">{{ d }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="w in weeks" :key="w.number" :class="{ now: w.isNow }">
        <th>{{ w.label }}</th>
        <td v-for="d in w.days" :key="d.at">
          <PlainButton
            v-if="d.entries.length > 0"
            :aria-label="`${day(new Date(d.at))}: ${d.entries.length} ${plural(d.entries.length, 'entry', 'entries')}`"
            :title="`${day(new Date(d.at))}: ${d.entries.length} ${plural(d.entries.length, 'entry', 'entries')}`"
            @click="emit('goTo', d.entries[0]!.id)"
          >
            <i :style="{ width: `${size(d.entries)}px`, height: `${size(d.entries)}px` }" /></PlainButton
          ><i v-else class="none" />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.calendar {
  border-collapse: collapse;
  font-size: 0.6875rem;
  color: var(--ink-3);
}
th {
  font-weight: 500;
  padding: 0 4px;
  text-align: right;
}
thead th {
  text-align: center;
}
td {
  width: 24px;
  height: 24px;
  padding: 0;
  text-align: center;
}
button {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
}
button i {
  border-radius: 50%;
  background: var(--harbour);
  display: block;
}
button:hover i {
  background: var(--ember);
}
.none {
  display: inline-block;
  width: 3px;
  height: 3px;
  border-radius: 50%;
  background: var(--line);
  vertical-align: middle;
}
.now th {
  color: var(--ember);
  font-weight: 650;
}
</style>
