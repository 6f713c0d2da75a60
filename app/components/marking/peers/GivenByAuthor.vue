<script setup lang="ts">
import type { Distance } from '#core/marking/peers/consensus'
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'
import TextButton from '~/components/controls/TextButton.vue'

/** What this student gave to others: how they read, beside how they are read. */
const props = defineProps<{
  authorId: string
  given: string
  allocations: readonly PeerAllocation[]
  criteria: RubricView['criteria']
  distances: ReadonlyMap<string, Distance>
  nameOf: (id: string) => string
  flagged: ReadonlySet<string>
}>()
const open = ref<string | null>(null)
watch(
  () => props.authorId,
  () => {
    open.value = null
  },
)
const off = (a: PeerAllocation) => {
  const d = props.distances.get(a.id)
  if (d)
    return Math.abs(d.by) < 5
      ? 'with the others'
      : `${tenth(Math.abs(d.by))} ${d.by > 0 ? 'above' : 'below'} the others`
  return ''
}
</script>

<template>
  <section v-if="allocations.length > 0" class="gave">
    <h3>What {{ given }} gave to others</h3>
    <div v-for="a in allocations" :key="a.id">
      <p>
        <b>{{ nameOf(a.subjectId) }}</b><template v-if="a.state === 'in'">
          ·
          <span class="num">{{
            criteria.map(c => (a.points[c.id] === undefined ? '–' : points(a.points[c.id]!))).join(' ')
          }}</span>
          · <span :class="{ hot: flagged.has(a.id) }">{{ off(a) }}</span> · {{ a.words }} words<template
            v-if="a.helpful !== null"
          >
            · found helpful {{ a.helpful }}/5</template
          >{{ ' '
          }}<TextButton
            class="small"
            :aria-expanded="open === a.id"
            @click="open = open === a.id ? null : a.id"
          >
            {{ open === a.id ? 'fold' : 'read' }}
          </TextButton></template
        ><template v-else> · {{ a.state === 'begun' ? 'begun' : 'not begun' }}</template>
      </p>
      <p v-if="open === a.id" class="text">{{ a.text }}</p>
    </div>
  </section>
</template>

<style scoped>
.gave {
  padding: 14px 24px 40px;
  border-top: 1px solid var(--line-soft);
  font-size: 0.84375rem;
  display: grid;
  gap: 5px;
}
h3 {
  font: 600 0.84375rem/1.3 var(--ui);
  letter-spacing: 0;
  margin-bottom: 3px;
}
.text {
  font: 400 0.9375rem/1.5 var(--read);
  white-space: pre-line;
  border-left: 2px solid var(--line);
  padding-left: 12px;
  margin: 4px 0 8px;
}
.hot {
  color: var(--brick);
}
</style>
