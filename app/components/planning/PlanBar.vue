<script setup lang="ts">
import type { PlanActivity } from '#shared/planning/plan'
import { DRAWN, percent, spanOf } from '../../composables/planGeometry'
import { useTimes } from '../../composables/useTimes'

const props = defineProps<{ activity: PlanActivity, term: { startsAt: string, endsAt: string } }>()
const { dayTime } = useTimes()
const drawn = computed(() => props.activity.phases.filter(p => DRAWN.includes(p.name)).map(p => ({ ...p, ...spanOf(p.startsAt, p.endsAt, props.term) })))
const from = computed(() => drawn.value[0]?.from ?? 0)
const to = computed(() => drawn.value.at(-1)?.to ?? 0)
const sentence = computed(() => drawn.value.map(p => `${p.name} until ${dayTime(p.endsAt)}`).join(', '))
</script>

<template>
  <div class="bar" :class="{ draft: activity.state === 'draft' }" role="img" :aria-label="sentence" :style="{ left: percent(from), width: percent(to - from), '--c': `var(--k-${activity.kind})` }">
    <i v-for="phase in drawn" :key="phase.name" :class="phase.name" :style="{ flex: `${(phase.to - phase.from) * 1000} 0 0` }" :title="`${phase.name} until ${dayTime(phase.endsAt)}`">
      <template v-if="phase.name === 'write' && phase.to - phase.from > 0.1">write, to {{ dayTime(phase.endsAt).split(',')[0] }}</template>
    </i>
  </div>
</template>

<style scoped>
.bar { position: absolute; top: 9px; display: flex; height: 18px; border-radius: 4px; overflow: hidden; background: var(--sheet); }
i { font: 600 0.6875rem/18px var(--ui); white-space: nowrap; overflow: hidden; min-width: 0; }
.write, .revise { background: var(--c); color: var(--paper); padding-left: 7px; }
.respond { background: repeating-linear-gradient(135deg, var(--c) 0 1.7px, transparent 1.7px 5.4px) var(--sheet); box-shadow: inset 0 0 0 1px var(--c); }
.review { background: radial-gradient(circle at 3px 3px, var(--c) 1.35px, transparent 1.6px) 0 0/6px 6px var(--sheet); box-shadow: inset 0 0 0 1px var(--c); }
.mark { box-shadow: inset 0 0 0 1.5px var(--c); border-radius: 0 4px 4px 0; margin-left: -1px; }
.draft { border: 1.5px dashed var(--c); padding: 2px; height: 22px; top: 7px; border-radius: 6px; background: var(--paper); }
.draft i { height: 15px; line-height: 15px; }
</style>
