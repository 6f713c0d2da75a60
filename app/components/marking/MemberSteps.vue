<script setup lang="ts">
import type { RubricView } from '#shared/contributing/activity'
import type { RecordView, Step } from '#shared/marking/desk'
import { points } from '~/composables/marking/points'
import { vRoving } from '~/components/controls/vRoving'
import PlainButton from '~/components/controls/PlainButton.vue'

/** The steps of the group's criteria and of one member's own, set beside the evidence; the letter is written on the desk. */
const props = defineProps<{ rubric: RubricView; record: RecordView; called: string }>()
const emit = defineEmits<{ step: [criterionId: string, levelId: string | null] }>()
const isGroup = (c: RubricView['criteria'][number]) =>
  c.scope === 'group' || props.record.group?.whole === true
const parts = computed(() =>
  [
    { title: 'Group', criteria: props.rubric.criteria.filter(isGroup) },
    { title: props.called, criteria: props.rubric.criteria.filter(c => !isGroup(c)) },
  ].filter(p => p.criteria.length > 0),
)
const worth = (list: RubricView['criteria']) => list.reduce((sum, c) => sum + c.weight * c.max, 0)
const percent = computed(() => {
  const all = worth(props.rubric.criteria)
  const group = worth(props.rubric.criteria.filter(isGroup))
  return all > 0 ? Math.round((group / all) * 100) : 0
})
const stepOf = (id: string): Step | null => props.record.mark.steps.find(s => s.criterionId === id) ?? null
const hint = (id: string) =>
  stepOf(id) ? null : (props.record.suggested.find(s => s.criterionId === id) ?? null)
</script>

<template>
  <section class="steps" aria-label="Marks">
    <h2>Group criteria {{ percent }} % · own criteria {{ 100 - percent }} %</h2>
    <p class="split" aria-hidden="true"><i :style="{ width: `${percent}%` }" /></p>
    <div v-for="p in parts" :key="p.title" class="part">
      <h3>{{ p.title }}</h3>
      <div v-for="c in p.criteria" :key="c.id" class="crit">
        <span class="name">{{ c.title }}</span>
        <span v-roving class="rungs" role="radiogroup" :aria-label="`${p.title}: ${c.title}`"
          ><PlainButton
            v-for="level in [...c.levels].sort((x, y) => x.points - y.points)"
            :key="level.id"
            role="radio"
            :title="`${level.title}, ${points(level.points)}: ${level.descriptor}`"
            :aria-checked="stepOf(c.id)?.levelId === level.id"
            :aria-label="`${level.title}, ${points(level.points)} points`"
            :class="{
              at: stepOf(c.id)?.levelId === level.id,
              below: stepOf(c.id) && level.points < stepOf(c.id)!.points,
              hint: hint(c.id)?.levelId === level.id,
            }"
            @click="emit('step', c.id, stepOf(c.id)?.levelId === level.id ? null : level.id)"
        /></span>
        <b class="num">{{ stepOf(c.id) ? points(stepOf(c.id)!.points) : '—' }} / {{ points(c.max) }}</b>
      </div>
    </div>
    <p v-if="record.suggested.length > 0" class="hint">Outlined: suggested from the record.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
}
.split {
  height: 5px;
  border-radius: 2px;
  background: var(--harbour);
  margin: 5px 0 8px;
  display: block;
  overflow: hidden;
}
.split i {
  display: block;
  height: 100%;
  background: color-mix(in srgb, var(--harbour) 45%, var(--sheet));
  border-right: 2px solid var(--paper);
}
.part {
  padding: 2px 0 5px;
}
.part + .part {
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
.part h3 {
  font: 650 0.8125rem/20px var(--ui);
  letter-spacing: 0;
}
.crit {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 3.6rem;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
  line-height: 20px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.crit b {
  text-align: right;
  font-weight: 600;
}
.rungs {
  display: inline-flex;
  gap: 2px;
}
.rungs button {
  width: 24px;
  height: 24px;
  border: solid transparent;
  border-width: 6px 1px;
  border-radius: 7px;
  background: var(--sunken) content-box;
  cursor: pointer;
  padding: 0;
}
.rungs button:hover {
  outline: 1.5px solid var(--ink-3);
}
.rungs .below {
  background: var(--step-below);
}
.rungs .at {
  background: var(--harbour);
}
.rungs .hint {
  background: transparent;
  box-shadow: inset 0 0 0 2px var(--harbour);
}
</style>
