<script setup lang="ts">
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'

/** How everyone scored one sample, the furthest from the instructor first. */
const props = defineProps<{
  criteria: RubricView['criteria']
  /** The instructor's own scores, by criterion. */
  own: Readonly<Record<string, number>>
  reviews: readonly PeerAllocation[]
  nameOf: (id: string) => string
}>()
const rows = computed(() =>
  props.reviews
    .map(review => {
      const by = props.criteria.reduce(
        (sum, c) => sum + c.weight * ((review.points[c.id] ?? 0) - (props.own[c.id] ?? 0)),
        0,
      )
      const distance = props.criteria.reduce(
        (sum, c) => sum + c.weight * Math.abs((review.points[c.id] ?? 0) - (props.own[c.id] ?? 0)),
        0,
      )
      return {
        id: review.id,
        name: props.nameOf(review.reviewerId),
        scores: props.criteria.map(c => points(review.points[c.id] ?? 0)),
        distance,
        off: Math.abs(by) < 5 ? 'even with you' : `${tenth(Math.abs(by))} ${by > 0 ? 'above' : 'below'} you`,
      }
    })
    .sort((a, b) => b.distance - a.distance),
)
</script>

<template>
  <table class="num">
    <thead>
      <tr>
        <th>Reader</th>
        <th v-for="c in criteria" :key="c.id">{{ c.title }}</th>
        <th>in all</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in rows" :key="r.id">
        <th scope="row">{{ r.name }}</th>
        <td v-for="(s, i) in r.scores" :key="i">{{ s }}</td>
        <td>{{ r.off }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.8125rem;
  margin: 4px 0 8px;
}
th,
td {
  text-align: right;
  padding: 3px 8px;
  border-bottom: 1px solid var(--line-soft);
}
th:first-child {
  text-align: left;
}
thead th {
  font-weight: 400;
  font-size: 0.75rem;
  color: var(--ink-3);
}
tbody th {
  font-weight: 500;
}
</style>
