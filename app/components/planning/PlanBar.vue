<script setup lang="ts">
import type { Grip } from '#core/planning/moveSchedule'
import type { PlanActivity } from '#shared/planning/plan'
import { daysFor, DRAWN, percent, spanOf } from '~/composables/planning/planGeometry'
import { useTimes } from '~/composables/planning/useTimes'

/** An activity's bar: phases on their days. Who plans can drag the whole of it or the end of a phase, or move them with the arrow keys. */
const props = defineProps<{
  activity: PlanActivity
  term: { startsAt: string; endsAt: string }
  weeks: number
  movable: boolean
  reached: boolean // by the tabulator
  held: boolean
}>()
const emit = defineEmits<{ hold: [grip: Grip, days: number]; drop: []; cancel: []; order: [by: number] }>()
const { dayTime } = useTimes()
const bar = ref<HTMLElement | null>(null)
const drawn = computed(() =>
  props.activity.phases
    .filter(p => DRAWN.includes(p.name))
    .map(p => ({ ...p, ...spanOf(p.startsAt, p.endsAt, props.term) })),
)
const from = computed(() => drawn.value[0]?.from ?? 0)
const to = computed(() => drawn.value.at(-1)?.to ?? 0)
const sentence = computed(() => drawn.value.map(p => `${p.name} until ${dayTime(p.endsAt)}`).join(', '))
const tabStop = computed(() => (props.reached ? 0 : -1))
const share = (at: number) => (to.value > from.value ? (at - from.value) / (to.value - from.value) : 0)
let keyDays = 0
let keyGrip: Grip | null = null
let waiting: ReturnType<typeof setTimeout> | undefined

function take(event: PointerEvent, grip: Grip) {
  // a finger scrolls the page; it moves nothing by the way
  if (!props.movable || event.button !== 0 || event.pointerType === 'touch') return
  event.preventDefault()
  event.stopPropagation()
  const target = event.currentTarget as HTMLElement
  const width = bar.value!.parentElement!.clientWidth
  const startX = event.clientX
  target.setPointerCapture(event.pointerId)
  const move = (e: PointerEvent) => emit('hold', grip, daysFor(e.clientX - startX, width, props.weeks))
  const end = (e: PointerEvent) => {
    target.removeEventListener('pointermove', move)
    target.removeEventListener('pointerup', end)
    target.removeEventListener('pointercancel', end)
    if (e.type === 'pointercancel') emit('cancel')
    else emit('drop')
  }
  target.addEventListener('pointermove', move)
  target.addEventListener('pointerup', end)
  target.addEventListener('pointercancel', end)
}
/** Arrow keys move by a day, with Shift by a week; what was moved is dropped when one pauses. */
function onKey(event: KeyboardEvent, grip: Grip) {
  if (!props.movable) return
  if (event.key === 'Escape') {
    keyDays = 0
    clearTimeout(waiting)
    emit('cancel')
    return
  }
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    emit('order', event.key === 'ArrowUp' ? -1 : 1)
    return
  }
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  event.stopPropagation()
  if (!keyGrip || JSON.stringify(keyGrip) !== JSON.stringify(grip)) {
    keyGrip = grip
    keyDays = 0
  }
  keyDays += by * (event.shiftKey ? 7 : 1)
  emit('hold', grip, keyDays)
  clearTimeout(waiting)
  waiting = setTimeout(() => {
    keyDays = 0
    keyGrip = null
    emit('drop')
  }, 900)
}
onBeforeUnmount(() => clearTimeout(waiting))
</script>

<template>
  <div
    ref="bar"
    class="bar"
    :class="{ draft: activity.state === 'draft', movable, held }"
    :role="movable ? 'group' : 'img'"
    :tabindex="movable ? tabStop : undefined"
    :aria-label="`${activity.title}: ${sentence}${movable ? '. Arrow keys move it by a day' : ''}`"
    :style="{ left: percent(from), width: percent(to - from), '--c': `var(--k-${activity.kind})` }"
    @pointerdown="take($event, { kind: 'whole' })"
    @keydown.self="onKey($event, { kind: 'whole' })"
  >
    <i
      v-for="phase in drawn"
      :key="phase.name"
      :class="phase.name"
      :style="{ flex: `${(phase.to - phase.from) * 1000} 0 0` }"
      :title="`${phase.name} until ${dayTime(phase.endsAt)}`"
    />
    <template v-if="movable">
      <button
        v-for="phase in drawn"
        :key="phase.name"
        type="button"
        class="edge"
        :tabindex="tabStop"
        :style="{ left: percent(share(phase.to)) }"
        :aria-label="`End of ${phase.name}, ${dayTime(phase.endsAt)}`"
        @pointerdown="take($event, { kind: 'end', phase: phase.name })"
        @keydown="onKey($event, { kind: 'end', phase: phase.name })"
      />
    </template>
    <span v-if="held" class="now num">{{ sentence }}</span>
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  top: 5px;
  display: flex;
  height: 17px;
  border-radius: 4px;
  background: var(--sheet);
}
.movable {
  cursor: grab;
}
.held {
  cursor: grabbing;
  z-index: 6;
  box-shadow:
    0 0 0 2px var(--paper),
    0 0 0 4px var(--ember);
}
i {
  min-width: 0;
}
i:first-of-type {
  border-radius: 4px 0 0 4px;
}
.write,
.revise {
  background: var(--c);
}
.revise {
  box-shadow: inset 2px 0 0 var(--sheet);
  opacity: 0.82;
}
.respond {
  background: repeating-linear-gradient(135deg, var(--c) 0 1.7px, transparent 1.7px 5.4px) var(--sheet);
  box-shadow: inset 0 0 0 1px var(--c);
}
.review {
  background: radial-gradient(circle at 3px 3px, var(--c) 1.35px, transparent 1.6px) 0 0/6px 6px var(--sheet);
  box-shadow: inset 0 0 0 1px var(--c);
}
.mark {
  box-shadow: inset 0 0 0 1.5px var(--c);
  border-radius: 0 4px 4px 0;
  margin-left: -1px;
}
.draft {
  border: 1.5px dashed var(--c);
  padding: 2px;
  height: 21px;
  top: 3px;
  border-radius: 6px;
  background: var(--paper);
}
.edge {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 24px;
  margin-left: -19px;
  padding: 0;
  border: 0;
  background: transparent;
  cursor: ew-resize;
  z-index: 4;
}
.edge::after {
  content: '';
  position: absolute;
  left: 17px;
  top: 4px;
  bottom: 4px;
  width: 3px;
  border-radius: 2px;
  background: var(--ember);
  opacity: 0;
}
.bar:hover .edge::after {
  opacity: 0.55;
}
.edge:hover::after,
.edge:focus-visible::after {
  opacity: 1;
}
.now {
  position: absolute;
  left: 0;
  bottom: calc(100% + 5px);
  background: var(--harbour-deep);
  color: var(--paper);
  font: 500 0.75rem/1.3 var(--ui);
  padding: 3px 8px;
  border-radius: 4px;
  white-space: nowrap;
  pointer-events: none;
}
@media (forced-colors: active) {
  .bar {
    forced-color-adjust: none;
  }
}
</style>
