<script setup lang="ts">
import type { ActivityView, CheckView } from '#shared/contributing/activity'
import { haveWords, ringParts, ruleWords, toGoWords } from '#core/planning/expectationWords'
import { capital } from '#core/language'
import ExpectationRing from '~/components/planning/ExpectationRing.vue'

/** What is asked of the reader, in one line, and the least that would complete it. */
defineProps<{ activity: ActivityView; checks: readonly CheckView[] }>()
</script>

<template>
  <div class="asked">
    <template v-if="checks.length > 0">
      <ExpectationRing :parts="ringParts(checks)" :size="22" />
      <span v-for="(check, i) in checks" :key="check.expectationId" data-check :class="{ met: check.met }"
        >{{ ruleWords(activity.expectations[i]!.rule, activity.kind) }}:
        <b class="num">{{ haveWords(activity.expectations[i]!.rule, check) }}</b></span
      >
      <em>{{ capital(toGoWords(activity.expectations, checks, activity.kind)) }}.</em>
    </template>
    <slot />
  </div>
</template>

<style scoped>
.asked {
  display: flex;
  align-items: center;
  gap: 4px 18px;
  flex-wrap: wrap;
  padding: 5px 20px;
  font-size: 0.8125rem;
  color: var(--ink-2);
  min-height: 36px;
}
.asked b {
  font-weight: 650;
  color: var(--ink);
}
.met b::after {
  content: ' ✓';
  color: var(--moss);
}
.asked em {
  font: italic 400 0.875rem/1.3 var(--read);
  margin-left: auto;
}
@media (max-width: 760px) {
  .asked em {
    margin-left: 0;
  }
  .asked {
    padding: 5px 14px;
  }
}
</style>
