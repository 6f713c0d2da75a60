<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { SeminarShell } from '#shared/people/seminar'
import type { TermPlan } from '#shared/planning/plan'
import { capital, inWords, plural } from '#core/language'
import { deskOf } from '~/composables/marking/deskOf'
import { useTimes } from '~/composables/planning/useTimes'

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
</script>

<template>
  <div class="low">
    <section>
      <h2>
        This week
        <span v-if="week">{{ day(week.startsAt) }} to {{ day(new Date(Date.parse(week.endsAt) - 1)) }}</span>
      </h2>
      <p v-for="a in ready" :key="a.id" class="say">
        <span
          ><b>{{ capital(inWords(a.counts!.ready)) }} {{ plural(a.counts!.ready, 'student') }}</b>
          {{ a.counts!.ready === 1 ? 'is' : 'are' }} ready to mark in <i>{{ a.title }}</i></span
        ><NuxtLink
          :to="`${address(a.id)}/${deskOf(a.kind).path}`"
          :aria-label="`Open the ${deskOf(a.kind).name} of ${a.title}`"
          >Open the {{ deskOf(a.kind).name }}</NuxtLink
        >
      </p>
      <p v-for="a in notes" :key="a.id" class="say">
        <span
          ><b>{{ capital(inWords(a.counts!.ready)) }} {{ plural(a.counts!.ready, 'answer') }}</b> to
          <i>{{ a.title }}</i> {{ a.counts!.ready === 1 ? 'is' : 'are' }} in</span
        ><NuxtLink :to="address(a.id)">Read {{ a.counts!.ready === 1 ? 'it' : 'them' }}</NuxtLink>
      </p>
      <p v-for="s in silent" :key="s.activity.id" class="say">
        <span
          >{{ capital(inWords(s.names.length)) }}
          {{ plural(s.names.length, 'student has', 'students have') }} not spoken yet in
          <i>{{ s.activity.title }}</i>: {{ someNames(s.names) }}</span
        ><NuxtLink :to="address(s.activity.id)">Read the talk</NuxtLink>
      </p>
      <p v-for="a in starters" :key="a.id" class="say">
        <span
          >Its starter is not written yet: <i>{{ a.title }}</i></span
        ><NuxtLink :to="`${address(a.id)}/plan`">Write the starter</NuxtLink>
      </p>
      <p
        v-if="ready.length === 0 && notes.length === 0 && silent.length === 0 && starters.length === 0"
        class="say"
      >
        Nothing waits for you this week.
      </p>
    </section>
    <slot />
  </div>
</template>

<style scoped>
.low {
  flex: none;
  display: grid;
  grid-template-columns: 1.05fr 1fr;
  background: var(--sheet);
  padding-bottom: 12px;
  border-top: 1px solid var(--line);
}
section {
  padding: 12px 20px 0;
}
section + section,
section + :deep(section) {
  border-left: 1px solid var(--line-soft);
}
h2 {
  font: 600 0.9375rem/1.2 var(--read);
  margin-bottom: 5px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
h2 span {
  font: 500 0.75rem/1 var(--ui);
  color: var(--ink-3);
}
.say {
  display: flex;
  gap: 14px;
  align-items: baseline;
  justify-content: space-between;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
  font: 400 0.875rem/1.4 var(--read);
}
.say:first-of-type {
  border-top: 0;
}
.say a {
  font: 600 0.8125rem/1.3 var(--ui);
  white-space: nowrap;
}
.when {
  font: 500 0.8125rem/1.3 var(--ui);
  color: var(--ink-2);
  white-space: nowrap;
}
@media (max-width: 800px) {
  .low {
    grid-template-columns: 1fr;
  }
  section + section,
  section + :deep(section) {
    border-left: 0;
  }
}
</style>
