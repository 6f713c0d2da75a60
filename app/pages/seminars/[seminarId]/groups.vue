<script setup lang="ts">
import type { GroupPlanView } from '#shared/people/groups'
import GroupBoard from '~/components/people/GroupBoard.vue'
import GroupMaker from '~/components/people/GroupMaker.vue'
import OwnGroups from '~/components/people/OwnGroups.vue'
import PeopleTabs from '~/components/people/PeopleTabs.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { savesInTurn } from '~/composables/people/savesInTurn'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as peopleEndpoints from '#shared/people/endpoints'
import ChipButton from '~/components/controls/ChipButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Groups' })
const route = useRoute()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const { attempt } = useSending()
const readGroups = () =>
  api.call(peopleEndpoints.readGroups, { params: { seminarId: String(route.params.seminarId) } })
const { data, error, refresh } = await useAsyncData(`groups-${route.params.seminarId}`, readGroups)
const chosenId = ref<string | null>(null)
const making = ref(false)
const plan = computed(
  () => data.value?.plans.find(p => p.id === chosenId.value) ?? data.value?.plans[0] ?? null,
)

type Arrangement = Pick<GroupPlanView, 'title' | 'selfJoin' | 'most' | 'rules' | 'groups'>
type Arranged = Arrangement & { readonly planId: string }
const versionOf = (id: string) => data.value!.plans.find(p => p.id === id)?.version
const change = (id: string, some: Partial<GroupPlanView>) => {
  data.value = { ...data.value!, plans: data.value!.plans.map(p => (p.id === id ? { ...p, ...some } : p)) }
}
const saveInTurn = savesInTurn<Arranged>({
  show: ({ planId, ...next }) => change(planId, next),
  store: async ({ planId, title, selfJoin, most, rules, groups }) => {
    const version = versionOf(planId)
    if (version === undefined) return false // the plan was deleted meanwhile
    const answer = await attempt(() =>
      api.call(peopleEndpoints.saveGroupPlan, {
        params: { seminarId: String(route.params.seminarId), planId },
        body: {
          key: newKey(),
          baseVersion: version,
          title,
          selfJoin,
          most,
          rules: { together: rules.together, apart: rules.apart },
          groups,
        },
      }),
    )
    if (answer !== null) change(planId, { version: version + 1 })
    return answer !== null
  },
  showStored: async isStill => {
    const stored = await attempt(readGroups)
    if (stored !== null && isStill()) data.value = stored
  },
})
function save(next: Arrangement, said: string | null) {
  const { id, title, selfJoin, most, rules, groups } = plan.value!
  const before: Arrangement = { title, selfJoin, most, rules, groups }
  void saveInTurn({ ...next, planId: id }, () => {
    if (said) notices.say(said, { label: 'Undo', run: () => save(before, null) })
  })
}
async function made(id: string) {
  making.value = false
  await refresh()
  chosenId.value = id
}
const remove = () =>
  attempt(async () => {
    await api.call(peopleEndpoints.deleteGroupPlan, {
      params: { seminarId: String(route.params.seminarId), planId: plan.value!.id },
    })
    chosenId.value = null
    await refresh()
    notices.say("The group plan is gone. Nobody's work was touched.")
  })
const chooseOwn = (planId: string, groupId: string | null) =>
  attempt(async () => {
    await api.call(peopleEndpoints.chooseGroup, {
      params: { seminarId: String(route.params.seminarId), planId },
      body: { groupId },
    })
    await refresh()
  }).then(done => {
    if (done === null) void refresh()
  })
function choose(planId: string) {
  chosenId.value = planId
  making.value = false
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="groups">
    <div class="top">
      <PeopleTabs />
      <div v-if="data.plans.length > 0 || data.mayManage" class="plans">
        <ChipButton
          v-for="p in data.plans"
          :key="p.id"
          :class="{ on: p.id === plan?.id && !making }"
          :aria-pressed="p.id === plan?.id && !making"
          @click="choose(p.id)"
        >
          {{ p.title }}
        </ChipButton>
        <ChipButton v-if="data.mayManage" :class="{ on: making }" @click="making = !making">
          + new plan
        </ChipButton>
      </div>
    </div>
    <GroupMaker
      v-if="data.mayManage && (making || data.plans.length === 0)"
      :seminar-id="String(route.params.seminarId)"
      :people="data.people"
      :sections="data.sections"
      :first="data.plans.length === 0"
      @made="made"
      @close="making = false"
    />
    <OwnGroups
      v-else-if="seminar.isStudent"
      :plans="data.plans"
      :people="data.people"
      :me="data.me"
      @choose="chooseOwn"
    />
    <GroupBoard
      v-else-if="plan"
      :key="plan.id"
      :plan="plan"
      :people="data.people"
      :sections="data.sections"
      :seminar-id="String(route.params.seminarId)"
      :may-manage="data.mayManage"
      @save="save"
      @remove="remove"
      @dealt="refresh()"
    />
    <p v-else class="invite">There are no groups in this seminar yet.</p>
  </main>
</template>

<style scoped>
.groups {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
.top {
  padding: 18px 20px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 30px;
  align-items: baseline;
}
.plans {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.invite {
  padding: 20px;
}
</style>
