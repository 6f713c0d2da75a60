<script setup lang="ts">
import type { AuthorConsensus } from '#core/marking/peers/consensus'
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'

/** What an author gave their own work, beside what readers gave it. It never counts. */
const props = defineProps<{
  reviews: readonly PeerAllocation[]
  criteria: RubricView['criteria']
  found: AuthorConsensus | undefined
  nameOf: (id: string) => string
  hide: (text: string) => string
}>()
const rows = computed(() =>
  props.reviews.map(review => ({
    id: review.id,
    name: props.nameOf(review.reviewerId),
    lines: props.criteria.flatMap(c => {
      const own = review.points[c.id]
      if (own === undefined) return []
      const mean = props.found?.criteria.get(c.id)?.mean ?? null
      return [
        {
          id: c.id,
          title: c.title,
          own: points(own),
          readers: mean === null ? '–' : tenth(mean),
          remark: props.hide(review.remarks[c.id] ?? ''),
        },
      ]
    }),
  })),
)
</script>

<template>
  <section v-for="r in rows" :key="r.id" class="self">
    <h3>{{ r.name }} on their own work<span>beside the readers’ mean; it never counts</span></h3>
    <p v-for="l in r.lines" :key="l.id">
      <b>{{ l.title }}</b> · <span class="num">{{ l.own }}</span> · readers
      <span class="num">{{ l.readers }}</span><span v-if="l.remark" class="text">{{ l.remark }}</span>
    </p>
  </section>
</template>

<style scoped>
.self {
  padding: 0 24px 18px;
  display: grid;
  gap: 4px;
  font-size: 0.84375rem;
}
h3 {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font: 600 0.875rem/1.3 var(--ui);
  border-top: 1px solid var(--line-soft);
  padding-top: 10px;
}
h3 span {
  font-weight: 400;
  font-size: 0.78125rem;
  color: var(--ink-3);
}
.text {
  display: block;
  font: 400 0.9375rem/1.5 var(--read);
}
</style>
