<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'
import type { PeerAllocation, PeersView, SettingAside } from '#shared/marking/peers'
import { sameWordsSentence, tenth } from '~/composables/marking/peerWords'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import type { TeammateRow } from '~/composables/marking/useTeammates'
import { usePeersStore } from '~/stores/peers'
import FlagStrip from './FlagStrip.vue'
import RemarkList from './RemarkList.vue'

/** What teammates said of one member, under the criterion it is about; any of it can be set aside. */
const props = defineProps<{ view: PeersView; member: TeammateRow; names: PeerNames }>()
const emit = defineEmits<{
  keep: [review: PeerAllocation]
  aside: [review: PeerAllocation, choice: SettingAside]
  open: [review: PeerAllocation]
}>()
const store = usePeersStore()
const { hidden, nameOf, givenOf, initialOf } = props.names
const criteria = computed(() => props.view.rubric?.criteria ?? [])
const given = computed(() => props.member.received.filter(a => a.reviewerId !== props.member.id))
/** Reviews that somebody wants to set aside though nothing in them is flagged. */
const asked = reactive(new Set<string>())
const toLookAt = computed(() =>
  given.value.filter(a => a.setAside !== null || store.flagged.has(a.id) || asked.has(a.id)),
)
const others = computed(() => given.value.filter(a => !toLookAt.value.includes(a)))
function setAside(review: PeerAllocation, choice: SettingAside) {
  asked.delete(review.id)
  emit('aside', review, choice)
}
const writerOf = (id: string) => (id === props.member.id ? `${nameOf(id)}, of themselves` : nameOf(id))
const flagsOf = (id: string) => store.flags.filter(f => f.reviewId === id)
const sameWordsAs = (id: string) => sameWordsSentence(store.flags, store.real, id, nameOf)
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
    <FlagStrip
      v-for="a in toLookAt"
      :key="a.id"
      :allocation="a"
      :flags="flagsOf(a.id)"
      :name="nameOf(a.reviewerId)"
      :given="givenOf(a.reviewerId)"
      :leaves="without(a.id)"
      :others="sameWordsAs(a.id)"
      :hide="hidden.hide"
      :asked="asked.has(a.id)"
      @keep="emit('keep', a)"
      @aside="setAside(a, $event)"
      @open="emit('open', a)"
      @cancel="asked.delete(a.id)"
    />
    <p v-if="others.length > 0" class="rest">
      <TextButton v-for="a in others" :key="a.id" @click="asked.add(a.id)">
        set aside the review of {{ nameOf(a.reviewerId) }} …
      </TextButton>
    </p>
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
.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 8px 24px 0;
  font-size: 0.8125rem;
}
.pad {
  padding: 16px 24px;
}
</style>
