<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { GivenHead, OwnReviews } from '#shared/kinds/review/review'
import { inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'

/** What one is to review, with how far each has come. */
const props = defineProps<{ own: OwnReviews; base: string }>()
const emit = defineEmits<{ more: [n: number] }>()
const { dayTime, now } = useTimes()
const over = computed(() => props.own.reviewEndsAt !== null && now.value > new Date(props.own.reviewEndsAt))
const teammates = computed(() => props.own.handIn.subject === 'teammates')
const STATE = { owed: 'not begun', begun: 'begun', in: 'in' } as const
const KIND = { work: '', self: 'your own', practice: 'to practise', teammate: '' } as const
const stateWords = (g: GivenHead) => {
  if (g.setAside !== null) return 'does not count'
  if (g.state === 'begun')
    return g.missing > 0
      ? `begun, ${inWords(g.missing)} ${plural(g.missing, 'thing')} to go`
      : 'ready to hand in'
  return STATE[g.state]
}
const owed = computed(() => props.own.given.filter(g => g.kind !== 'practice' && g.state !== 'in').length)
/** Of three, each can tell the words of the two others apart. */
const teammatesSentence = computed(() =>
  props.own.group && props.own.group.members.length <= 3
    ? 'Your teammates read what you say of them. No name stands beside it, but in so small a group they can tell who wrote it.'
    : 'Your teammates read what you say of them, without your name.',
)
const initial = (g: GivenHead) => g.called.slice(0, 1)
</script>

<template>
  <section aria-label="What you review">
    <h2>
      <i>{{ teammates ? 1 : 2 }}</i> {{ teammates ? 'Your teammates and you' : 'You read' }}
      <span v-if="own.reviewEndsAt">{{ over ? 'was due' : 'until' }} {{ dayTime(own.reviewEndsAt) }}</span>
    </h2>
    <p v-if="teammates" class="hint">
      {{ teammatesSentence }}
      {{ own.handIn.together ? 'Nothing goes in until all of it is there; then it goes in together.' : '' }}
    </p>
    <p v-else-if="!own.dealt" class="hint">
      Once hand-in has ended, {{ inWords(own.handIn.each) }} pieces of work are assigned to you. You will not
      know whose they are, nor they who you are.
    </p>
    <p v-else-if="own.given.length === 0" class="hint">
      Nothing has been assigned to you{{ own.canHandIn ? ': whoever hands nothing in reads nobody’s' : '' }}.
    </p>
    <p v-else-if="owed > 0 && own.handIn.together" class="hint">
      They go in together, once all of them are there.
    </p>
    <ul>
      <li v-for="g in own.given" :key="g.id" :class="`is-${g.state}`">
        <NuxtLink :to="`${base}/reviews/${g.id}`">
          <i class="badge" :class="{ full: g.state === 'in' }" aria-hidden="true">{{ initial(g) }}</i>
          <span
            ><b>{{ g.called }}</b
            ><em v-if="KIND[g.kind]">{{ KIND[g.kind] }}</em></span
          >
          <span class="state num" :class="{ ready: g.state === 'begun' && g.missing === 0 }"
            >{{ stateWords(g) }}<template v-if="g.words > 0"> · {{ g.words }} words</template></span
          >
        </NuxtLink>
        <p v-if="g.setAside !== null" class="aside">
          Your instructor has set this review aside: {{ g.setAside }}
        </p>
      </li>
    </ul>
    <p v-if="own.helpfulMean" class="hint num">
      Authors found your reviews helpful: {{ own.helpfulMean.mean.toFixed(1) }} of 5, the mean of
      {{ inWords(own.helpfulMean.of) }}.
    </p>
    <p v-if="own.more.open" class="more">
      <label
        ><PlainCheckbox
          :checked="own.more.wanted > 0"
          @change="emit('more', ($event.target as HTMLInputElement).checked ? 1 : 0)"
        />
        I would read one more, if somebody lacks a reader</label
      >
    </p>
    <p v-if="own.dealt && owed === 0 && own.given.some(g => g.state === 'in')" class="hint">
      All of it is in.{{
        over || own.released ? '' : ' You can take one back to go on with it as long as reading lasts.'
      }}
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  display: grid;
}
li a {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 0 10px;
  align-items: center;
  padding: 9px 10px 9px 4px;
  border-bottom: 1px solid var(--line-soft);
  text-decoration: none;
  color: var(--ink);
}
.aside {
  padding: 4px 10px 10px 48px;
  font-size: 0.8125rem;
  line-height: 1.45;
  color: var(--ink-2);
}
li a:hover {
  background: var(--sunken);
}
li b {
  font: 600 1rem/1.3 var(--read);
}
em {
  font-style: normal;
  font-size: 0.75rem;
  color: var(--ink-3);
  margin-left: 8px;
}
.badge {
  width: 26px;
  height: 26px;
  border-radius: 3px;
  display: grid;
  place-items: center;
  font: 650 0.75rem/1 var(--ui);
  border: 1.5px solid var(--k-review);
  color: var(--k-review);
  font-style: normal;
}
.badge.full {
  background: var(--k-review);
  color: var(--sheet);
}
.state {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.state.ready {
  color: var(--moss);
  font-weight: 600;
}
.hint {
  margin-bottom: 6px;
}
.more {
  margin-top: 10px;
  font-size: 0.84375rem;
}
.more label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
</style>
