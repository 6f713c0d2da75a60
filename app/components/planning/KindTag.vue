<script setup lang="ts">
import type { ActivityKind } from '#core/kinds/kind'
import { KIND_WORDS } from '~/kinds/words'

defineProps<{ kind: ActivityKind }>()
</script>

<template>
  <span class="kind" :style="{ '--kind': `var(--k-${kind})` }">{{ KIND_WORDS[kind].name }}</span>
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
