<script setup lang="ts">
import type { Standing } from '#core/standing/standing'
import { STANDING_WORDS } from '~/composables/planning/standingWords'

withDefaults(
  defineProps<{
    standing: Standing
    /** Whether the word is read out; leave it off where the word stands beside it. */
    named?: boolean
  }>(),
  { named: true },
)
</script>

<template>
  <i
    class="fill"
    :class="standing"
    :role="named ? 'img' : undefined"
    :aria-label="named ? STANDING_WORDS[standing] : undefined"
    :aria-hidden="!named"
  />
</template>

<style scoped>
/* shape as well as tone: empty ring, half full, full, full with a square, ring with a tick */
.fill {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 1.5px solid var(--ink-3);
  display: inline-block;
  position: relative;
  overflow: hidden;
  flex: none;
  background: var(--sheet);
}
.fill::before {
  content: '';
  position: absolute;
  inset: auto 0 0;
  height: 0;
  background: var(--ink-3);
}
.underWay::before {
  height: 45%;
}
.ready {
  border-color: var(--ember);
}
.ready::before {
  height: 100%;
  background: var(--ember);
}
.held {
  border-color: var(--harbour);
}
.held::before {
  height: 100%;
  background: var(--harbour);
}
.held::after {
  content: '';
  position: absolute;
  left: 3.2px;
  top: 3.2px;
  width: 4.6px;
  height: 4.6px;
  background: var(--sheet);
  border-radius: 1px;
}
.returned {
  border-color: var(--moss);
}
.returned::after {
  content: '';
  position: absolute;
  left: 3.8px;
  top: 1.2px;
  width: 3px;
  height: 6px;
  border: solid var(--moss);
  border-width: 0 1.8px 1.8px 0;
  transform: rotate(40deg);
}
@media (forced-colors: active) {
  .fill {
    forced-color-adjust: none;
  }
}
</style>
