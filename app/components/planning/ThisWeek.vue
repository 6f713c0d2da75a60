<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { SeminarShell } from '#shared/people/seminar'
import type { TermPlan } from '#shared/planning/plan'
import { capital, inWords, plural } from '#core/language'
import { deskOf } from '~/composables/marking/deskOf'
import type { PlanLine } from '~/composables/planning/planLines'
import { useTimes } from '~/composables/planning/useTimes'
import FoldedLines from './FoldedLines.vue'

const props = defineProps<{ plan: TermPlan; shell: SeminarShell }>()
const { day } = useTimes()
const week = computed(() => props.shell.weeks[props.shell.week - 1])
const ready = computed(() =>
  props.plan.activities.filter(a => a.planning?.byRubric && (a.counts?.ready ?? 0) > 0),
)
/** Short answers of this week: read in their own list. */
const notes = computed(() =>
  props.plan.activities.filter(
    a =>
      KINDS[a.kind].oncePerStudent &&
      (a.counts?.ready ?? 0) > 0 &&
      a.closesAt >= (week.value?.startsAt ?? ''),
  ),
)
/** What opens within the week, or is open, and has no opening example. */
const starters = computed(() =>
  props.plan.activities.filter(
    a =>
      a.planning &&
      KINDS[a.kind].wantsStarter &&
      !a.planning.hasStarter &&
      a.state !== 'published' &&
      a.opensAt < (week.value?.endsAt ?? '') &&
      a.opensAt >= (week.value?.startsAt ?? ''),
  ),
)
const silent = computed(() =>
  props.plan.silent.flatMap(s => {
    const activity = props.plan.activities.find(a => a.id === s.activityId)
    // whoever has not answered an exit note yet may still be on the way out of the room
    return activity && !KINDS[activity.kind].oncePerStudent && s.names.length > 0
      ? [{ activity, names: s.names }]
      : []
  }),
)
const someNames = (names: readonly string[]) =>
  names.length <= 3
    ? names.join(', ')
    : `${names.slice(0, 3).join(', ')} and ${inWords(names.length - 3)} more`
const address = (id: string) => `/seminars/${props.shell.id}/activities/${id}`
const lines = computed<PlanLine[]>(() => [
  ...ready.value.map(a => {
    const n = a.counts!.ready
    const desk = deskOf(a.kind)
    return {
      key: `ready${a.id}`,
      words: [
        { strong: `${capital(inWords(n))} ${plural(n, 'student')}` },
        ` ${n === 1 ? 'is' : 'are'} ready to mark in `,
        { title: a.title },
      ],
      act: {
        label: `Open the ${desk.name}`,
        name: `Open the ${desk.name} of ${a.title}`,
        to: `${address(a.id)}/${desk.path}`,
      },
    }
  }),
  ...notes.value.map(a => {
    const n = a.counts!.ready
    return {
      key: `notes${a.id}`,
      words: [
        { strong: `${capital(inWords(n))} ${plural(n, 'answer')}` },
        ' to ',
        { title: a.title },
        ` ${n === 1 ? 'is' : 'are'} in`,
      ],
      act: { label: n === 1 ? 'Read it' : 'Read them', to: address(a.id) },
    }
  }),
  ...silent.value.map(({ activity, names }) => ({
    key: `silent${activity.id}`,
    words: [
      `${capital(inWords(names.length))} ${plural(names.length, 'student has', 'students have')} not spoken yet in `,
      { title: activity.title },
      `: ${someNames(names)}`,
    ],
    act: { label: 'Read the talk', to: address(activity.id) },
  })),
  ...starters.value.map(a => ({
    key: `starter${a.id}`,
    words: ['Its starter is not written yet: ', { title: a.title }],
    act: { label: 'Write the starter', to: `${address(a.id)}/plan` },
  })),
])
const note = computed(() => {
  if (!week.value) return ''
  return `${day(week.value.startsAt)} to ${day(new Date(Date.parse(week.value.endsAt) - 1))}`
})
</script>

<template>
  <FoldedLines title="This week" :note="note" :lines="lines" calm="Nothing waits for you this week." />
</template>
