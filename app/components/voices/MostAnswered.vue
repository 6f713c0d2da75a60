<script setup lang="ts">
import { plural } from '#core/language'
import type { VoicesView } from '#shared/voices/voices'
import { useTimes } from '~/composables/planning/useTimes'

/** What was answered most, and what waits longest for an answer, by their first words. */
const props = defineProps<{ view: VoicesView; seminarId: string }>()
const MOST = 3
const { day } = useTimes()
const nameOf = (id: string) => props.view.people.find(p => p.id === id)?.name ?? ''
const linkTo = (e: { readonly activityId: string; readonly id: string }) =>
  `/seminars/${props.seminarId}/activities/${e.activityId}#c-${e.id}`
const answered = computed(() => props.view.mostAnswered.slice(0, MOST))
function answersWords({ answers, people }: VoicesView['mostAnswered'][number]) {
  const times = answers === 1 ? 'once' : `${answers} times`
  return `answered ${times}, by ${people} ${plural(people, 'person', 'people')}`
}
const waiting = computed(() => props.view.unanswered.slice(0, 1))
</script>

<template>
  <section aria-label="Most answered">
    <div class="pt">
      <h2>Most answered</h2>
      <span>first words</span>
    </div>
    <ol class="echoes">
      <li v-for="e in answered" :key="e.id">
        <NuxtLink :to="linkTo(e)"
          ><b>{{ nameOf(e.authorId) }}</b> · {{ answersWords(e) }}<q>{{ e.words }}</q></NuxtLink
        >
      </li>
    </ol>
    <p v-if="answered.length === 0" class="none">Nobody has answered anybody yet.</p>
    <template v-if="waiting.length > 0"
      ><div class="pt lower"><h2>Waiting longest for an answer</h2></div>
      <ol class="echoes">
        <li v-for="e in waiting" :key="e.id">
          <NuxtLink :to="linkTo(e)"
            ><b>{{ nameOf(e.authorId) }}</b> · since {{ day(e.at) }}<q>{{ e.words }}</q></NuxtLink
          >
        </li>
      </ol></template
    >
  </section>
</template>

<style scoped>
.pt {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.lower {
  margin-top: 6px;
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
h2 {
  font: 600 0.84375rem/1.4 var(--ui);
  color: var(--ink);
}
.echoes {
  list-style: none;
  padding: 0;
  margin: 0;
}
.echoes li + li {
  border-top: 1px solid var(--line-soft);
}
.echoes a {
  display: block;
  padding: 4px 0;
  font-size: 0.78125rem;
  color: var(--ink-2);
  text-decoration: none;
}
.echoes a:hover q {
  text-decoration: underline;
}
.echoes b {
  font-weight: 600;
  color: var(--ink);
}
.echoes q {
  display: block;
  font: italic 400 0.875rem/1.35 var(--read);
  color: var(--ink-2);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  quotes: '“' '”';
}
.none {
  font-size: 0.78125rem;
  color: var(--ink-2);
}
</style>
