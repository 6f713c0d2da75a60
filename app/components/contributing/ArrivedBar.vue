<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** What has come while one reads: it lies over the foot of the page and never moves what is being read. */
defineProps<{ words: string }>()
const emit = defineEmits<{ read: []; later: [] }>()
</script>

<template>
  <p class="arrived" role="status">
    <TextButton @click="emit('read')">{{ words }} Read it</TextButton
    ><PlainButton class="x" aria-label="Close" @click="emit('later')">×</PlainButton>
  </p>
</template>

<style scoped>
.arrived {
  position: sticky;
  bottom: 14px;
  width: max-content;
  max-width: calc(100% - 28px);
  margin: 0 auto;
  padding: 7px 8px 7px 16px;
  border-radius: 18px;
  background: var(--ink);
  color: var(--paper);
  display: flex;
  gap: 8px;
  align-items: center;
  z-index: 6;
  font-size: 0.8125rem;
}
.arrived .link {
  color: inherit;
  text-decoration-color: currentcolor;
  font-weight: 600;
}
.x {
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
  font-size: 1rem;
  padding: 2px 8px;
}
</style>
