<script setup lang="ts">
import type { RemarkWords } from '~/composables/planning/planRemarks'
import TextButton from '~/components/controls/TextButton.vue'

/** What is to be looked at in a plan, each with its remedy, and what is fine. */
defineProps<{
  title: string
  remarks: readonly RemarkWords[]
  fine: readonly string[]
  disabled: boolean
}>()
const emit = defineEmits<{ remedy: [change: NonNullable<RemarkWords['remedy']>['change']] }>()
</script>

<template>
  <h2>
    {{ title }}
    <span
      >{{ remarks.length > 0 ? `${remarks.length} to look at` : 'nothing to look at' }},
      {{ fine.length }} fine</span
    >
  </h2>
  <ul class="checks">
    <li v-for="r in remarks" :key="r.text" :class="r.level">
      <b>{{ r.level }}</b>
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
.missing b {
  color: var(--brick);
}
.consider b {
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
