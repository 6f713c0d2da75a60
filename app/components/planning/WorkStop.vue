<script setup lang="ts">
import type { WeekItem } from '#shared/planning/myWeek'
import type { z } from 'zod'
import { minutesWords, ringParts, toGoWords } from '#core/planning/expectationWords'
import { useTimes } from '~/composables/planning/useTimes'
import ExpectationRing from './ExpectationRing.vue'
import KindTag from './KindTag.vue'

const props = defineProps<{
  item: z.infer<typeof WeekItem>
  address: string | null
  first: boolean
  coming?: boolean
}>()
const { day } = useTimes()
const ONE: Partial<Record<typeof props.item.kind, string>> = {
  journal: 'entry',
  blog: 'entry',
  exitNote: 'answer',
  wiki: 'page',
  lexicon: 'term',
  review: 'work',
  reading: 'note',
}
const done = computed(
  () => props.item.checks.length > 0 && props.item.checks.every(c => c.met || c.toGoNow === 0),
)
const label = computed(() => {
  if (props.item.draft)
    return props.item.draft.to ? 'Continue your reply' : `Finish your ${ONE[props.item.kind] ?? 'post'}`
  if (props.item.standing === 'nothing') return 'Begin'
  return done.value ? 'Read on' : 'Go on'
})
</script>

<template>
  <div class="stop">
    <ExpectationRing :parts="coming ? [false] : ringParts(item.checks)" figure />
    <div>
      <KindTag :kind="item.kind" />{{ ' ' }}
      <h3>{{ item.title }}</h3>
      <p v-if="coming">opens {{ day(item.opensAt) }}, for {{ day(item.dueAt) }}</p>
      <p v-else>
        <b>{{ toGoWords(item.expectations, item.checks, item.kind) }}</b><template v-if="item.minutes > 0"
          >, {{ minutesWords(item.minutes) }}</template
        ><template v-if="item.draft"
          >; {{ item.draft.to ? `a reply to ${item.draft.to}` : `your ${ONE[item.kind] ?? 'post'}` }} is in
          draft, {{ item.draft.words }} words</template
        >
      </p>
    </div>
    <v-btn v-if="address" :class="{ main: first && !done }" :to="address">{{ label }}</v-btn>
  </div>
</template>

<style scoped>
.stop {
  display: grid;
  grid-template-columns: 34px 1fr auto;
  gap: 0 14px;
  align-items: center;
  padding: 9px 0;
}
.stop + .stop {
  border-top: 1px solid var(--line-soft);
}
h3 {
  font: 600 0.96875rem/1.3 var(--read);
  display: inline;
  margin-left: 6px;
}
p {
  font-size: 0.84375rem;
  line-height: 19px;
  color: var(--ink-2);
  margin-top: 3px;
}
p b {
  color: var(--ink);
  font-weight: 600;
}
@media (max-width: 560px) {
  .stop {
    grid-template-columns: 34px 1fr;
  }
  .v-btn {
    grid-column: 2;
    justify-self: start;
    margin-top: 8px;
  }
  h3 {
    display: block;
    margin: 5px 0 0;
  }
}
</style>
