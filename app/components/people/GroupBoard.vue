<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import { VueDraggable } from 'vue-draggable-plus'
import type { GroupPerson, GroupPlanView } from '#shared/people/groups'
import { inWords, listed, plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as peopleEndpoints from '#shared/people/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

type Arrangement = Pick<GroupPlanView, 'title' | 'selfJoin' | 'most' | 'groups'>
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
const sectionLetter = (id: string) => {
  const at = props.sections.findIndex(s => s.id === personOf.value.get(id)?.sectionId)
  return at < 0 ? '' : props.sections[at]!.title.replace(/^section\s+/i, '').slice(0, 3)
}
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
  groups,
})

/** What a move means for what somebody has written. */
function workWords(id: string, to: string | null): string {
  const name = personOf.value.get(id)?.givenName ?? 'Somebody'
  const work = props.plan.work.filter(w => w.enrolmentId === id)
  const where = to ? `in ${to} now` : 'in no group now'
  if (work.length === 0) return `${name} is ${where}.`
  const n = work.reduce((sum, w) => sum + w.contributions, 0)
  return `${name} is ${where}. ${inWords(n).replace(/^./, c => c.toUpperCase())} ${plural(n, 'contribution')} in ${listed(work.map(w => `“${w.activity}”`))} ${n === 1 ? 'stays' : 'stay'} theirs, where ${n === 1 ? 'it is' : 'they are'}${to ? '; from now on they work with the new group' : '; they take no part in it until they are in a group again'}.`
}
function move(id: string, groupId: string | null) {
  const groups = props.plan.groups.map(g => ({
    ...g,
    memberIds: [...g.memberIds.filter(m => m !== id), ...(g.id === groupId ? [id] : [])],
  }))
  emit(
    'save',
    arrangement(groups),
    workWords(id, props.plan.groups.find(g => g.id === groupId)?.title ?? null),
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
        <VueDraggable
          tag="ul"
          :model-value="[...g.memberIds]"
          group="people"
          :disabled="!mayManage"
          :animation="120"
          :data-group="g.title"
          @update:model-value="dropped(g.id, $event as string[])"
        >
          <li v-for="id in g.memberIds" :key="id" :data-person="id">
            <span class="p">{{ personOf.get(id)?.name }}</span><i v-if="sections.length > 1">{{
              sectionLetter(id)
            }}</i>
            <PickList
              v-if="mayManage"
              class="to"
              :aria-label="`Move ${personOf.get(id)?.name}`"
              :value="g.id"
              @change="move(id, ($event.target as HTMLSelectElement).value || null)"
            >
              <option v-for="o in plan.groups" :key="o.id" :value="o.id">{{ o.title }}</option>
              <option value="">no group</option>
            </PickList>
          </li>
        </VueDraggable>
        <p v-if="g.memberIds.length === 0" class="hint none">
          {{ plan.selfJoin ? 'nobody has joined yet' : 'drag somebody here' }}
        </p>
      </section>
      <section v-if="mayManage && loose.length > 0" class="loose">
        <header>
          <b>In no group</b><span class="hint">{{ loose.length }}</span>
        </header>
        <VueDraggable
          tag="ul"
          :model-value="loose"
          group="people"
          :animation="120"
          data-group=""
          @update:model-value="dropped(null, $event as string[])"
        >
          <li v-for="id in loose" :key="id" :data-person="id">
            <span class="p">{{ personOf.get(id)?.name }}</span><i v-if="sections.length > 1">{{
              sectionLetter(id)
            }}</i
            ><PickList
              class="to"
              :aria-label="`Move ${personOf.get(id)?.name}`"
              value=""
              @change="move(id, ($event.target as HTMLSelectElement).value || null)"
            >
              <option value="">no group</option>
              <option v-for="o in plan.groups" :key="o.id" :value="o.id">{{ o.title }}</option>
            </PickList>
          </li>
        </VueDraggable>
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
  gap: 8px;
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
  flex: 1;
  min-width: 4rem;
}
ul {
  list-style: none;
  padding: 5px 6px 8px;
  min-height: 34px;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 6px;
  border-radius: 5px;
  cursor: grab;
  position: relative;
  user-select: none;
}
li:hover {
  background: var(--sunken);
}
.p {
  flex: 1;
}
li i {
  font: 600 0.6875rem/1 var(--ui);
  color: var(--ink-3);
  font-style: normal;
}
.to {
  width: 20px;
  border: 0;
  background: transparent;
  color: var(--ink-3);
  opacity: 0;
  cursor: pointer;
  font-size: 0.8125rem;
}
li:hover .to,
.to:focus-visible {
  opacity: 1;
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
