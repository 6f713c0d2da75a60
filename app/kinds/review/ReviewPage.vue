<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'
import ActivityPage from '~/components/contributing/ActivityPage.vue'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import GivenList from './GivenList.vue'
import OwnWork from './OwnWork.vue'
import ReceivedList from './ReceivedList.vue'
import WorkIn from './WorkIn.vue'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** A peer review from a student's side: one's own work, what one reads, what readers said. Staff see who has handed in. */
const api = useApi()
const store = useThreadStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime, now } = useTimes()
const activity = computed(() => store.activity!)
const base = computed(() => `/seminars/${activity.value.seminarId}/activities/${activity.value.id}`)
const {
  data: own,
  error,
  refresh,
} = await useAsyncData(`own-reviews-${activity.value.id}`, () =>
  api.call(reviewEndpoints.readOwnReviews, { params: { activityId: activity.value.id } }),
)
const teammates = computed(() => activity.value.review?.subject === 'teammates')
const summary = computed(() =>
  (own.value?.criteria ?? []).flatMap(c => {
    const given = own.value!.received.flatMap(r => r.points[c.id] ?? [])
    return given.length > 0 ? [{ id: c.id, mean: given.reduce((a, b) => a + b, 0) / given.length }] : []
  }),
)
async function attempt(act: () => Promise<unknown>, said?: string) {
  try {
    await act()
    await refresh()
    if (said) notices.say(said)
  } catch (problem) {
    notices.warn(problem)
  }
}
const more = (n: number) =>
  attempt(
    () =>
      api.call(reviewEndpoints.offerReviews, {
        params: { activityId: activity.value.id },
        body: { more: n },
      }),
    n > 0
      ? 'Thank you. If somebody lacks a reader, you may get one more.'
      : 'You are assigned no more than you owe.',
  )
const helpful = (id: string, value: number | null) =>
  attempt(() =>
    api.call(reviewEndpoints.rateReview, { params: { receivedId: id }, body: { helpful: value } }),
  )
const answered = () => attempt(async () => {}, 'Your answer is there, without your name.')
const firstOwed = computed(() => own.value?.given.find(g => g.state !== 'in') ?? null)
const keys = computed<Key[]>(() =>
  firstOwed.value
    ? [
        {
          keys: 'r',
          does: 'go on reviewing',
          run: () => void navigateTo(`${base.value}/reviews/${firstOwed.value!.id}`),
        },
      ]
    : [],
)
useKeys(() => keys.value)
const ownAt = computed(
  () => store.whole.find(c => c.author.isMe && c.type === 'entry' && !c.withdrawn)?.shownAt ?? null,
)
onMounted(() => void Promise.resolve(store.recordVisit()).catch(() => {}))
</script>

<template>
  <ActivityPage :activity="activity" :own-at="ownAt">
    <div class="spread">
      <main>
        <p v-if="error" class="field-problem" role="alert">
          {{ error.message }} <TextButton @click="refresh()">Try again</TextButton>
        </p>
        <template v-else-if="seminar.isStudent && own">
          <OwnWork v-if="!teammates" :activity="activity" :own="own" @changed="refresh()" />
          <GivenList :own="own" :base="base" @more="more" />
          <ReceivedList
            :own="own"
            :activity-id="activity.id"
            :summary="summary"
            @helpful="helpful"
            @answered="answered"
          />
        </template>
        <WorkIn v-else-if="seminar.isStaff" :activity="activity" :base="base" />
        <p v-else class="hint">
          What is handed in and reviewed here is between those who write and those who read. As an observer
          you see the brief.
        </p>
      </main>
      <aside v-if="seminar.isStudent">
        <ExpectationMargin :activity="activity" :checks="store.thread?.checks ?? []" />
        <section>
          <h2>Without names</h2>
          <p v-if="teammates" class="hint">
            Those you review are told what was said, not by whom, nor when. Your instructor sees who said
            what.
          </p>
          <p v-else class="hint">
            Readers know your work by another name, and you know them by another. What your file’s program
            wrote into it about you is removed. Your instructor sees who is who.
          </p>
        </section>
        <section v-if="own?.reviewEndsAt && firstOwed">
          <h2>Next</h2>
          <p class="hint">
            {{ now > new Date(own.reviewEndsAt) ? 'What you owe was due' : 'You owe something until' }}
            {{ dayTime(own.reviewEndsAt)
            }}{{ now > new Date(own.reviewEndsAt) ? '; handed in now, it counts as late' : '' }}.
            <NuxtLink :to="`${base}/reviews/${firstOwed.id}`">Go on</NuxtLink> <KeyHint of="r" />
          </p>
        </section>
      </aside>
    </div>
  </ActivityPage>
</template>

<style scoped>
.spread {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 286px;
}
.spread:not(:has(aside)) {
  grid-template-columns: minmax(0, 1fr);
}
main {
  overflow-y: auto;
  background: var(--sheet);
  padding: 18px 44px 60px 40px;
  border-right: 1px solid var(--line);
}
main > :deep(section) {
  max-width: 50em;
  padding-bottom: 26px;
}
main :deep(h2) {
  font: 600 1.125rem/1.3 var(--read);
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
  margin-bottom: 10px;
  display: flex;
  gap: 10px;
  align-items: baseline;
}
main :deep(h2 i) {
  font: 650 0.8125rem/20px var(--ui);
  width: 20px;
  height: 20px;
  border-radius: 50%;
  background: var(--k-review);
  color: var(--sheet);
  text-align: center;
  flex: none;
}
main :deep(h2 span) {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
  margin-left: auto;
}
aside {
  padding: 16px 20px 24px;
  overflow-y: auto;
}
aside section + section {
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 12px;
}
aside h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  margin-bottom: 6px;
  letter-spacing: 0;
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }
  main {
    border-right: 0;
    overflow: visible;
    padding: 14px;
  }
  aside {
    overflow: visible;
    border-top: 1px solid var(--line);
  }
}
</style>
