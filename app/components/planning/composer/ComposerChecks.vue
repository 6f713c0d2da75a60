<script setup lang="ts">
import type { RemarkWords } from '~/composables/planning/planRemarks'
import TextButton from '~/components/controls/TextButton.vue'

/** What is to be looked at in a plan, each with its remedy, and what is fine. */
const props = defineProps<{
  title: string
  remarks: readonly RemarkWords[]
  fine: readonly string[]
  disabled: boolean
}>()
const emit = defineEmits<{ remedy: [change: NonNullable<RemarkWords['remedy']>['change']] }>()
const LABELS: Readonly<Record<RemarkWords['level'], string>> = { fault: 'to mend', advice: 'advice' }
const inOrder = computed(() =>
  [...props.remarks].sort((a, b) => Number(b.level === 'fault') - Number(a.level === 'fault')),
)
const counts = computed(() => {
  const faults = props.remarks.filter(r => r.level === 'fault').length
  const advice = props.remarks.length - faults
  const parts = [
    ...(faults > 0 ? [`${faults} to mend`] : []),
    ...(advice > 0 ? [`${advice} to think about`] : []),
  ]
  return parts.length > 0 ? parts.join(', ') : 'nothing to mend'
})
</script>

<template>
  <h2>
    {{ title }}
    <span>{{ counts }}</span>
  </h2>
  <ul class="checks">
    <li v-for="r in inOrder" :key="r.text" :class="r.level">
      <b>{{ LABELS[r.level] }}</b>
      <p>
        {{ r.text }}
        <TextButton v-if="r.remedy && !disabled" @click="emit('remedy', r.remedy.change)">
          {{ r.remedy.label }}
        </TextButton>
      </p>
    </li>
    <li v-for="line in fine" :key="line" class="fine">
      <b>fine</b>
      <p>{{ line }}</p>
    </li>
  </ul>
</template>

<style scoped>
h2 {
  font: 600 1rem/1.3 var(--read);
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin: 0 0 8px;
}
h2 span {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
}
.checks {
  list-style: none;
}
.checks li {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  padding: 6px 0;
  border-bottom: 1px solid var(--line-soft);
  font-size: 0.84375rem;
  line-height: 1.4;
}
.checks b {
  font-weight: 600;
}
.fault b {
  color: var(--brick);
}
.advice b {
  color: var(--ember);
}
.fine b {
  color: var(--moss);
}
.checks p {
  color: var(--ink-2);
}
.checks .link {
  font-weight: 600;
}
</style>
