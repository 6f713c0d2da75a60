<script setup lang="ts">
import type { ActivityKind } from '#core/kinds/kind'
import type { ActivityBody, EffectView } from '#shared/planning/composer'
import type { LibraryView } from '#shared/marking/rubric'
import type { PlanActivity } from '#shared/planning/plan'
import EffectPanel from '~/components/planning/EffectPanel.vue'
import LoadBand from '~/components/planning/LoadBand.vue'
import PhaseKey from '~/components/planning/PhaseKey.vue'
import PlanActivityMenu from '~/components/planning/PlanActivityMenu.vue'
import PlanChart from '~/components/planning/PlanChart.vue'
import PlanChecks from '~/components/planning/PlanChecks.vue'
import ThisWeek from '~/components/planning/ThisWeek.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { capital, inWords, plural } from '#core/language'
import { remarkWords } from '~/composables/planning/planRemarks'
import { newKey, useApi } from '~/composables/shell/useApi'
import { showToday } from '~/composables/planning/showToday'
import { usePlanMoves } from '~/composables/planning/usePlanMoves'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useSending } from '~/composables/shell/useSending'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as planningEndpoints from '#shared/planning/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
const seminar = useSeminarStore()
const notices = useNotices()
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const api = useApi()
const { attempt } = useSending()
const { dayTime } = useTimes()
useHead({ title: () => (seminar.isStaff ? 'Term plan' : 'Seminar') })
const {
  data: plan,
  error,
  refresh,
} = await useAsyncData(`plan-${route.params.seminarId}`, () =>
  api.call(planningEndpoints.readTermPlan, { params }),
)
const templates = ref<LibraryView['templates']>([])
onMounted(async () => {
  if (plan.value?.staff?.mayManage)
    templates.value = (await api.call(markingEndpoints.readLibrary, { params })).templates
})

const moves = usePlanMoves(() => plan.value ?? null)
const mayManage = computed(() => plan.value?.staff?.mayManage ?? false)
const shown = computed(() =>
  moves.drawn.value.filter(a => seminar.inChosenWeek(a.opensAt, a.phases.at(-1)?.endsAt ?? a.closesAt)),
)
const drawnPlan = computed(() => (plan.value ? { ...plan.value, activities: moves.drawn.value } : null))
const sentence = computed(() => {
  const all = plan.value?.activities ?? []
  if (seminar.chosenWeek) {
    const week = seminar.shell?.weeks[seminar.chosenWeek - 1]?.label ?? seminar.chosenWeek
    const n = shown.value.length
    return `week ${week}: ${inWords(n)} ${plural(n, 'activity', 'activities')}`
  }
  const drafts = all.filter(a => a.state === 'draft').length
  const draftWords = drafts ? `, ${inWords(drafts)} of them ${plural(drafts, 'a draft', 'drafts')}` : ''
  const activities = `${all.length} ${plural(all.length, 'activity', 'activities')}${draftWords}`
  return `${activities} · ${plan.value?.students ?? 0} students`
})
const isOpen = (a: PlanActivity) => a.state === 'published' && a.opensAt <= (seminar.shell?.now ?? '')
/** Planners go to the plan of what is not open yet; everyone else to its page, once it is. */
const addressOf = (a: PlanActivity) => {
  const page = `/seminars/${route.params.seminarId}/activities/${a.id}`
  if (mayManage.value && !isOpen(a) && !a.guest) return `${page}/plan`
  return seminar.isStaff || isOpen(a) ? page : null
}

const CHART_KEYS: readonly Key[] = [
  { keys: 'ArrowUp ArrowDown', does: 'on a bar: to the bar above or below', run: null },
  { keys: 'ArrowLeft ArrowRight', does: 'on a bar: move it by a day, with Shift by a week', run: null },
  { keys: 'Tab', does: 'from a bar to the ends of its phases, which move by the same keys', run: null },
  { keys: 'Alt+ArrowUp Alt+ArrowDown', does: 'on a bar: put its activity one place up or down', run: null },
]
useKeys(() => (mayManage.value && shown.value.length > 0 ? CHART_KEYS : []))
const scroll = ref<HTMLElement | null>(null)
onMounted(() => {
  if (scroll.value) showToday(scroll.value)
})

