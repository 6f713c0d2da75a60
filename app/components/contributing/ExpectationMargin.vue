<script setup lang="ts">
import type { ActivityView, CheckView } from '#shared/contributing/activity'
import { haveWords, ruleWords } from '#core/planning/expectationWords'
import ExpectationRing from '../planning/ExpectationRing.vue'

/** The reader's own expectations, checked as they write. */
defineProps<{ activity: ActivityView; checks: readonly CheckView[] }>()
</script>

<template>
  <section v-if="checks.length > 0">
    <h2>Your expectations <span>checked as you write</span></h2>
    <div v-for="(check, i) in checks" :key="check.expectationId" class="ex" data-check>
      <span v-if="check.met" class="ok" aria-label="met">✓</span
      ><ExpectationRing
        v-else
        :parts="Array.from({ length: check.need }, (_, n) => n < check.have)"
        :size="18"
      />
      <span>{{ ruleWords(activity.expectations[i]!.rule, activity.kind) }}</span><b class="num">{{
        haveWords(activity.expectations[i]!.rule, check)
      }}</b>
    </div>
    <slot />
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  letter-spacing: 0;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.ex {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 0 7px;
  align-items: center;
  font-size: 0.8125rem;
  line-height: 19px;
  margin-top: 7px;
}
.ex b {
  font-weight: 650;
}
.ok {
  color: var(--moss);
  font-weight: 700;
  text-align: center;
}
</style>
