<script setup lang="ts">
import { inWords, plural } from '#core/language'
import type { PeerPerson, PeersView } from '#shared/marking/peers'
import type { usePeerActs } from '~/composables/marking/usePeerActs'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { usePeersStore } from '~/stores/peers'
import PutRightDialog from './PutRightDialog.vue'
import ReviewersTable from './ReviewersTable.vue'
import SampleList from './SampleList.vue'
import WriteToDialog from './WriteToDialog.vue'

/** What opens beside a review desk: reassigning, writing to who owes reviews, samples to practise on, and the table of reviewers. */
const props = defineProps<{
  open: { repair: boolean; write: boolean; samples: boolean; reviewers: boolean }
  view: PeersView
  names: PeerNames
  counts: {
    readonly owing: ReadonlyArray<{ readonly id: string; readonly name: string; readonly owes: number }>
  }
  /** Reviewers who owe something. */
  idle: readonly PeerPerson[]
  move: ReturnType<typeof usePeerActs>['move']
}>()
const store = usePeersStore()
const desk = useDeskStore()
const notices = useNotices()
const shown = toRef(props, 'open')
type Moves = Parameters<typeof props.move>[0]
async function repaired(moved: { readonly add: Moves; readonly remove: Moves }) {
  await store.refresh()
  notices.say('Reviewers are reassigned.', {
    label: 'Undo',
    run: () => props.move([...moved.remove], [...moved.add]),
  })
}
async function samplesChanged(said: string) {
  await store.refresh()
  notices.say(said)
}
const sayWritten = (people: number) =>
  notices.say(`${inWords(people)} ${plural(people, 'reviewer is', 'reviewers are')} told.`)
const suggestion = computed(
  () =>
    `Somebody is waiting for what you have to say about their work. Could you finish your reading of “${desk.activity?.title}” by tomorrow evening? If something is in the way, tell me.`,
)
</script>

<template>
  <PutRightDialog
    v-if="shown.repair"
    v-model="shown.repair"
    :activity-id="store.activityId"
    :works="store.works"
    :allocations="store.real"
    :idle="idle"
    :willing="view.people.filter(p => p.more > 0).length"
    :name-of="names.nameOf"
    @done="repaired"
  />
  <WriteToDialog
    v-if="shown.write"
    v-model="shown.write"
    :activity-id="store.activityId"
    :people="counts.owing"
    :suggestion="suggestion"
    @done="sayWritten"
  />
  <ReviewersTable
    v-if="shown.reviewers"
    v-model="shown.reviewers"
    :names="names"
    :percent="view.settings.reviewingPercent"
  />
  <SampleList
    v-if="shown.samples"
    v-model="shown.samples"
    :view="view"
    :activity-id="store.activityId"
    :name-of="names.nameOf"
    @changed="samplesChanged"
  />
</template>
