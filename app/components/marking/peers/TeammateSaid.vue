<script setup lang="ts">
import type { PeerAllocation, PeersView, SettingAside } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import type { TeammateRow } from '~/composables/marking/useTeammates'
import { usePeersStore } from '~/stores/peers'
import RemarkList from './RemarkList.vue'
import ReviewStrips from './ReviewStrips.vue'

/** What teammates said of one member, under the criterion it is about; any of it can be set aside. */
const props = defineProps<{ view: PeersView; member: TeammateRow; names: PeerNames }>()
const emit = defineEmits<{
  keep: [review: PeerAllocation]
  aside: [review: PeerAllocation, choice: SettingAside]
  open: [review: PeerAllocation]
}>()
const store = usePeersStore()
const { hidden, nameOf, initialOf } = props.names
const criteria = computed(() => props.view.rubric?.criteria ?? [])
const given = computed(() => props.member.received.filter(a => a.reviewerId !== props.member.id))
const writerOf = (id: string) => (id === props.member.id ? `${nameOf(id)}, of themselves` : nameOf(id))
/** What the mean would be without one review. */
function without(id: string): string | null {
  const totals = given.value
    .filter(
      a => a.id !== id && a.setAside === null && criteria.value.every(c => a.points[c.id] !== undefined),
    )
    .map(a => criteria.value.reduce((sum, c) => sum + a.points[c.id]! * c.weight, 0))
  return totals.length === 0 ? null : tenth(totals.reduce((a, b) => a + b, 0) / totals.length)
}
</script>

<template>
  <div>
    <ReviewStrips
      :reviews="given"
      :names="names"
      :without="without"
      listed
      @keep="emit('keep', $event)"
      @aside="(review, choice) => emit('aside', review, choice)"
      @open="emit('open', $event)"
    />
    <p v-if="member.received.length === 0" class="invite pad">No teammate has handed a review in yet.</p>
    <RemarkList
      v-else
      :criteria="criteria"
      :questions="view.settings.questions"
      :reviews="member.received"
      :flagged="store.flagged"
      :name-of="writerOf"
      :initial-of="initialOf"
      :hide="hidden.hide"
    />
  </div>
</template>

<style scoped>
.pad {
  padding: 16px 24px;
}
</style>
