<script setup lang="ts">
import { KINDS } from '#core/kinds'
import type { ActivityView } from '#shared/contributing/activity'
import { deskOf } from '~/composables/marking/deskOf'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import ActivityBrief from '../planning/ActivityBrief.vue'
import KindTag from '../planning/KindTag.vue'
import PhaseTrack from '../planning/PhaseTrack.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The head of an activity's page: its kind, title, brief and phases. */
const props = defineProps<{
  activity: ActivityView
  ownAt?: string | null
  /** Where the brief stands on the page itself. */ brief?: 'below'
}>()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const briefOpen = ref(false)
const closed = computed(() => props.activity.closesAt < (seminar.shell?.now ?? ''))
const closingWords = computed(() => {
  const { closing } = props.activity
  if (seminar.isStaff) {
    if (closing !== 'none') return 'Closing questions'
    if (seminar.shell?.role === 'instructor') return 'Ask closing questions'
    return null
  }
  if (closing === 'open') return 'Answer the closing questions'
  if (closing === 'answered') return 'Closing questions: answered'
  return null
})
const base = computed(() => `/seminars/${props.activity.seminarId}/activities/${props.activity.id}`)
</script>

<template>
  <section class="activity-head" aria-label="About the activity">
    <div>
      <p class="head">
        <KindTag :kind="activity.kind" /><span v-if="closed" class="muted small"
          >closed {{ dayTime(activity.closesAt) }}</span
        ><span v-if="activity.joint.length > 0" class="small muted"
          >together with {{ activity.joint.join(', ') }}</span
        ><NuxtLink
          v-if="seminar.isStaff && activity.rubric"
          class="small no-print"
          :to="`${base}/${deskOf(activity.kind).path}`"
          >Open the {{ deskOf(activity.kind).name }}</NuxtLink
        ><NuxtLink
          v-if="
            seminar.isStaff && KINDS[activity.kind].measured && activity.opensAt <= (seminar.shell?.now ?? '')
          "
          class="small no-print"
          :to="`/seminars/${activity.seminarId}/voices?activity=${activity.id}`"
          >Voices in it</NuxtLink
        ><NuxtLink v-if="seminar.shell?.role === 'instructor'" class="small no-print" :to="`${base}/plan`"
          >Change the plan</NuxtLink
        ><NuxtLink v-if="activity.standing === 'returned'" class="small no-print" :to="`${base}/letter`"
          >Read your letter</NuxtLink
        ><NuxtLink v-if="closingWords" class="small no-print" :to="`${base}/closing`">{{
          closingWords
        }}</NuxtLink
        ><slot />
      </p>
      <h1>{{ activity.title }}</h1>
      <p v-if="brief !== 'below'" class="brief">
        {{ activity.summary }}
        <TextButton :aria-expanded="briefOpen" @click="briefOpen = !briefOpen">
          {{ briefOpen ? 'fold the brief' : 'read the whole brief' }}
        </TextButton>
      </p>
    </div>
    <PhaseTrack :phases="activity.phases" :own-at="ownAt ?? null" />
    <ActivityBrief v-if="briefOpen" class="whole" :activity="activity" />
  </section>
</template>

<style scoped>
.activity-head {
  flex: none;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 520px);
  gap: 0 44px;
  padding: 12px 20px 8px;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 14px;
  align-items: baseline;
  flex-wrap: wrap;
  min-height: 18px;
}
h1 {
  font: 600 1.3125rem/1.2 var(--read);
  margin-top: 3px;
}
.brief {
  font: 400 0.90625rem/1.5 var(--read);
  color: var(--ink-2);
  margin-top: 5px;
}
.brief .link {
  font: 500 0.8125rem/1 var(--ui);
  white-space: nowrap;
}
.whole {
  grid-column: 1 / -1;
  border-top: 1px solid var(--line-soft);
  margin-top: 8px;
  padding: 12px 0 10px;
  max-width: 74ch;
  max-height: 40vh;
  overflow: auto;
}
@media (max-width: 1000px) {
  .activity-head {
    grid-template-columns: 1fr;
    gap: 10px;
  }
}
@media (max-width: 760px) {
  .activity-head {
    padding: 10px 14px;
  }
}
</style>
