<script setup lang="ts">
import { inWords, plural } from '#core/language'
import { unkeptRules } from '#core/people/watchRules'
import { unkeptWords } from '~/composables/people/groupWords'
import type { GroupPerson, GroupPlanView } from '#shared/people/groups'
import RuleSets from './RuleSets.vue'

/** Who is to be kept together and who apart in a plan: seen, changed, and held against its groups as they stand. */
type Rules = Pick<GroupPlanView['rules'], 'together' | 'apart'>
const props = defineProps<{ plan: GroupPlanView; people: readonly GroupPerson[] }>()
const emit = defineEmits<{ change: [rules: Rules] }>()
const unkept = computed(() =>
  unkeptRules(
    props.plan.groups.map(g => g.memberIds),
    props.plan.rules,
  ),
)
const nameOf = (id: string) => props.people.find(p => p.id === id)?.name ?? 'somebody who left'
const head = computed(() => {
  const n = props.plan.rules.together.length + props.plan.rules.apart.length
  if (n === 0) return 'Keep people together or apart'
  if (unkept.value.length === 0) return `${inWords(n)} ${plural(n, 'rule')}, all kept`
  return `${inWords(n)} ${plural(n, 'rule')}, ${inWords(new Set(unkept.value.map(u => u.kind + String(u.index))).size)} not kept`
})
const change = (some: Partial<Rules>) =>
  emit('change', { together: props.plan.rules.together, apart: props.plan.rules.apart, ...some })
</script>

<template>
  <div class="watch">
    <details>
      <summary>{{ head }}</summary>
      <div class="sets">
        <RuleSets
          :model-value="plan.rules.together"
          title="Keep together"
          :people="people"
          @update:model-value="change({ together: $event })"
        />
        <RuleSets
          :model-value="plan.rules.apart"
          title="Keep apart"
          :people="people"
          @update:model-value="change({ apart: $event })"
        />
      </div>
    </details>
    <ul v-if="unkept.length > 0" class="unkept" role="status">
      <li v-for="(rule, i) in unkept" :key="i">{{ unkeptWords(rule, nameOf) }}</li>
    </ul>
  </div>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--ink-2);
  width: max-content;
}
summary::first-letter {
  text-transform: uppercase;
}
.sets {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 20px;
  max-width: 760px;
  padding: 10px 0 6px;
}
.unkept {
  list-style: none;
  padding: 4px 0 0;
  color: var(--brick);
}
</style>
