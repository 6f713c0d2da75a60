<script setup lang="ts">
withDefaults(defineProps<{ initials: string; tone?: 'plain' | 'staff' | 'me' }>(), { tone: 'plain' })
</script>

<template>
  <span class="disc" :class="tone" aria-hidden="true">{{ initials }}</span>
</template>

<style scoped>
.disc {
  width: 30px;
  height: 30px;
  border-radius: 50%;
  background: var(--sunken);
  font: 600 0.71875rem/30px var(--ui);
  text-align: center;
  color: var(--ink-2);
  flex: none;
  display: inline-block;
}
.staff {
  background: var(--harbour-deep);
  color: var(--paper);
}
.me {
  background: var(--harbour);
  color: var(--on-harbour);
}
</style>
