<script setup lang="ts">
import type { Key } from '~/composables/shell/useKeys'

defineProps<{ keys: readonly Key[] }>()
const open = defineModel<boolean>({ required: true })
const shown = (keys: string) =>
  keys.split(' ').map(k => ({ 'Ctrl+Enter': 'Ctrl Enter', ArrowUp: '↑', ArrowDown: '↓' })[k] ?? k)
</script>

<template>
  <v-dialog v-model="open" max-width="420" aria-label="Keys on this page">
    <div class="card keys">
      <h2>Keys on this page</h2>
      <dl>
        <template v-for="key in keys" :key="key.keys"
          ><dt>
            <kbd v-for="k in shown(key.keys)" :key="k">{{ k }}</kbd>
          </dt>
          <dd>{{ key.does }}</dd></template
        >
        <dt><kbd>?</kbd></dt>
        <dd>this list</dd>
      </dl>
    </div>
  </v-dialog>
</template>

<style scoped>
.keys {
  padding: 18px 22px 20px;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
  margin: 12px 0 0;
  align-items: center;
}
dt {
  display: flex;
  gap: 4px;
  justify-content: flex-end;
}
dd {
  margin: 0;
  color: var(--ink-2);
}
</style>
