<script setup lang="ts">
import { consensusOf, type Consensus } from '#core/marking/peers/consensus'
import { peerReviewsOf } from '#core/marking/peers/fromReviews'
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation, PeersView, PeerWork, SettingAside } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import { usePeersStore } from '~/stores/peers'
import GivenByAuthor from './GivenByAuthor.vue'
import RemarkList from './RemarkList.vue'
import ReviewStrips from './ReviewStrips.vue'
import ScoreDots from './ScoreDots.vue'
import SelfReview from './SelfReview.vue'
import WorkHead from './WorkHead.vue'

/** One work on the review desk: its readers, what they gave, what is flagged, and what its author gave others. */
const props = defineProps<{
  view: PeersView
  work: PeerWork
  /** Reviews of the work that are in, in the order of readers; and those that are not. */
  reviews: readonly PeerAllocation[]
  waiting: readonly PeerAllocation[]
  criteria: RubricView['criteria']
  found: ReturnType<Consensus['authors']['get']>
  /** The marker's own points by criterion, hundredths. */
  own: Readonly<Record<string, number>>
  names: PeerNames
}>()
const emit = defineEmits<{
  keep: [review: PeerAllocation]
  aside: [review: PeerAllocation, choice: SettingAside]
  open: [review: PeerAllocation]
}>()
const store = usePeersStore()
const { hidden, nameOf, givenOf, initialOf } = props.names
const author = computed(() => props.work.authorId)
const selves = computed(() =>
  props.view.allocations.filter(a => a.entryId === props.work.id && a.source === 'self' && a.state === 'in'),
)
const given = computed(() => store.real.filter(a => a.reviewerId === author.value))
const severity = computed(() => store.consensus?.severity ?? new Map<string, number>())
const distances = computed(() => store.consensus?.distances ?? new Map<never, never>())
const strips = ref<InstanceType<typeof ReviewStrips> | null>(null)
/** What the consensus would be without one review. */
function without(id: string): string | null {
  const { reviews, criteria, anchors } = peerReviewsOf(props.view)
  const others = reviews.filter(r => r.id !== id)
  const corrected = consensusOf(others, criteria, anchors).authors.get(props.work.id)?.corrected
  return corrected == null ? null : tenth(corrected)
}
</script>

<template>
  <section class="work" :aria-label="`Reviews of the work of ${nameOf(author)}`" :data-author="author">
    <WorkHead
      :work="work"
      :reviews="[...reviews, ...waiting]"
      :criteria="criteria"
      :flagged="store.flagged"
      :severity="severity"
      :names="names"
      @aside="strips?.ask($event)"
    />
    <div v-if="reviews.length > 0 && criteria.length > 0" class="scores">
      <ScoreDots
        :criteria="criteria"
        :reviews="reviews"
        :flagged="store.flagged"
        :found="found"
        :own="own"
        :initial-of="initialOf"
        :name-of="nameOf"
      />
    </div>
    <p v-else-if="reviews.length === 0" class="invite pad">No review of this work is in yet.</p>
    <ReviewStrips
      ref="strips"
      :reviews="reviews"
      :names="names"
      :without="without"
      @keep="emit('keep', $event)"
      @aside="(review, choice) => emit('aside', review, choice)"
      @open="emit('open', $event)"
    />
    <RemarkList
      :criteria="criteria"
      :questions="view.settings.questions"
      :reviews="reviews"
      :flagged="store.flagged"
      :name-of="nameOf"
      :initial-of="initialOf"
      :hide="hidden.hide"
    />
    <SelfReview :reviews="selves" :criteria="criteria" :found="found" :name-of="nameOf" :hide="hidden.hide" />
    <GivenByAuthor
      :author-id="author"
      :given="givenOf(author)"
      :allocations="given"
      :criteria="criteria"
      :distances="distances"
      :name-of="nameOf"
      :flagged="store.flagged"
    />
  </section>
</template>

<style scoped>
.work {
  overflow-y: auto;
  background: var(--sheet);
  border-left: 1px solid var(--line);
  border-right: 1px solid var(--line);
  min-width: 0;
}
.scores {
  padding: 8px 24px 10px;
  border-bottom: 1px solid var(--line-soft);
}
.pad {
  padding: 24px;
}
@media (max-width: 1100px) {
  .work {
    overflow: visible;
    border: 0;
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
  }
}
</style>
