<script setup lang="ts">
import type { HiddenNames } from '~/composables/marking/useHiddenNames'
import { tenth } from '~/composables/marking/peerWords'
import { usePeersStore } from '~/stores/peers'
import RemarkList from './RemarkList.vue'
import ScoreDots from './ScoreDots.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** What readers gave a student's work, as evidence beside the record for a marker who marks it themselves. */
const props = defineProps<{ activityId: string; studentId: string; base: string; names: HiddenNames }>()
const store = usePeersStore()
const problem = ref<string | null>(null)
async function fetchIt() {
  problem.value = null
  try {
    if (store.activityId !== props.activityId || !store.view) await store.load(props.activityId)
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(fetchIt)
const here = computed(() => (store.activityId === props.activityId ? store.view : null))
const work = computed(() =>
  here.value ? (store.works.find(w => w.authorIds.includes(props.studentId)) ?? null) : null,
)
const reviews = computed(() => (work.value ? store.of(work.value.id).filter(a => a.state === 'in') : []))
const found = computed(() => (work.value ? store.consensus?.authors.get(work.value.id) : undefined))
const nameOf = (id: string) => {
  const p = store.people.get(id)
  return p ? props.names.nameOf(p) : ''
}
const initialOf = (id: string) => store.people.get(id)?.familyName[0] ?? '?'
</script>

<template>
  <section class="evidence" aria-label="What readers gave">
    <h3>
      What readers gave
      <NuxtLink :to="`${base}/peers?student=${studentId}`" class="small">on the review desk</NuxtLink>
    </h3>
    <p v-if="problem" class="field-problem" role="alert">
      {{ problem }} <TextButton @click="fetchIt">Try again</TextButton>
    </p>
    <p v-else-if="!here" class="hint">Fetching the reviews …</p>
    <p v-else-if="!work || reviews.length === 0" class="hint">No review of this work is in.</p>
    <template v-else>
      <p v-if="found?.corrected != null" class="small">
        The mean is <b class="num">{{ tenth(found.mean!) }}</b>; corrected for readers’ severity,
        <b class="num">{{ tenth(found.corrected) }}</b>.
      </p>
      <p v-if="store.hasMoved(work, studentId)" class="small" role="status">
        The consensus has changed since it was taken as the mark.
      </p>
      <ScoreDots
        :criteria="here.rubric?.criteria ?? []"
        :reviews="reviews"
        :flagged="store.flagged"
        :found="found"
        :own="store.ownOf(work)"
        :initial-of="initialOf"
        :name-of="nameOf"
      />
      <RemarkList
        class="flat"
        :criteria="here.rubric?.criteria ?? []"
        :questions="here.settings.questions"
        :reviews="reviews"
        :flagged="store.flagged"
        :name-of="nameOf"
        :initial-of="initialOf"
        :hide="names.hide"
      />
    </template>
  </section>
</template>

<style scoped>
.evidence {
  border-top: 1px solid var(--line);
  margin-top: 22px;
  padding-top: 14px;
  display: grid;
  gap: 8px;
}
h3 {
  font: 600 0.9375rem/1.3 var(--ui);
  display: flex;
  justify-content: space-between;
}
.flat {
  padding-left: 0;
  padding-right: 0;
}
</style>
