<script setup lang="ts">
import type { Grip } from '#core/planning/moveSchedule'
import type { PlanActivity } from '#shared/planning/plan'
import { percent, spanOf } from '~/composables/planning/planGeometry'
import { STANDING_WORDS } from '~/composables/planning/standingWords'
import { useTimes } from '~/composables/planning/useTimes'
import FillMark from '../marking/FillMark.vue'
import KindTag from './KindTag.vue'
import PlanBar from './PlanBar.vue'

/** One activity on the plan: its bar, its name beside it, and how far it is. A component of its own, so that moving one draws one. */
const props = defineProps<{
  activity: PlanActivity
  term: { startsAt: string; endsAt: string }
  weeks: number
  now: string
  address: string | null
  movable: boolean
  held: boolean
  target: boolean // another one is carried over it
}>()
const emit = defineEmits<{
  hold: [grip: Grip, days: number]
  drop: []
  cancel: []
  order: [by: number]
  carry: [on: boolean]
  over: []
  put: []
}>()
const { day, date } = useTimes()
const span = computed(() =>
  spanOf(
    props.activity.phases[0]!.startsAt,
    (props.activity.phases.filter(p => p.name !== 'return').at(-1) ?? props.activity.phases[0]!).endsAt,
    props.term,
  ),
)
const flipped = computed(() => span.value.from < 0.3)
const after = computed((): { strong: string; rest: string } => {
  const a = props.activity
  if (a.counts && a.state === 'published') {
    const { ready, held, returned, underWay } = a.counts
    if (!a.planning?.byRubric) {
      const n = ready + held + returned + underWay
      return { strong: '', rest: n > 0 ? `${n} ${n === 1 ? 'has' : 'have'} written` : 'nobody has written' }
    }
    const rest = [
      held && `${held} held`,
      returned && `${returned} returned`,
      underWay && `${underWay} under way`,
    ]
      .filter(Boolean)
      .join(' · ')
    return {
      strong: ready > 0 ? `${ready} ready to mark` : '',
      rest: ready > 0 && rest ? ` · ${rest}` : rest,
    }
  }
  if (a.state === 'draft')
    return {
      strong: '',
      rest: `would open ${date(a.opensAt)}${a.planning && !a.planning.hasStarter ? ' · no starter yet' : ''}`,
    }
  if (a.opensAt > props.now) return { strong: '', rest: `opens ${day(a.opensAt)}` }
  return { strong: '', rest: a.standing ? STANDING_WORDS[a.standing] : '' }
})
</script>

<template>
  <li :class="{ flipped, target }" @dragover.prevent.stop="emit('over')" @drop.prevent.stop="emit('put')">
    <PlanBar
      :activity="activity"
      :term="term"
      :weeks="weeks"
      :movable="movable && !activity.planning?.locked"
      :held="held"
      @hold="(grip, days) => emit('hold', grip, days)"
      @drop="emit('drop')"
      @cancel="emit('cancel')"
      @order="emit('order', $event)"
    />
    <p
      class="name"
      :draggable="movable && !activity.guest"
      :title="movable && !activity.guest ? 'Drag to another place or unit' : undefined"
      :style="flipped ? { left: percent(span.to) } : { right: percent(1 - span.from) }"
      @dragstart="emit('carry', true)"
      @dragend="emit('carry', false)"
    >
      <span class="tags"
        ><em v-if="activity.state !== 'published'">{{ activity.state }}</em
        ><em v-if="activity.guest" title="Planned in another seminar; yours takes part">joint</em
        ><KindTag :kind="activity.kind"
      /></span>
      <NuxtLink v-if="address" :to="address" draggable="false">{{ activity.title }}</NuxtLink>
      <span v-else class="plain">{{ activity.title }}</span>
      <span v-if="flipped" class="beside"
        ><FillMark v-if="activity.standing" :standing="activity.standing" :named="false" /><b>{{
          after.strong
        }}</b
        >{{ after.rest }}</span
      >
    </p>
    <p
      v-if="!flipped"
      class="after"
      :class="{ under: span.to > 0.86 }"
      :style="span.to > 0.86 ? {} : { left: percent(span.to) }"
    >
      <FillMark v-if="activity.standing" :standing="activity.standing" :named="false" /><b>{{
        after.strong
      }}</b
      >{{ after.rest }}
    </p>
  </li>
</template>

<style scoped>
li.target {
  box-shadow: 0 -2px 0 var(--ember);
}
li {
  position: relative;
  height: 37px;
}
.name {
  position: absolute;
  top: 1px;
  text-align: right;
  padding: 0 9px;
  white-space: nowrap;
  font: 600 0.8125rem/1.2 var(--ui);
  z-index: 3;
}
.flipped .name {
  text-align: left;
}
.name a {
  color: var(--ink);
  text-decoration-color: transparent;
}
.name a:hover {
  text-decoration-color: currentcolor;
}
.plain {
  color: var(--ink-2);
}
.tags {
  display: block;
  height: 16px;
  line-height: 14px;
}
.tags :deep(.kind) {
  font-size: 0.6875rem;
  padding: 0 0 0 6px;
}
.tags em {
  margin-right: 7px;
  font: 600 0.6875rem/12px var(--ui);
  font-style: normal;
  color: var(--ink-2);
  border: 1px dashed var(--ink-3);
  border-radius: 3px;
  padding: 0 4px;
  display: inline-block;
}
.after,
.beside {
  font: 500 0.75rem/1.2 var(--ui);
  color: var(--ink-2);
  white-space: nowrap;
}
.after {
  position: absolute;
  top: 11px;
  padding: 0 9px;
}
.after.under {
  right: 0;
  top: 28px;
  padding: 0;
}
.beside {
  margin-left: 10px;
}
.after b,
.beside b {
  color: var(--ember);
  font-weight: 650;
}
.after .fill,
.beside .fill {
  vertical-align: -2px;
  margin-right: 6px;
}
</style>
