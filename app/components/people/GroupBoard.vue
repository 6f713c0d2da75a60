<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { GroupPerson, GroupPlanView } from '#shared/people/groups'
import { unkeptRules } from '#core/people/watchRules'
import { movedWords, unkeptWords } from '~/composables/people/groupWords'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as peopleEndpoints from '#shared/people/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'
import GroupMembers from './GroupMembers.vue'
import GroupRulesWatch from './GroupRulesWatch.vue'
import TextButton from '~/components/controls/TextButton.vue'

type Arrangement = Pick<GroupPlanView, 'title' | 'selfJoin' | 'most' | 'rules' | 'groups'>
/** A plan's groups side by side. People are dragged between them, or moved from the keyboard; what happens to their work is said. */
const props = defineProps<{
  plan: GroupPlanView
  people: readonly GroupPerson[]
  sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
  seminarId: string
  mayManage: boolean
}>()
const emit = defineEmits<{ save: [next: Arrangement, said: string | null]; remove: []; dealt: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const personOf = computed(() => new Map(props.people.map(p => [p.id, p])))
const grouped = computed(() => new Set(props.plan.groups.flatMap(g => g.memberIds)))
const loose = computed(() => props.people.filter(p => !grouped.value.has(p.id)).map(p => p.id))
const mix = (ids: readonly string[]) =>
  props.sections
    .map(
      s =>
        `${ids.filter(id => personOf.value.get(id)?.sectionId === s.id).length} ${s.title.replace(/^section\s+/i, '')}`,
    )
    .join(', ')
const arrangement = (groups: Arrangement['groups']): Arrangement => ({
  title: props.plan.title,
  selfJoin: props.plan.selfJoin,
  most: props.plan.most,
  rules: props.plan.rules,
  groups,
})

/** What a move means for what somebody has written, and which rule it does not keep. */
function moveWords(id: string, groups: Arrangement['groups'], to: string | null): string {
  const nameOf = (who: string) => personOf.value.get(who)?.name ?? 'Somebody'
  const work = props.plan.work.filter(w => w.enrolmentId === id)
  const unkept = unkeptRules(
    groups.map(g => g.memberIds),
    props.plan.rules,
  ).filter(rule => rule.ids.includes(id))
  const moved = movedWords({ name: personOf.value.get(id)?.givenName ?? 'Somebody', to }, work)
  return [moved, ...unkept.map(rule => unkeptWords(rule, nameOf))].join(' ')
}
function move(id: string, groupId: string | null) {
  const groups = props.plan.groups.map(g => ({
    ...g,
    memberIds: [...g.memberIds.filter(m => m !== id), ...(g.id === groupId ? [id] : [])],
  }))
  emit(
    'save',
    arrangement(groups),
    moveWords(id, groups, props.plan.groups.find(g => g.id === groupId)?.title ?? null),
  )
}
/** After a drop: who now stands in `groupId` (or in none) and did not before has moved. */
function dropped(groupId: string | null, ids: string[]) {
  const before = groupId === null ? loose.value : props.plan.groups.find(g => g.id === groupId)!.memberIds
  const came = ids.find(id => !before.includes(id))
  if (came) move(came, groupId)
  else if (groupId !== null && ids.length === before.length && ids.join() !== before.join())
    emit(
      'save',
      arrangement(props.plan.groups.map(g => (g.id === groupId ? { ...g, memberIds: ids } : g))),
      null,
    )
}
const rename = (groupId: string, title: string) => {
  if (title.trim())
    emit(
      'save',
      arrangement(props.plan.groups.map(g => (g.id === groupId ? { ...g, title: title.trim() } : g))),
      null,
    )
}
const addGroup = () =>
  emit(
    'save',
    arrangement([
      ...props.plan.groups,
      { id: newKey(), title: `Group ${props.plan.groups.length + 1}`, memberIds: [] },
    ]),
    null,
  )
const dropGroup = (id: string) =>
  emit(
    'save',
    arrangement(props.plan.groups.filter(g => g.id !== id)),
    'The group is deleted; its people are in no group.',
  )
async function dealAgain() {
  const before = arrangement(props.plan.groups)
  const rules = {
    ...props.plan.rules,
    by: 'number' as const,
    count: props.plan.groups.length,
    seed: Math.floor(Math.random() * 2 ** 31),
  }
  const dealt = await send(() =>
    api.call(peopleEndpoints.dealGroups, {
      params: { seminarId: props.seminarId, planId: props.plan.id },
      body: {
        key: newKey(),
        baseVersion: props.plan.version,
        rules,
      },
    }),
  )
  if (!dealt) return
  emit('dealt')
  notices.say('Shuffled again.', { label: 'Undo', run: () => emit('save', before, null) })
}
</script>

<template>
  <div class="board">
    <p class="line">
      <template v-if="mayManage">
        <LineInput
          class="in title"
          :value="plan.title"
          aria-label="What this plan is for"
          @change="
            emit(
              'save',
              {
                ...arrangement(plan.groups),
                title: ($event.target as HTMLInputElement).value.trim() || plan.title,
              },
              null,
            )
          "
        />
        <label class="tick"
          ><PlainCheckbox
            :checked="plan.selfJoin"
            @change="
              emit(
                'save',
                { ...arrangement(plan.groups), selfJoin: !plan.selfJoin },
                plan.selfJoin
                  ? 'Students no longer choose by themselves.'
                  : 'Students choose their groups by themselves now.',
              )
            "
          />
          students join by themselves</label
        >
        <label v-if="plan.selfJoin" class="tick"
          >up to
          <LineInput
            class="in short"
            type="number"
            min="1"
            :value="plan.most ?? ''"
            placeholder="any"
            aria-label="People in a group"
            @change="
              emit(
                'save',
                {
                  ...arrangement(plan.groups),
                  most: Number(($event.target as HTMLInputElement).value) || null,
                },
                null,
              )
            "
          />
          each</label
        >
        <span class="grow" />
        <v-btn :disabled="busy" @click="dealAgain">Shuffle again</v-btn
        ><v-btn @click="addGroup">Add a group</v-btn
        ><TextButton @click="emit('remove')">Delete the plan</TextButton>
      </template>
      <b v-else>{{ plan.title }}</b>
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p v-if="plan.usedBy.length > 0" class="hint">
      Used by {{ plan.usedBy.map(a => `“${a.title}”`).join(', ') }}. Whoever is moved keeps what they have
      written.
    </p>
    <GroupRulesWatch
      v-if="mayManage"
      :plan="plan"
      :people="people"
      @change="emit('save', { ...arrangement(plan.groups), rules: { ...plan.rules, ...$event } }, null)"
    />
    <div class="grid">
      <section v-for="g in plan.groups" :key="g.id">
        <header>
          <LineInput
            v-if="mayManage"
            class="in name"
            :value="g.title"
            :aria-label="`Name of ${g.title}`"
            @change="rename(g.id, ($event.target as HTMLInputElement).value)"
          /><b v-else>{{ g.title }}</b
          ><span class="hint"
            >{{ g.memberIds.length
            }}{{ sections.length > 1 && g.memberIds.length > 0 ? `: ${mix(g.memberIds)}` : '' }}</span
          ><PlainButton
            v-if="mayManage && g.memberIds.length === 0"
            class="off"
            :aria-label="`Remove ${g.title}`"
            @click="dropGroup(g.id)"
          >
            ×
          </PlainButton>
        </header>
        <GroupMembers
          :ids="g.memberIds"
          :group="g"
          :groups="plan.groups"
          :people="personOf"
          :sections="sections"
          :may-manage="mayManage"
          @dropped="dropped(g.id, $event)"
          @move="move"
        />
        <p v-if="g.memberIds.length === 0" class="hint none">
          {{ plan.selfJoin ? 'nobody has joined yet' : 'drag somebody here' }}
        </p>
      </section>
      <section v-if="mayManage && loose.length > 0" class="loose">
        <header>
          <b>In no group</b><span class="hint">{{ loose.length }}</span>
        </header>
        <GroupMembers
          :ids="loose"
          :group="null"
          :groups="plan.groups"
          :people="personOf"
          :sections="sections"
          may-manage
          @dropped="dropped(null, $event)"
          @move="move"
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.board {
  padding: 12px 20px 30px;
  display: grid;
  gap: 10px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
}
.title {
  font: 600 1.0625rem/1.3 var(--read);
  width: 16rem;
}
.tick {
  display: flex;
  gap: 7px;
  align-items: center;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(188px, 1fr));
  gap: 14px;
  align-items: start;
}
section {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  overflow: hidden;
  position: relative;
}
.loose {
  background: transparent;
  border-style: dashed;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  padding: 9px 12px 7px;
  border-bottom: 1px solid var(--line-soft);
}
header .hint {
  margin-left: auto;
  white-space: nowrap;
}
.name {
  border-color: transparent;
  font: 600 0.9375rem/1.3 var(--read);
  padding: 1px 4px;
  margin-left: -5px;
  background: transparent;
  flex: 1 1 auto;
  field-sizing: content;
  min-width: 4rem;
  max-width: 100%;
}
.none {
  position: absolute;
  bottom: 8px;
  left: 14px;
  pointer-events: none;
}
.off {
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
}
</style>
