<script setup lang="ts">
import type { GroupPerson, GroupPlanView } from '#shared/people/groups'
import { plural } from '#core/language'
import TextButton from '~/components/controls/TextButton.vue'

/** A student's groups: those they are in, and those they may choose. */
const props = defineProps<{ plans: readonly GroupPlanView[]; people: readonly GroupPerson[]; me: string }>()
const emit = defineEmits<{ choose: [planId: string, groupId: string | null] }>()
const nameOf = (id: string) => (id === props.me ? 'you' : (props.people.find(p => p.id === id)?.name ?? ''))
const mine = (plan: GroupPlanView) => plan.groups.find(g => g.memberIds.includes(props.me)) ?? null
const full = (plan: GroupPlanView, n: number) => plan.most !== null && n >= plan.most
function joinVerb(plan: GroupPlanView, g: GroupPlanView['groups'][number]) {
  if (full(plan, g.memberIds.length)) return 'full'
  if (plan.most)
    return `Join (${plan.most - g.memberIds.length} ${plural(plan.most - g.memberIds.length, 'place')} left)`
  return 'Join'
}
</script>

<template>
  <div class="own">
    <p v-if="plans.length === 0" class="invite">
      There are no groups in this seminar yet. When the instructor makes some, yours appears here.
    </p>
    <section v-for="plan in plans" :key="plan.id">
      <h2>{{ plan.title }}</h2>
      <p v-if="!plan.selfJoin && mine(plan)" class="in-group">
        <b>{{ mine(plan)!.title }}</b> with
        {{
          mine(plan)!
            .memberIds.filter(id => id !== me)
            .map(nameOf)
            .join(', ') || 'nobody else yet'
        }}
      </p>
      <p v-else-if="!plan.selfJoin" class="hint">You are in no group of this plan.</p>
      <ul v-else>
        <li v-for="g in plan.groups" :key="g.id" :class="{ mine: mine(plan)?.id === g.id }">
          <b>{{ g.title }}</b><span>{{ g.memberIds.map(nameOf).join(', ') || 'nobody yet' }}</span>
          <TextButton v-if="mine(plan)?.id === g.id" @click="emit('choose', plan.id, null)">
            Leave
          </TextButton>
          <TextButton
            v-else
            :disabled="full(plan, g.memberIds.length)"
            @click="emit('choose', plan.id, g.id)"
          >
            {{ joinVerb(plan, g) }}
          </TextButton>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.own {
  padding: 14px 20px 30px;
  max-width: 820px;
  display: grid;
  gap: 24px;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
  margin-bottom: 6px;
}
ul {
  list-style: none;
  border-top: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 12rem 1fr auto;
  gap: 14px;
  padding: 9px 4px;
  border-bottom: 1px solid var(--line-soft);
  align-items: baseline;
}
li.mine {
  background: var(--harbour-soft);
}
li span {
  color: var(--ink-2);
}
.link:disabled {
  color: var(--ink-3);
  text-decoration: none;
  cursor: default;
}
.in-group {
  font: 400 1rem/1.5 var(--read);
}
@media (max-width: 600px) {
  li {
    grid-template-columns: 1fr auto;
  }
  li span {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
