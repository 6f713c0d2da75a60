<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'

/** A key of the page in its list: chosen, it waits for the sign that is to be pressed instead, or for Delete. */
const props = defineProps<{ sign: string; does: string; disabled: boolean }>()
const emit = defineEmits<{ give: [sign: string] }>()
const waits = ref(false)
const LISTS_KEYS = '?' // opens this list, on every page

function press(event: KeyboardEvent) {
  if (!waits.value || event.key === 'Tab') return
  if (event.key === 'Shift' || event.ctrlKey || event.altKey || event.metaKey) return
  event.preventDefault()
  event.stopPropagation() // Esc closes no dialog while it ends this
  const isSign = event.key.length === 1 && event.key !== ' ' && event.key !== LISTS_KEYS
  if (isSign) emit('give', event.key)
  if (event.key === 'Delete' || event.key === 'Backspace') emit('give', '')
  waits.value = false
}
const label = computed(() => {
  if (waits.value) return `Press the new key for “${props.does}”, or Delete to switch it off`
  return props.sign
    ? `${props.sign}: change the key for “${props.does}”`
    : `off: set a key for “${props.does}”`
})
</script>

<template>
  <PlainButton
    class="sign"
    :class="{ waits, unset: !sign }"
    :aria-label="label"
    :disabled="disabled"
    @click="waits = !waits"
    @keydown="press"
    @blur="waits = false"
  >
    <template v-if="waits">press a key</template>
    <kbd v-else-if="sign">{{ sign }}</kbd>
    <template v-else>off</template>
  </PlainButton>
</template>

<style scoped>
.sign {
  min-width: 24px;
  min-height: 24px;
  color: var(--ink-3);
  padding: 0;
  background: none;
  border: 0;
  border-radius: 4px;
  cursor: pointer;
}
.sign:disabled {
  cursor: default;
}
.sign:hover:not(:disabled) kbd {
  border-color: var(--harbour);
  color: var(--ink);
}
.sign.waits {
  padding: 0 8px;
  font-size: 0.8125rem;
  color: var(--ink);
  background: var(--ember-soft);
}
.sign.unset {
  font-size: 0.8125rem;
  text-decoration: underline dotted;
}
</style>
