<script setup lang="ts">
import type { LetterView } from '#shared/marking/letter'
import { inWords, plural } from '#core/language'
import { reviewingSentence } from '#core/marking/peers/reviewingWords'
import { lateWords } from '~/composables/marking/lateWords'
import { points } from '~/composables/marking/points'
import StepBars from './StepBars.vue'

/** A letter with all that goes with it, as its student reads it: words beside steps, points and cited passages. */
const props = defineProps<{ letter: LetterView; thread: string | null }>()
const citedFor = (criterionId: string) => props.letter.citations.filter(c => c.criterionId === criterionId)
const judged = computed(() => props.letter.criteria.filter(c => c.excused === null))
const sizeWords = (bytes: number) =>
  bytes >= 1_000_000 ? `${(bytes / 1_000_000).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1000))} kB`
const lateSentence = computed(() => {
  const { late } = props.letter
  if (!late) return ''
  if (late.waived) return `${lateWords(late.minutes)} late; nothing was taken for it.`
  if (late.before === props.letter.points) return `${lateWords(late.minutes)} late, within the time of grace.`
  return `${points(late.before)} without being ${lateWords(late.minutes)} late.`
})
function stepWords(c: LetterView['criteria'][number]) {
  if (c.excused !== null) return 'left out'
  if (c.levelTitle === '') return 'no step yet'
  return c.levelTitle.toLowerCase()
}
</script>

<template>
  <div class="letter-sheet">
    <article class="sheet">
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was returned -->
      <div v-if="letter.html" class="prose" dir="auto" v-html="letter.html" />
      <p v-else class="prose muted">This mark came back without a letter.</p>
      <ul
        v-if="letter.files.length > 0"
        class="with"
        :aria-label="`${inWords(letter.files.length)} ${plural(letter.files.length, 'thing')} with the letter`"
      >
        <li v-for="f in letter.files" :key="f.id">
          <template v-if="f.spoken"
            ><span class="hint">spoken note</span><audio controls preload="metadata" :src="f.url" /></template
          ><a v-else :href="f.url" :download="f.name">{{ f.name }}</a
          ><span v-if="!f.spoken" class="hint num">{{ sizeWords(f.size) }}</span>
        </li>
      </ul>
      <slot />
    </article>
    <aside aria-label="Steps and points">
      <p class="total num">
        <template v-if="letter.shown === `${points(letter.points)} of ${points(letter.max)}`"
          ><b>{{ points(letter.points) }}</b> of {{ points(letter.max) }}</template
        ><b v-else>{{ letter.shown }}</b>
      </p>
      <p v-if="letter.passed !== null" class="small muted">
        {{ letter.passed ? 'passed' : 'below the pass mark' }}
      </p>
      <p v-if="letter.late" class="small muted">
        {{ lateSentence }}
      </p>
      <p v-if="letter.factor !== null && letter.factor !== 100" class="small muted">
        Your share of the group’s points: {{ letter.factor / 100 }}, from what your teammates said.
      </p>
      <p v-if="letter.reviewing" class="small muted">
        {{ reviewingSentence(letter.reviewing) }}
      </p>
      <p v-if="letter.override" class="small muted">
        Set by {{ letter.by.split(' ')[0] }} in place of {{ points(letter.override.before) }}:
        {{ letter.override.reason }}
      </p>
      <template v-if="letter.rubric">
        <p class="muted small">{{ letter.rubric }}</p>
        <StepBars class="reached" :criteria="judged" />
        <section v-for="c in letter.criteria" :key="c.id" class="why">
          <h2>
            {{ c.title }}:
            {{ stepWords(c) }}
          </h2>
          <p>{{ c.excused === null ? c.descriptor : c.excused }}</p>
          <p v-for="cite in citedFor(c.id)" :key="cite.number" class="cite">
            <sup>{{ cite.number }}</sup><NuxtLink v-if="thread" :to="`${thread}#c-${cite.contributionId}`"
              >“{{ cite.exact }}”</NuxtLink
            ><template v-else>“{{ cite.exact }}”</template>
          </p>
        </section>
      </template>
      <slot name="acts" />
    </aside>
  </div>
</template>

<style scoped>
.letter-sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: 16px 44px;
  align-items: start;
}
.sheet {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  padding: 30px 40px 36px;
}
.sheet .prose {
  font-size: 1.0625rem;
  line-height: 1.62;
  max-width: 60ch;
}
.with {
  list-style: none;
  display: grid;
  gap: 8px;
  margin-top: 18px;
  padding-top: 14px;
  border-top: 1px solid var(--line-soft);
  font-size: 0.875rem;
}
.with li {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.with audio {
  height: 34px;
  max-width: 100%;
}
.total {
  font: 400 1.0625rem/1 var(--read);
  color: var(--ink-2);
  margin-bottom: 6px;
}
.total b {
  font: 600 2.125rem/1 var(--read);
  color: var(--ink);
}
.small + .small {
  margin-top: 3px;
}
.reached {
  margin: 14px 0 18px;
}
.why {
  border-top: 1px solid var(--line-soft);
  padding: 10px 0;
}
h2 {
  font-size: 0.8125rem;
  letter-spacing: 0;
}
.why p {
  font-size: 0.8125rem;
  color: var(--ink-2);
  margin-top: 3px;
}
.why .cite {
  font: italic 400 0.84375rem/1.45 var(--read);
}
.cite a {
  color: var(--ink-2);
}
sup {
  font: 650 0.65625rem var(--ui);
  color: var(--ember);
  margin-right: 4px;
}
@media (max-width: 860px) {
  .letter-sheet {
    grid-template-columns: 1fr;
  }
  .sheet {
    padding: 22px 20px;
  }
}
@media print {
  .letter-sheet {
    grid-template-columns: 1fr;
  }
  .sheet {
    border: 0;
    padding: 0;
  }
}
</style>
