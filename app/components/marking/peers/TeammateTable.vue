<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import TextButton from '~/components/controls/TextButton.vue'
import type { PeersView } from '#shared/marking/peers'
import type { TeammateGroupRow, TeammateRow } from '~/composables/marking/useTeammates'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'

/** One group: what its members gave each other, criterion by criterion, each one's share, and what it does to their mark. */
const props = defineProps<{
  view: PeersView
  group: TeammateGroupRow
  showSelf: boolean
  /** Who is opened, and how many flagged reviews each has received. */
  opened: string | null
  flags: ReadonlyMap<string, number>
  nameOf: (id: string) => string
}>()
const emit = defineEmits<{ open: [memberId: string]; share: [memberId: string, factor: number | null] }>()
const criteria = computed(() => props.view.rubric?.criteria ?? [])
const most = computed(() => criteria.value.reduce((s, c) => s + c.max * c.weight, 0))
const shares = computed(() => props.view.shares !== null)
const marks = computed(() => new Map(props.view.marks.map(m => [m.enrolmentId, m])))
const isMarked = computed(() => props.view.worth > 0 && !shares.value)
/** Without a rubric there are answers alone: nothing is scored, and no share comes out. */
const isScored = computed(() => criteria.value.length > 0)
const columns = computed(() => {
  const there = [isScored.value, isScored.value && props.showSelf, isScored.value || shares.value]
  return 1 + criteria.value.length + there.filter(Boolean).length + Number(shares.value || isMarked.value)
})
const shown = (value: number | null) => (value === null ? '–' : tenth(value))
const shareShown = (factor: number | null) => (factor === null ? '' : (factor / 100).toFixed(2))
function type(member: TeammateRow, event: Event) {
  const raw = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  const n = Math.round(Number(raw) * 100)
  const { least, most: top } = props.view.settings.bounds
  if (raw === '') emit('share', member.id, null)
  else if (Number.isFinite(n))
    emit('share', member.id, Math.min(Math.round(top * 100), Math.max(Math.round(least * 100), n)))
}
function changeOf({ mark, after }: TeammateRow): string {
  if (mark?.points == null) return ''
  if (after === null || after === mark.points) return 'as it is'
  const by = after - mark.points
  return `${points(after)}, ${by > 0 ? '+' : '−'}${points(Math.abs(by))}`
}
function markOf(id: string): string {
  const mark = marks.value.get(id)
  if (mark?.points == null) return '–'
  return mark.state === 'open' ? points(mark.points) : `${points(mark.points)}, ${mark.state}`
}
</script>

<template>
  <div class="scroll">
    <table class="num">
      <thead>
        <tr>
          <th>Member</th>
          <th v-for="c in criteria" :key="c.id">{{ c.title }}</th>
          <th v-if="isScored">of {{ points(most) }}</th>
          <th v-if="isScored && showSelf">self</th>
          <th v-if="isScored || shares">share</th>
          <th v-if="shares">mark now</th>
          <th v-if="shares">with the share</th>
          <th v-if="isMarked">mark</th>
        </tr>
      </thead>
      <tbody v-for="m in group.members" :key="m.id" :data-member="m.id">
        <tr :class="{ on: opened === m.id }">
          <td>
            <TextButton class="plain" :aria-expanded="opened === m.id" @click="emit('open', m.id)">
              {{ nameOf(m.id) }}
            </TextButton>
            <span v-if="flags.has(m.id)" class="flag">flagged</span>
          </td>
          <td v-for="c in criteria" :key="c.id">
            <span class="bar" :style="{ '--w': `${((m.means.get(c.id) ?? 0) / c.max) * 100}%` }">{{
              shown(m.means.get(c.id) ?? null)
            }}</span>
          </td>
          <td v-if="isScored">
            <b>{{ shown(m.mean) }}</b>
          </td>
          <td v-if="isScored && showSelf" class="self">{{ shown(m.self) }}</td>
          <td v-if="isScored || shares">
            <LineInput
              class="factor"
              inputmode="decimal"
              :value="shareShown(m.factor)"
              :aria-label="`Share of ${nameOf(m.id)}`"
              @change="type(m, $event)"
            />
          </td>
          <td v-if="shares">
            {{ m.mark?.points == null ? '–' : points(m.mark.points)
            }}<span v-if="m.mark?.factor != null" class="muted"> × {{ shareShown(m.mark.factor) }}</span>
          </td>
          <td v-if="shares" class="change">{{ changeOf(m) }}</td>
          <td v-if="isMarked">{{ markOf(m.id) }}</td>
        </tr>
        <tr v-if="opened === m.id" class="said">
          <td :colspan="columns + Number(shares)"><slot :member="m" /></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.84375rem;
  min-width: 760px;
  background: var(--sheet);
}
th {
  text-align: left;
  font: 400 0.75rem/1.3 var(--ui);
  color: var(--ink-3);
  padding: 6px 10px;
  border-bottom: 1px solid var(--line);
}
td {
  padding: 6px 10px;
  border-bottom: 1px solid var(--line-soft);
  vertical-align: middle;
}
td:first-child {
  width: 200px;
}
tr.on > td {
  background: var(--sunken);
}
.bar {
  display: block;
  min-width: 64px;
  padding: 1px 4px;
  background: linear-gradient(color-mix(in srgb, var(--k-review) 22%, transparent) 0 0) 0 / var(--w) 100%
    no-repeat;
}
.self {
  color: var(--ink-3);
}
.change {
  white-space: nowrap;
}
.factor {
  width: 56px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  font: 650 0.84375rem/1.3 var(--ui);
  color: var(--ember);
  padding: 1px 2px;
}
.plain {
  color: var(--ink);
  font-weight: 600;
  text-align: left;
  text-decoration-color: var(--line);
}
.flag {
  margin-left: 8px;
  font-size: 0.75rem;
  color: var(--brick);
}
.said td {
  padding: 0;
}
</style>
