<script setup lang="ts">
import type { ReviewFlag } from '#core/marking/peers/flagReviews'
import type { PeerAllocation } from '#shared/marking/peers'
import { flagWords } from '~/composables/marking/peerWords'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Reviews that should be looked at, each with why, and the way to it. */
const props = defineProps<{
  flags: readonly ReviewFlag[]
  reviews: readonly PeerAllocation[]
  workId: string | null
  names: PeerNames
}>()
const emit = defineEmits<{ choose: [workId: string | null] }>()
const items = computed(() =>
  props.flags.flatMap(flag => {
    const review = props.reviews.find(a => a.id === flag.reviewId)
    if (!review) return []
    const { lastOf, hidden } = props.names
    return [
      {
        id: flag.reviewId,
        workId: review.entryId,
        who: `${lastOf(review.reviewerId)} on ${lastOf(review.subjectId)}`,
        why: hidden.hide(flagWords(flag)),
      },
    ]
  }),
)
</script>

<template>
  <section class="flags">
    <h2>Flagged</h2>
    <PlainButton
      v-for="f in items"
      :key="f.id"
      :class="{ on: f.workId === workId }"
      @click="emit('choose', f.workId)"
    >
      <b>{{ f.who }}</b><span>{{ f.why }}</span>
    </PlainButton>
  </section>
</template>

<style scoped>
.flags {
  border-top: 1px solid var(--line);
  padding-top: 9px;
}
h2 {
  font-size: 0.8125rem;
  color: var(--ink-2);
  letter-spacing: 0;
  margin-bottom: 4px;
}
button {
  display: grid;
  grid-template-columns: 144px 1fr;
  gap: 8px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 3px 4px;
  min-height: 24px;
  margin-left: -4px;
  border-radius: 4px;
  font-size: 0.8125rem;
  line-height: 1.35;
  cursor: pointer;
  color: var(--ink);
}
button:hover {
  background: var(--sunken);
}
span {
  color: var(--ink-2);
}
.on b {
  color: var(--brick);
}
b {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