// -- moving
const asked = shallowRef<{ activity: PlanActivity; effect: EffectView | null } | null>(null) // a published one, moved and not yet sent
const held = computed(() => moves.inHand.value?.activityId ?? null)
async function drop(id: string) {
  const hand = moves.inHand.value
  const activity = moves.drawn.value.find(a => a.id === id)
  if (hand?.refused) {
    notices.say(`${hand.refused} It stays where it was.`)
    moves.letGo(id)
    return
  }
  moves.inHand.value = null
  if (!activity || !moves.moved.has(id)) return
  if (activity.state !== 'published') {
    await send(activity, false)
    return
  }
  asked.value = { activity, effect: null }
  const effect = await attempt(() =>
    api.call(planningEndpoints.readPlanEffect, {
      params: { activityId: id },
      body: {
        change: { opensAt: activity.opensAt, phases: activity.phases },
      },
    }),
  )
  if (effect && asked.value?.activity.id === id) asked.value = { activity, effect }
  else if (!effect) putBack(id)
}
function putBack(id: string) {
  moves.letGo(id)
  asked.value = null
}
async function send(activity: PlanActivity, notifies: boolean) {
  const before = plan.value!.activities.find(a => a.id === activity.id)!
  asked.value = null
  const done = await attempt(() =>
    api.call(planningEndpoints.changeSchedule, {
      params: { activityId: activity.id },
      body: {
        key: newKey(),
        baseVersion: before.version,
        opensAt: activity.opensAt,
        phases: activity.phases,
        tell: notifies,
      },
    }),
  )
  await refresh()
  moves.letGo(activity.id)
  if (!done) return
  void seminar.load(route.params.seminarId as string)
  const due = activity.phases.find((p, i) => p.endsAt !== before.phases[i]?.endsAt) ?? activity.phases[0]!
  notices.say(
    `“${activity.title}” moved: ${due.name} until ${dayTime(due.endsAt)}.${notifies ? ' Everyone who takes part is told.' : ''}`,
    { label: 'Undo', run: () => send({ ...before, version: done.version }, false).then(() => undefined) },
  )
}
const order = (activityId: string, unitId: string | null, beforeId: string | null) =>
  attempt(async () => {
    await api.call(planningEndpoints.orderTermPlan, {
      params,
      body: { key: newKey(), activityId, unitId, beforeId },
    })
    await refresh()
  })

// -- planning and remedies
const busy = ref(false)
const begin = (kind: ActivityKind, week: number, templateId: string | null) =>
  attempt(async () => {
    const id = newKey()
    await api.call(planningEndpoints.makeActivity, {
      params,
      body: { id, kind, week, unitId: null, templateId },
    })
    await navigateTo(`/seminars/${route.params.seminarId}/activities/${id}/plan`)
  })
/** Topics of a cartridge become drafts in a week; what is not a topic is left where it is. */
const importTopics = (file: File, week: number) =>
  attempt(async () => {
    const { readTopics } = await import('~/composables/planning/readTopics')
    const topics = await readTopics(file)
    for (const topic of topics) {
      const id = newKey()
      await api.call(planningEndpoints.makeActivity, {
        params,
        body: { id, kind: 'discussion', week, unitId: null, templateId: null },
      })
      const view = await api.call(planningEndpoints.readPlannedActivity, { params: { activityId: id } })
      await api.call(planningEndpoints.changePlannedActivity, {
        params: { activityId: id },
        body: {
          key: newKey(),
          baseVersion: view.version,
          change: { title: topic.title, brief: topic.brief },
          tell: false,
        },
      })
    }
    await refresh()
    notices.say(
      `${capital(inWords(topics.length))} ${plural(topics.length, 'discussion is', 'discussions are')} planned as ${plural(topics.length, 'a draft', 'drafts')}.`,
    )
  })
const composer = (id: string) => `/seminars/${route.params.seminarId}/activities/${id}/plan`
async function change(
  id: string,
  make: (body: ActivityBody) => Partial<ActivityBody>,
  said: (title: string) => string,
) {
  busy.value = true
  await attempt(async () => {
    const view = await api.call(planningEndpoints.readPlannedActivity, { params: { activityId: id } })
    const body = view.body as ActivityBody
    const part = make(body)
    const saved = await api.call(planningEndpoints.changePlannedActivity, {
      params: { activityId: id },
      body: {
        key: newKey(),
        baseVersion: view.version,
        change: part,
        tell: false,
      },
    })
    await refresh()
    const back = Object.fromEntries(
      Object.keys(part).map(field => [field, body[field as keyof ActivityBody]]),
    )
    notices.say(said(body.title), {
      label: 'Undo',
      run: async () => {
        await attempt(() =>
          api.call(planningEndpoints.changePlannedActivity, {
            params: { activityId: id },
            body: {
              key: newKey(),
              baseVersion: saved.version,
              change: back,
              tell: false,
            },
          }),
        )
        await refresh()
      },
    })
  })
  busy.value = false
}
function remedy(id: string, index: number) {
  const { remark } = plan.value!.staff!.remarks[index]!
  void change(
    id,
    body => {
      const { remedy: r } = remarkWords(remark, body, seminar.shell!)
      return r && typeof r.change !== 'string' ? r.change : {}
    },
    title => `Done in “${title}”.`,
  )
}
const rest = (id: string, week: number) =>
  void change(
    id,
    body => ({ rests: [...new Set([...body.rests, week])].sort((a, b) => a - b) }),
    title => `“${title}” rests in week ${seminar.shell?.weeks[week - 1]?.label ?? week}.`,
  )
