<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'
import type { PeerAllocation, SettingAside } from '#shared/marking/peers'
import { sameWordsSentence } from '~/composables/marking/peerWords'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import { usePeersStore } from '~/stores/peers'
import FlagStrip from './FlagStrip.vue'

/** Reviews somebody should look at, or has set aside, each with what becomes of it; any other can be asked for. */
const props = defineProps<{
  reviews: readonly PeerAllocation[]
  names: PeerNames
  /** What the figure would be without one review. */
  without: (id: string) => string | null
  /** Whether the others are listed here, to be set aside, too. */
  listed?: boolean
}>()
const emit = defineEmits<{
  keep: [review: PeerAllocation]
  aside: [review: PeerAllocation, choice: SettingAside]
  open: [review: PeerAllocation]
}>()
const store = usePeersStore()
const { hidden, nameOf, givenOf } = props.names
/** Reviews that somebody wants to set aside though nothing in them is flagged. */
const asked = reactive(new Set<string>())
const toLookAt = computed(() =>
  props.reviews.filter(a => a.setAside !== null || store.flagged.has(a.id) || asked.has(a.id)),
)
const others = computed(() => (props.listed ? props.reviews.filter(a => !toLookAt.value.includes(a)) : []))
function setAside(review: PeerAllocation, choice: SettingAside) {
  asked.delete(review.id)
  emit('aside', review, choice)
}
const flagsOf = (id: string) => store.flags.filter(f => f.reviewId === id)
const sameWordsAs = (id: string) => sameWordsSentence(store.flags, store.real, id, nameOf)
defineExpose({ ask: (id: string) => asked.add(id) })
</script>

<template>
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
</template>

<style scoped>
.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 8px 24px 0;
  font-size: 0.8125rem;
}
</style>
