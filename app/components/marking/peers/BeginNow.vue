<script setup lang="ts">
import { opensWith, phasesBegunNow, type BeginAct } from '#core/planning/beginNow'
import { inWords, listed } from '#core/language'
import type { PeersView } from '#shared/marking/peers'
import type { ComposerView, EffectView } from '#shared/planning/composer'
import * as planningEndpoints from '#shared/planning/endpoints'
import CheckBox from '~/components/controls/CheckBox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import EffectPanel from '~/components/planning/EffectPanel.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { usePeersStore } from '~/stores/peers'
import { useSeminarStore } from '~/stores/seminar'

/** Ends hand-in or begins reviewing before its time: what it would do is said first. */
const props = defineProps<{ view: PeersView; nameOf: (id: string) => string }>()
const api = useApi()
const store = usePeersStore()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime, now } = useTimes()
const { busy, problem, send } = useSending()
const act = computed<BeginAct | null>(() => {
  if (!props.view.handInEnded) return 'endHandIn'
  return props.view.reviewBegun ? null : 'beginReviewing'
})
const VERBS: Readonly<Record<BeginAct, string>> = {
  endHandIn: 'End hand-in now',
  beginReviewing: 'Begin reviewing now',
}
const isPlanner = computed(() => seminar.shell?.role === 'instructor')
const params = { activityId: store.activityId }
const seminarId = String(useRoute().params.seminarId)
const asked = ref<BeginAct | null>(null)
const tell = ref(true)
const effect = shallowRef<EffectView | null>(null)
const open = computed({
  get: () => asked.value !== null,
  set: value => {
    if (!value) asked.value = null
  },
})
const MOST_NAMED = 6
const lines = computed(() => {
  const { handInEndsAt, reviewStartsAt, reviewEndsAt, notHandedIn, works, settings } = props.view
  const until = reviewEndsAt ? ` It goes on until ${dayTime(reviewEndsAt)}, as planned.` : ''
  if (asked.value === 'beginReviewing')
    return [`Reviewing begins now, and not ${dayTime(reviewStartsAt!)}.${until}`]
  const lacking = notHandedIn.slice(0, MOST_NAMED).map(props.nameOf)
  const names =
    notHandedIn.length > MOST_NAMED ? [...lacking, `${notHandedIn.length - MOST_NAMED} more`] : lacking
  const atOnce = reviewStartsAt! <= handInEndsAt!
  const count = works.filter(w => !w.isSample).length
  const dealt =
    count > 1
      ? `${inWords(count)} works get their readers within a minute`
      : 'there is too little in to be read yet'
  return [
    `Hand-in ends now, and not ${dayTime(handInEndsAt!)}.`,
    names.length > 0 &&
      `Nothing is in from ${listed(names)}. ${settings.late === 'taken' ? 'What they hand in now is late.' : 'Nothing more is taken from them.'}`,
    atOnce
      ? `Reviewing begins with it: ${dealt}.${until}`
      : `Reviewing begins ${dayTime(reviewStartsAt!)}, as planned.`,
  ].filter(line => line !== false)
})

async function ask() {
  asked.value = act.value
  effect.value = null
  effect.value = await send(async () => {
    const plan: ComposerView = await api.call(planningEndpoints.readPlannedActivity, { params })
    const phases = plan.body.phases.map(p => ({
      name: p.name,
      startsAt: new Date(p.startsAt),
      endsAt: new Date(p.endsAt),
    }))
    const begun = phasesBegunNow(phases, asked.value!, now.value)
    const after = 'fault' in begun ? phases : begun.phases
    return api.call(planningEndpoints.readPlanEffect, {
      params,
      body: {
        change: {
          opensAt: opensWith(new Date(plan.body.opensAt), after).toISOString(),
          phases: after.map(p => ({
            name: p.name,
            startsAt: p.startsAt.toISOString(),
            endsAt: p.endsAt.toISOString(),
          })),
        },
      },
    })
  })
}
async function begin() {
  const which = asked.value!
  const done = await send(() =>
    api.call(planningEndpoints.beginPhase, { params, body: { key: newKey(), act: which, tell: tell.value } }),
  )
  if (!done) return
  asked.value = null
  await reload()
  const isTold = tell.value && done.state === 'published' // of a draft nobody is told
  const told = isTold ? ' Everyone who takes part is told.' : ''
  notices.say(`${doneSentence(which, done.state)}${told}`, {
    label: 'Undo',
    run: () => undo(done.version, done.before, isTold),
  })
}
function doneSentence(which: BeginAct, state: ComposerView['state']): string {
  if (which === 'endHandIn') return 'Hand-in has ended.'
  if (state === 'scheduled') return 'The activity opens within a minute, and reviewing begins with it.'
  return 'Reviewing has begun.'
}
async function undo(
  baseVersion: number,
  before: Pick<ComposerView['body'], 'opensAt' | 'phases'>,
  wereTold: boolean,
) {
  const done = await send(() =>
    api.call(planningEndpoints.changeSchedule, {
      params,
      body: { key: newKey(), baseVersion, ...before, tell: wereTold },
    }),
  )
  await reload()
  if (!done) {
    notices.say(problem.value ?? 'The dates could not be put back. Change them in the plan.')
    return
  }
  // this may have gone from the page with what it stood in: what is true now is in the store
  const { handInEnded, dealtAt } = store.view!
  const isReadEarly = !handInEnded && dealtAt !== null
  const readers = isReadEarly ? ' A work has been opened, so readers keep those they have.' : ''
  notices.say(`The dates are as they were.${readers}${wereTold ? ' Everyone is told of that, too.' : ''}`)
}
async function reload() {
  await store.refresh()
  void seminar.load(seminarId).catch(() => {})
}
</script>

<template>
  <v-btn v-if="act && isPlanner" :disabled="busy" @click="ask">{{ VERBS[act] }} …</v-btn>
  <ModalDialog v-model="open" max-width="520" :aria-label="asked ? VERBS[asked] : ''">
    <div v-if="asked" class="card dialog">
      <h2>{{ VERBS[asked] }}</h2>
      <p v-for="line in lines" :key="line" class="line">{{ line }}</p>
      <EffectPanel :effect="effect" :problem="problem" />
      <CheckBox v-model="tell">tell everyone who takes part</CheckBox>
      <p class="acts">
        <v-btn class="main" :disabled="busy" @click="begin">{{ VERBS[asked] }}</v-btn>
        <v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
h2 {
  font: 600 1.125rem/1.3 var(--read);
}
.line {
  font: 400 0.9375rem/1.5 var(--read);
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
