<script setup lang="ts">
import type { ActivityKind } from '#core/contributing/kinds/kind'
import { KIND_WORDS } from '~/composables/planning/kindWords'

defineProps<{ kind: ActivityKind }>()
</script>

<template>
  <span class="kind" :style="{ '--kind': `var(--k-${kind})` }">{{ KIND_WORDS[kind] }}</span>
</template>

<style scoped>
.kind {
  font: 600 0.75rem/1 var(--ui);
  color: var(--kind);
  border-left: 4px solid var(--kind);
  padding: 2px 0 2px 7px;
  white-space: nowrap;
}
</style>
