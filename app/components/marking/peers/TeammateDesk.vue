<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import { shareOfGroup, type MemberShare } from '#core/marking/peers/ownShare'
import type { PeersView } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'
import TextButton from '~/components/controls/TextButton.vue'

/** Groups, with what teammates gave each other: each one's share, and what it would make of the group's mark. The instructor decides. */
const props = defineProps<{ view: PeersView; nameOf: (id: string) => string; busy: boolean }>()
const emit = defineEmits<{ share: [factors: Array<{ enrolmentId: string; factor: number | null }>] }>()
const open = reactive(new Set<string>())
const showSelf = ref(true)
const typed = reactive(new Map<string, number | null>())
const criteria = computed(() => props.view.rubric?.criteria ?? [])
const whole = (p: Readonly<Record<string, number>>) =>
  criteria.value.every(c => p[c.id] !== undefined)
    ? criteria.value.reduce((s, c) => s + p[c.id]! * c.weight, 0)
    : null
const most = computed(() => criteria.value.reduce((s, c) => s + c.max * c.weight, 0))
const rows = computed(() =>
  props.view.groups.map(g => {
    const counted = props.view.allocations.filter(
      a => g.memberIds.includes(a.subjectId) && a.state === 'in' && a.setAside === null,
    )
    const scores = counted.flatMap(a => {
      const points = whole(a.points)
      return points === null ? [] : [{ reviewerId: a.reviewerId, memberId: a.subjectId, points }]
    })
    return {
      ...g,
      owed: props.view.allocations.filter(a => g.memberIds.includes(a.reviewerId) && a.state !== 'in').length,
      members: shareOfGroup(g.memberIds, scores, props.view.settings.bounds),
    }
  }),
)
const markOf = (id: string) => props.view.shares?.marks.find(m => m.enrolmentId === id) ?? null
const factorOf = (m: MemberShare): number | null => {
  if (typed.has(m.memberId)) return typed.get(m.memberId)!
  if (m.factor === null) return null
  return Math.round(m.factor * 100)
}
const given = (id: string) => props.view.allocations.filter(a => a.subjectId === id && a.state === 'in')
const meanOf = (id: string, criterionId: string): number | null => {
  const v = given(id)
    .filter(a => a.reviewerId !== id)
    .flatMap(a => a.points[criterionId] ?? [])
  return v.length > 0 ? v.reduce((a, b) => a + b, 0) / v.length : null
}
function type(id: string, event: Event) {
  const raw = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  const n = Math.round(Number(raw) * 100)
  const { least, most: top } = props.view.settings.bounds
  if (raw === '') typed.set(id, null)
  else if (Number.isFinite(n))
    typed.set(id, Math.min(Math.round(top * 100), Math.max(Math.round(least * 100), n)))
}
const share = (members: readonly MemberShare[]) =>
  emit(
    'share',
    members.map(m => ({ enrolmentId: m.memberId, factor: factorOf(m) })),
  )
</script>

<template>
  <div class="mates">
    <div class="lead">
      <CheckBox v-model="showSelf">show what each gave themselves; it never counts</CheckBox
      ><span class="muted"
        >A share is one’s mean over the group’s, from {{ view.settings.bounds.least }} to
        {{ view.settings.bounds.most }}.</span
      >
    </div>
    <section v-for="g in rows" :key="g.id">
      <header>
        <h2>{{ g.title }}</h2>
        <span v-if="g.owed > 0" class="small owed">{{ g.owed }} not in yet</span
        ><span v-else class="small muted">all in</span><span class="grow" /><v-btn
          v-if="view.shares"
          :disabled="busy || g.members.every(m => factorOf(m) === null)"
          @click="share(g.members)"
          >Share {{ view.shares.title }} by these factors</v-btn
        >
      </header>
      <div class="scroll">
        <table class="num">
          <thead>
            <tr>
              <th>Member</th>
              <th v-for="c in criteria" :key="c.id">{{ c.title }}</th>
              <th>of {{ points(most) }}</th>
              <th v-if="showSelf">self</th>
              <th>share</th>
              <th v-if="view.shares">mark now</th>
            </tr>
          </thead>
          <tbody v-for="m in g.members" :key="m.memberId">
            <tr>
              <td>
                <TextButton
                  class="plain"
                  :aria-expanded="open.has(m.memberId)"
                  @click="open.delete(m.memberId) || open.add(m.memberId)"
                >
                  {{ nameOf(m.memberId) }}
                </TextButton>
              </td>
              <td v-for="c in criteria" :key="c.id">
                <span class="bar" :style="{ '--w': `${((meanOf(m.memberId, c.id) ?? 0) / c.max) * 100}%` }">{{
                  meanOf(m.memberId, c.id) === null ? '–' : tenth(meanOf(m.memberId, c.id)!)
                }}</span>
              </td>
              <td>
                <b>{{ m.mean === null ? '–' : tenth(m.mean) }}</b>
              </td>
              <td v-if="showSelf" class="self">{{ m.self === null ? '–' : tenth(m.self) }}</td>
              <td>
                <LineInput
                  class="factor"
                  inputmode="decimal"
                  :value="factorOf(m) === null ? '' : (factorOf(m)! / 100).toFixed(2)"
                  :aria-label="`Share of ${nameOf(m.memberId)}`"
                  @change="type(m.memberId, $event)"
                />
              </td>
              <td v-if="view.shares">
                {{ markOf(m.memberId)?.points == null ? '–' : points(markOf(m.memberId)!.points!)
                }}<span v-if="markOf(m.memberId)?.factor != null" class="muted">
                  × {{ (markOf(m.memberId)!.factor! / 100).toFixed(2) }}</span
                >
              </td>
            </tr>
            <tr v-if="open.has(m.memberId)" class="said">
              <td :colspan="criteria.length + 4 + Number(showSelf)">
                <div v-for="a in given(m.memberId)" :key="a.id">
                  <p class="by">
                    <b>{{ a.reviewerId === m.memberId ? 'Of themselves' : nameOf(a.reviewerId) }}</b><span
                      v-if="a.reviewerId !== m.memberId"
                      class="muted"
                    >
                      · hidden from {{ nameOf(m.memberId).split(' ')[0] }}</span
                    >
                    ·
                    {{
                      criteria
                        .map(c => (a.points[c.id] === undefined ? '–' : points(a.points[c.id]!)))
                        .join(' ')
                    }}
                  </p>
                  <p
                    v-for="(t, k) in [...Object.values(a.remarks), ...Object.values(a.answers)].filter(
                      Boolean,
                    )"
                    :key="k"
                    class="text"
                  >
                    {{ t }}
                  </p>
                  <p v-if="a.private" class="private"><b>To you alone:</b> {{ a.private }}</p>
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
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
  gap: 20px;
  align-content: start;
}
.lead {
  display: flex;
  flex-wrap: wrap;
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
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.84375rem;
  min-width: 700px;
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
  width: 190px;
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
.said td {
  padding: 4px 10px 12px 26px;
}
.said div {
  margin-top: 7px;
}
.by {
  font-size: 0.78125rem;
}
.text {
  font: 400 0.9375rem/1.5 var(--read);
}
.private {
  font-size: 0.8125rem;
  color: var(--ink-2);
  border-left: 3px solid var(--ember);
  padding-left: 8px;
}
</style>
