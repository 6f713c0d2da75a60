<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'

/** Whether students see their reviews already, or only once the instructor has looked. */
defineProps<{ releasedAt: string | null; later: string }>()
const emit = defineEmits<{ release: [released: boolean] }>()
</script>

<template>
  <b>Release to students</b
  ><span class="two"
    ><PlainButton
      :class="{ on: releasedAt === null }"
      :aria-pressed="releasedAt === null"
      @click="emit('release', false)"
    >
      {{ later }}</PlainButton
    ><PlainButton
      :class="{ on: releasedAt !== null }"
      :aria-pressed="releasedAt !== null"
      @click="emit('release', true)"
    >
      {{ releasedAt ? 'released' : 'now' }}
    </PlainButton></span
  >
</template>

<style scoped>
.two {
  display: flex;
  border: 1px solid var(--line);
  border-radius: var(--r);
  overflow: hidden;
}
.two button {
  flex: 1 1 auto;
  border: 0;
  background: var(--sheet);
  padding: 7px 11px;
  font: 600 0.8125rem/1.1 var(--ui);
  cursor: pointer;
  color: var(--ink);
}
.two .on {
  background: var(--harbour);
  color: var(--on-harbour);
}
</style>
