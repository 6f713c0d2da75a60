<script setup lang="ts">
import CheckBox from '~/components/controls/CheckBox.vue'
import type { PeerAllocation, PeersView, SettingAside } from '#shared/marking/peers'
import { inWords, plural } from '#core/language'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import { teammateGroups, type TeammateGroupRow } from '~/composables/marking/useTeammates'
import { usePeersStore } from '~/stores/peers'
import TeammateSaid from './TeammateSaid.vue'
import TeammateTable from './TeammateTable.vue'

/** Groups, with what teammates gave each other: each one's share, and what it would make of the group's mark. The instructor decides. */
const props = defineProps<{ view: PeersView; names: PeerNames; busy: boolean }>()
const emit = defineEmits<{
  share: [factors: Array<{ enrolmentId: string; factor: number | null }>]
  take: [enrolmentIds: string[]]
  keep: [review: PeerAllocation]
  aside: [review: PeerAllocation, choice: SettingAside]
  open: [review: PeerAllocation]
}>()
const store = usePeersStore()
const showSelf = ref(true)
const typed = reactive(new Map<string, number | null>())
const rows = computed(() => teammateGroups(props.view, typed))
const opened = ref<string | null>(null)
const flags = computed(() => {
  const count = new Map<string, number>()
  for (const id of store.flagged) {
    const of = store.real.find(a => a.id === id)?.subjectId
    if (of) count.set(of, (count.get(of) ?? 0) + 1)
  }
  return count
})
const isMarked = computed(() => props.view.worth > 0 && props.view.shares === null)
const factorsOf = (groups: readonly TeammateGroupRow[]) =>
  groups.flatMap(g => g.members.map(m => ({ enrolmentId: m.id, factor: m.factor })))
const mayShare = (groups: readonly TeammateGroupRow[]) =>
  groups.some(g => g.members.some(m => m.factor !== null && m.mark !== null))
const withMean = (groups: readonly TeammateGroupRow[]) =>
  groups.flatMap(g => g.members.flatMap(m => (m.mean === null ? [] : [m.id])))
/** How many marks sharing out would move. */
const moves = computed(
  () => rows.value.flatMap(g => g.members).filter(m => m.after !== null && m.after !== m.mark?.points).length,
)
/** Groups in which a member can work out who wrote what. */
const isSmall = (group: TeammateGroupRow) => group.members.length <= SMALL

// -- from member to member
const everyone = computed(() => rows.value.flatMap(g => g.members.map(m => m.id)))
async function show(id: string | undefined) {
  if (!id) return
  opened.value = id
  await nextTick()
  const row = document.querySelector<HTMLElement>(`[data-member="${id}"]`)
  row?.querySelector<HTMLElement>('button')?.focus({ preventScroll: true })
  row?.scrollIntoView({ block: 'nearest' })
}
const at = () => everyone.value.findIndex(id => id === opened.value)
const turn = (by: number) => show(everyone.value[Math.min(everyone.value.length - 1, Math.max(0, at() + by))])
const nextFlagged = () =>
  show(
    [...everyone.value.slice(at() + 1), ...everyone.value.slice(0, at() + 1)].find(id => flags.value.has(id)),
  )
defineExpose({ turn, nextFlagged })
</script>

<script lang="ts">
const SMALL = 3 // members; of so few each can tell the others' words apart
</script>

<template>
  <div class="mates">
    <div class="lead">
      <CheckBox v-if="view.rubric" v-model="showSelf"
        >show what each gave themselves; it never counts</CheckBox
      ><span v-if="view.rubric" class="muted"
        >A share is one’s mean over the group’s, from {{ view.settings.bounds.least }} to
        {{ view.settings.bounds.most }}.</span
      ><span class="grow" />
      <v-btn
        v-if="view.shares && rows.length > 1"
        :disabled="busy || !mayShare(rows)"
        @click="emit('share', factorsOf(rows))"
        >Share “{{ view.shares.title }}” in all {{ inWords(rows.length) }} groups: {{ moves }}
        {{ plural(moves, 'mark changes', 'marks change') }}</v-btn
      >
      <v-btn
        v-if="isMarked && rows.length > 1"
        :disabled="busy || withMean(rows).length === 0"
        @click="emit('take', withMean(rows))"
        >Use the means as marks, in all {{ inWords(rows.length) }} groups</v-btn
      >
    </div>
    <section v-for="g in rows" :key="g.id" :aria-label="g.title">
      <header>
        <h2>{{ g.title }}</h2>
        <span v-if="g.owed > 0" class="small owed">{{ g.owed }} not in yet</span
        ><span v-else class="small muted">all in</span
        ><span v-if="isSmall(g)" class="small muted"
          >In a group of {{ inWords(g.members.length) }}, members can tell who wrote what.</span
        ><span class="grow" /><v-btn
          v-if="view.shares"
          :disabled="busy || !mayShare([g])"
          @click="emit('share', factorsOf([g]))"
          >Share “{{ view.shares.title }}” in this group</v-btn
        ><v-btn
          v-if="isMarked"
          :disabled="busy || withMean([g]).length === 0"
          @click="emit('take', withMean([g]))"
          >Use the means as marks</v-btn
        >
      </header>
      <TeammateTable
        :view="view"
        :group="g"
        :show-self="showSelf"
        :opened="opened"
        :flags="flags"
        :name-of="names.nameOf"
        @open="id => (opened = opened === id ? null : id)"
        @share="(id, factor) => typed.set(id, factor)"
      >
        <template #default="{ member }">
          <TeammateSaid
            :view="view"
            :member="member"
            :names="names"
            @keep="emit('keep', $event)"
            @aside="(review, choice) => emit('aside', review, choice)"
            @open="emit('open', $event)"
          />
        </template>
      </TeammateTable>
    </section>
    <p v-if="rows.length === 0" class="invite">
      There are no groups yet. In the plan, choose the groups whose members review each other; they can be
      made, or put together by the students.
    </p>
  </div>
</template>

<style scoped>
.mates {
  overflow: auto;
  padding: 14px 24px 40px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 20px;
  align-content: start;
}
.lead {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 24px;
  font-size: 0.84375rem;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 4px;
  flex-wrap: wrap;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
.owed {
  color: var(--ember);
}
.grow {
  flex: 1;
}
</style>
