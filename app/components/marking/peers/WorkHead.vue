<script setup lang="ts">
import type { PeerAllocation, PeerWork } from '#shared/marking/peers'
import type { RubricView } from '#shared/contributing/activity'
import { runsWords, tenth } from '~/composables/marking/peerWords'
import TextButton from '~/components/controls/TextButton.vue'
import type { PeerNames } from '~/composables/marking/usePeerNames'

/** Whose work it is, and its readers: how far each has come, what they gave in all, and how they mark. */
const props = defineProps<{
  work: PeerWork
  reviews: readonly PeerAllocation[]
  criteria: RubricView['criteria']
  flagged: ReadonlySet<string>
  severity: ReadonlyMap<string, number>
  names: PeerNames
}>()
const emit = defineEmits<{ aside: [reviewId: string] }>()
function totalOf(review: PeerAllocation) {
  if (props.criteria.length === 0 || !props.criteria.every(c => review.points[c.id] !== undefined)) return '–'
  return tenth(props.criteria.reduce((sum, c) => sum + review.points[c.id]! * c.weight, 0))
}
function stateOf(review: PeerAllocation) {
  if (review.state !== 'in') return review.openedAt ? 'opened, not in' : 'not begun'
  if (props.criteria.length === 0) return 'in'
  return `${totalOf(review)} in all · ${runsWords(props.severity.get(review.reviewerId) ?? 0)}`
}
const authors = computed(() => props.work.authorIds.map(props.names.nameOf).join(', '))
const readers = computed(() =>
  props.reviews.map(review => ({
    id: review.id,
    initial: props.names.initialOf(review.reviewerId),
    name: props.names.nameOf(review.reviewerId),
    state: stateOf(review),
    isFlagged: props.flagged.has(review.id),
    isWaiting: review.state !== 'in',
    mayBeSetAside: review.state === 'in' && review.setAside === null,
  })),
)
</script>

<template>
  <div class="top">
    <p class="whose">
      <b>{{ authors }}</b><em v-if="work.title">“{{ work.title }}”</em
      ><span v-if="work.lateMinutes > 0" class="late">handed in late</span>
    </p>
    <ul class="readers">
      <li v-for="r in readers" :key="r.id">
        <i class="badge" :class="{ hot: r.isFlagged, wait: r.isWaiting }">{{ r.initial }}</i>
        <div>
          <b>{{ r.name }}</b><span>hidden from {{ names.givenOf(work.authorId) }}</span
          ><span class="num" :class="{ hot: r.isFlagged }">{{ r.state }}</span
          ><TextButton
            v-if="r.mayBeSetAside"
            class="aside"
            :aria-label="`set aside … the review of ${r.name}`"
            @click="emit('aside', r.id)"
          >
            set aside …</TextButton
          >
        </div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.top {
  padding: 14px 24px 12px;
  border-bottom: 1px solid var(--line-soft);
}
.whose {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}
.whose b {
  font-size: 0.96875rem;
}
.whose em {
  font: italic 400 0.90625rem/1.4 var(--read);
  color: var(--ink-2);
}
.late {
  font-size: 0.78125rem;
  color: var(--ember);
}
.readers {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  margin-top: 9px;
  font-size: 0.8125rem;
}
.readers li {
  display: grid;
  grid-template-columns: 20px auto;
  gap: 8px;
}
.readers div {
  display: grid;
  line-height: 1.4;
}
.readers span {
  color: var(--ink-2);
  font-size: 0.78125rem;
}
.aside {
  justify-self: start;
  font-size: 0.78125rem;
}
.badge {
  width: 19px;
  height: 19px;
  border-radius: 50%;
  background: var(--k-review);
  color: var(--sheet);
  display: grid;
  place-items: center;
  font: 650 0.6875rem/1 var(--ui);
  font-style: normal;
}
.badge.hot {
  background: var(--sheet);
  color: var(--brick);
  box-shadow: inset 0 0 0 1.6px var(--brick);
}
.badge.wait {
  background: var(--sheet);
  color: var(--k-review);
  box-shadow: inset 0 0 0 1.4px var(--k-review);
}
span.hot {
  color: var(--brick) !important;
}
</style>