</script>

<template>
  <ProblemPage v-if="error || !plan || !drawnPlan" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="plan">
    <header>
      <h1>{{ seminar.isStaff ? 'Term plan' : 'Seminar' }}</h1>
      <p class="muted small">
        {{ sentence
        }}<span v-if="mayManage && shown.length > 0" class="by-pointer"> · drag an edge to move a date</span>
      </p>
      <TextButton v-if="seminar.chosenWeek" class="small" @click="seminar.chooseWeek(seminar.chosenWeek)">
        show the whole term
      </TextButton>
      <PhaseKey :with-drafts="seminar.isStaff" />
      <PlanActivityMenu
        v-if="mayManage && seminar.shell"
        :shell="seminar.shell"
        :templates="templates"
        @plan="begin"
        @topics="importTopics"
      />
    </header>
    <div ref="scroll" class="scroll" tabindex="0" role="region" aria-label="The term, week by week">
      <p v-if="plan.activities.length === 0" class="empty">
        Nothing is planned yet.
        <template v-if="mayManage">
          “Plan an activity” puts one on its days: a bar across its weeks, each phase drawn on its days, that
          you drag where it belongs.
        </template>
        <template v-else>
          An activity appears here as a bar across its weeks, each phase drawn on its days.
        </template>
      </p>
      <p v-else-if="shown.length === 0" class="empty">
        Nothing falls in this week. Choose another week above, or the same again to see the whole term.
      </p>
      <PlanChart
        v-else-if="seminar.shell"
        :plan="plan"
        :activities="shown"
        :shell="seminar.shell"
        :address-of="addressOf"
        :movable="mayManage"
        :held-id="held"
        @hold="moves.hold"
        @drop="drop"
        @cancel="moves.letGo"
        @order="order"
      />
      <LoadBand
        v-if="plan.staff && seminar.shell && plan.activities.length > 0"
        :load="moves.load.value"
        :weeks="seminar.shell!.weeks.length"
        :current="seminar.shell.week"
        :limits="plan.staff"
      />
    </div>
    <div v-if="asked" class="asked" role="dialog" aria-label="A published activity was moved">
      <div class="grow">
        <p>
          <b>{{ asked.activity.title }}</b> would be
          {{
            asked.activity.phases
              .filter(p => p.name !== 'return')
              .map(p => `${p.name} until ${dayTime(p.endsAt)}`)
              .join(', ')
          }}.
        </p>
        <EffectPanel :effect="asked.effect" :problem="null" />
      </div>
      <v-btn class="quiet" @click="putBack(asked.activity.id)">Cancel</v-btn
      ><v-btn @click="send(asked.activity, false)">Move it</v-btn
      ><v-btn class="main" @click="send(asked.activity, true)">Move it and tell students</v-btn>
    </div>
    <template v-if="seminar.isStaff && seminar.shell">
      <ThisWeek :plan="drawnPlan" :shell="seminar.shell" />
      <PlanChecks
        :plan="plan"
        :shell="seminar.shell"
        :busy="busy"
        @remedy="remedy"
        @rest="rest"
        @go="navigateTo(composer($event))"
      />
    </template>
  </main>
</template>

<style scoped>
.plan {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 50px;
  padding: 8px 20px;
  border-bottom: 1px solid var(--line);
}
h1 {
  font: 600 1.3125rem/1.2 var(--read);
}
.scroll {
  flex: 1;
  overflow: auto;
  scroll-padding: 30px 0 70px;
  min-height: 160px;
  display: flex;
  flex-direction: column;
}
@media (hover: none) {
  .by-pointer {
    display: none;
  }
}
/* a phone has one scrollbar down the page, and one across the term */
@media (max-width: 760px) {
  .scroll {
    flex: none;
    overflow-y: hidden;
  }
}
.empty {
  padding: 40px 20px;
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
  max-width: 44rem;
}
.asked {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 11px 20px;
  background: var(--ember-soft);
  border-top: 1px solid var(--ember);
}
.asked p {
  font-size: 0.875rem;
}
</style>
