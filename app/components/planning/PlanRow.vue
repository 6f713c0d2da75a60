<script setup lang="ts">
import type { Grip } from '#core/planning/moveSchedule'
import type { PlanActivity } from '#shared/planning/plan'
import { deskOf } from '~/composables/marking/deskOf'
import { percent, spanOf } from '~/composables/planning/planGeometry'
import { lineWidth, placeLabels } from '~/composables/planning/planLabels'
import { noteOf } from '~/composables/planning/planNotes'
import { useTimes } from '~/composables/planning/useTimes'
import { KIND_WORDS } from '~/kinds/words'
import PlanBar from './PlanBar.vue'
import PlanNote from './PlanNote.vue'

/** One activity on the plan: its bar, its name and how far it is, in one line. A component of its own, so that moving one draws one. */
const props = defineProps<{
  activity: PlanActivity
  term: { startsAt: string; endsAt: string }
  weeks: number
  width: number // of the chart, in pixels
  now: string
  address: string | null
  base: string // of the seminar's pages
  movable: boolean
  /** Whether the tabulator comes to this bar: of all that can be moved, to one. */
  reached: boolean
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
const span = computed(() => {
  const { phases } = props.activity
  const last = phases.filter(p => p.name !== 'return').at(-1) ?? phases[0]!
  return spanOf(phases[0]!.startsAt, last.endsAt, props.term)
})
const note = computed(() => noteOf(props.activity, props.now, { day, date }))
const kindWord = computed(() => KIND_WORDS[props.activity.kind].name.toLowerCase())
const tags = computed(() => [
  ...(props.activity.state === 'published' ? [] : [props.activity.state]),
  ...(props.activity.guest ? ['joint'] : []),
])
const TAG_SPACE = 18
const MARK = 20
const SPINE = 14
/** Where the first phase ends, if it is drawn in one colour. */
const solidTo = computed(() => {
  const first = props.activity.phases[0]!
  return first.name === 'write' ? spanOf(first.startsAt, first.endsAt, props.term).to : span.value.from
})
const places = computed(() => {
  const { strong, rest } = note.value
  const mark = props.activity.standing ? MARK : 0
  const tagsWide = tags.value.reduce((sum, tag) => sum + lineWidth(tag, 11) + TAG_SPACE, 0)
  const px = (share: number) => share * props.width
  return placeLabels(
    {
      left: px(span.value.from),
      right: px(span.value.to),
      solidRight: px(solidTo.value),
      width: props.width,
      today: px(spanOf(props.now, props.now, props.term).from),
    },
    lineWidth(props.activity.title, 13) + tagsWide + SPINE,
    [lineWidth(`${kindWord.value} · ${strong}${rest}`, 12), lineWidth(`${strong}${rest}`, 12)].map(
      w => w + mark,
    ),
  )
})
const solidWidth = computed(() => solidTo.value * props.width - places.value.nameLeft - 7)
const nameStyle = computed(() => {
  const { name, nameLeft, nameWidth } = places.value
  const most = nameWidth === null ? undefined : `${nameWidth}px`
  if (name === 'before') return { right: percent(1 - span.value.from), maxWidth: most }
  if (name === 'behind') return { left: percent(span.value.to), maxWidth: most }
  return {
    left: `${nameLeft}px`,
    maxWidth: most,
    width: name === 'inside' ? `${solidWidth.value}px` : undefined,
  }
})
const withName = computed(() => places.value.note === places.value.name)
const noteStyle = computed(() =>
  places.value.note === 'before' ? { right: percent(1 - span.value.from) } : { left: percent(span.value.to) },
)
const deskLink = computed(() => {
  const { activity, base } = props
  if (!activity.planning?.byRubric || !note.value.strong) return null
  const to = `${base}/activities/${activity.id}/${deskOf(activity.kind).path}`
  return { to, name: `${note.value.strong} in ${activity.title}` }
})
const said = computed(() => ({
  note: note.value,
  kind: places.value.noteIndex === 0 ? kindWord.value : null,
  standing: props.activity.standing,
  desk: deskLink.value,
}))
const hint = computed(() =>
  [kindWord.value, `${note.value.strong}${note.value.rest}`].filter(Boolean).join(' · '),
)
</script>

<template>
  <li
    :class="{ target }"
    :data-kind="activity.kind"
    :style="{ '--k': `var(--k-${activity.kind})` }"
    @dragover.prevent.stop="emit('over')"
    @drop.prevent.stop="emit('put')"
  >
    <PlanBar
      :activity="activity"
      :term="term"
      :weeks="weeks"
      :movable="movable && !activity.planning?.locked"
      :reached="reached"
      :held="held"
      @hold="(grip, days) => emit('hold', grip, days)"
      @drop="emit('drop')"
      @cancel="emit('cancel')"
      @order="emit('order', $event)"
    />
    <p
      class="name"
      :class="places.name"
      :draggable="movable && !activity.guest"
      :title="hint"
      :style="nameStyle"
      @dragstart="emit('carry', true)"
      @dragend="emit('carry', false)"
    >
      <PlanNote v-if="withName && places.note === 'before'" v-bind="said" />
      <em v-for="tag in tags" :key="tag">{{ tag }}</em>
      <NuxtLink v-if="address" :to="address" draggable="false" dir="auto">{{ activity.title }}</NuxtLink>
      <span v-else class="plain" dir="auto">{{ activity.title }}</span>
      <PlanNote v-if="withName && places.note === 'behind'" v-bind="said" />
    </p>
    <p
      v-if="!withName"
      class="alone"
      :class="{ 'visually-hidden': places.note === 'none' }"
      :style="noteStyle"
    >
      <PlanNote v-bind="said" />
    </p>
  </li>
</template>

<style scoped>
li.target {
  box-shadow: 0 -2px 0 var(--ember);
}
li {
  position: relative;
  height: 27px;
}
.name,
.alone {
  position: absolute;
  top: 2px;
  height: 24px;
  line-height: 24px;
  padding: 0 9px;
  white-space: nowrap;
  z-index: 3;
}
.name {
  display: flex;
  align-items: center;
  gap: 8px;
  font: 600 0.8125rem/24px var(--ui);
}
.name a,
.plain {
  color: var(--ink);
  line-height: 24px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.name a {
  text-decoration-color: transparent;
}
.name a:hover {
  text-decoration-color: currentcolor;
}
.plain {
  color: var(--ink-2);
}
/* the kind's spine stands between a name and its bar */
.before::after {
  content: '';
  flex: none;
  width: 4px;
  height: 15px;
  background: var(--k);
}
.inside {
  padding: 0;
  pointer-events: none;
}
/* its name stays in view while the bar is wider than the window */
.inside a,
.inside .plain {
  position: sticky;
  left: 8px;
  pointer-events: auto;
}
.inside a,
.inside .plain {
  color: var(--paper);
}
.over {
  background: var(--sheet);
  height: 16px;
  top: 6px;
  padding: 0 6px;
  border-radius: 3px;
}
em {
  font: 600 0.6875rem/14px var(--ui);
  font-style: normal;
  color: var(--ink-2);
  border: 1px dashed var(--ink-3);
  border-radius: 3px;
  padding: 0 4px;
  background: var(--paper);
}
.inside em {
  color: var(--paper);
  border-color: currentcolor;
  background: none;
}
/* words stand on the paper, the line of today passes behind them */
.name.before a,
.name.before .plain,
.name.behind a,
.name.behind .plain,
.name :deep(.note),
.alone :deep(.note) {
  background: color-mix(in srgb, var(--paper) 86%, transparent);
}
</style>
