<script setup lang="ts">
/** Links to the parts of a page with several, seen while the keyboard is on them. */
defineProps<{ parts: ReadonlyArray<{ readonly id: string; readonly name: string }> }>()
function go(id: string) {
  const part = document.getElementById(id)
  if (!part) return
  part.tabIndex = -1
  part.focus({ preventScroll: true })
  part.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <nav class="skips" aria-label="Parts of this page">
    <a v-for="part in parts" :key="part.id" :href="`#${part.id}`" @click.prevent="go(part.id)"
      >Skip to {{ part.name }}</a
    >
  </nav>
</template>

<style scoped>
.skips:not(:focus-within) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.skips:focus-within {
  display: flex;
  gap: 18px;
  padding: 8px 20px;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
}
</style>
