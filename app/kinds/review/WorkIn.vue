<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { ActivityView } from '#shared/contributing/activity'
import { inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'
import * as peersEndpoints from '#shared/marking/peersEndpoints'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** Staff's view of hand-in: what is in, from whom, and what came on paper; the rest is on the review desk. */
const props = defineProps<{ activity: ActivityView; base: string }>()
const api = useApi()
const notices = useNotices()
const { dayTime } = useTimes()
const {
  data: peers,
  error,
  refresh,
} = await useAsyncData(`work-in-${props.activity.id}`, () =>
  api.call(peersEndpoints.readPeers, { params: { activityId: props.activity.id } }),
)
const nameOf = (id: string) => peers.value?.people.find(p => p.id === id)?.name ?? ''
const works = computed(() => peers.value?.works.filter(w => !w.isSample) ?? [])
const reviews = computed(() => peers.value?.allocations.filter(a => a.source !== 'practice') ?? [])
const paper = computed(() => props.activity.review?.ways.includes('paper') ?? false)
async function tick(enrolmentId: string, handedIn: boolean) {
  try {
    await api.call(reviewEndpoints.handInPaper, {
      params: { activityId: props.activity.id },
      body: { key: newKey(), enrolmentId, handedIn },
    })
    await refresh()
    notices.say(
      handedIn
        ? `${nameOf(enrolmentId)}: handed in on paper.`
        : `${nameOf(enrolmentId)}: the tick is removed.`,
      { label: 'Undo', run: () => tick(enrolmentId, !handedIn) },
    )
  } catch (problem) {
    notices.warn(problem)
  }
}
</script>

<template>
  <p v-if="error" class="field-problem" role="alert">
    {{ error.message }} <TextButton @click="refresh()">Try again</TextButton>
  </p>
  <section v-else-if="peers">
    <p class="lead">
      <b v-if="activity.review?.subject === 'work'" class="num"
        >{{ works.length }} of {{ works.length + peers.notHandedIn.length }} handed in</b
      ><b class="num">{{ reviews.filter(a => a.state === 'in').length }} of {{ reviews.length }} reviews in</b
      ><v-btn class="main" :to="`${base}/peers`">Open the review desk</v-btn>
    </p>
    <div v-if="works.length > 0" class="scroll" tabindex="0" role="region" aria-label="Work handed in">
      <table class="rows">
        <thead>
          <tr>
            <th>Author</th>
            <th>Work</th>
            <th>Handed in</th>
            <th>Words</th>
            <th>Readers</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="w in works" :key="w.id">
            <td>{{ w.authorIds.map(nameOf).join(', ') }}</td>
            <td class="title">{{ w.title }}</td>
            <td>{{ dayTime(w.handedInAt) }}<span v-if="w.lateMinutes > 0" class="late"> late</span></td>
            <td class="num">{{ w.words }}</td>
            <td class="num">
              {{ reviews.filter(a => a.entryId === w.id && a.state === 'in' && a.source !== 'self').length }}
              of {{ reviews.filter(a => a.entryId === w.id && a.source !== 'self').length
              }}<TextButton
                v-if="paper && w.title === 'Handed in on paper.'"
                class="small"
                @click="tick(w.authorId, false)"
              >
                remove the tick
              </TextButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="peers.notHandedIn.length > 0">
      <p v-if="!paper" class="hint">Nothing from {{ peers.notHandedIn.map(nameOf).join(', ') }}.</p>
      <ul v-else class="paper">
        <li v-for="id in peers.notHandedIn" :key="id">
          <label><PlainCheckbox @change="tick(id, true)" /> {{ nameOf(id) }} has handed in on paper</label>
        </li>
      </ul>
    </template>
    <p v-if="activity.review?.subject === 'teammates'" class="hint">
      {{ peers.groups.length }} groups review each other.
      {{ inWords(reviews.filter(a => a.state !== 'in').length) }}
      {{ plural(reviews.filter(a => a.state !== 'in').length, 'review') }} to come.
    </p>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.lead {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: center;
  margin-bottom: 12px;
}
.title {
  font: 400 0.875rem/1.4 var(--read);
}
.late {
  color: var(--ember);
}
.paper {
  list-style: none;
  margin-top: 10px;
  display: grid;
  gap: 5px;
}
.paper label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
section {
  max-width: none !important;
}
</style>
