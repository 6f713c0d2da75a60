<script setup lang="ts">
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** A value inside a sentence: underlined, and changed in a small card beside it. The card says which part it belongs to. */
defineProps<{
  /** What stands in the sentence. */
  text: string
  /** Heading of the card, and the name of the value for those who cannot see it. */
  label: string
  disabled?: boolean
  wide?: boolean
}>()
const emit = defineEmits<{ opened: [open: boolean] }>()
const open = ref(false)
watch(open, is => emit('opened', is))
defineExpose({
  close: () => {
    open.value = false
  },
})
</script>

<template>
  <CardMenu
    v-model="open"
    class="partcard"
    :class="{ wide }"
    :label="label"
    location="bottom start"
    @keydown.enter="($event.target as HTMLElement).tagName === 'INPUT' && (open = false)"
  >
    <template #opener="{ opener }"
      ><PlainButton
        v-bind="opener"
        class="part"
        :class="{ on: open }"
        :disabled="disabled"
        :aria-label="`${label}: ${text}`"
      >
        {{ text }}
      </PlainButton></template
    >
    <template #default="{ close }">
      <p class="cap">
        <b>{{ label }}</b><kbd>Esc</kbd>
      </p>
      <slot :close="close" />
    </template>
  </CardMenu>
</template>

<style scoped>
.part {
  border: 0;
  background: none;
  padding: 0 1px;
  font: 600 1em/1.2 var(--read);
  color: var(--harbour);
  cursor: pointer;
  box-shadow: inset 0 -2px 0 color-mix(in srgb, var(--harbour) 35%, transparent);
}
.part:hover {
  box-shadow: inset 0 -2px 0 var(--harbour);
}
.part.on {
  background: var(--ember-soft);
  color: var(--ink);
  box-shadow: inset 0 -2px 0 var(--ember);
}
.part:focus-visible {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.part:disabled {
  color: var(--ink);
  box-shadow: none;
  cursor: default;
}
</style>

<style>
.partcard {
  padding: 12px 14px 14px;
  min-width: 230px;
  max-width: 340px;
  display: grid;
  gap: 9px;
}
.partcard.wide {
  max-width: 520px;
  min-width: 380px;
}
.partcard .cap {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  align-items: center;
}
.partcard .choice {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 9px;
  padding: 6px 8px;
  border-radius: 6px;
  cursor: pointer;
}
.partcard .choice:hover {
  background: var(--sunken);
}
.partcard .choice.on {
  background: var(--harbour-soft);
}
.partcard .choice input {
  margin-top: 3px;
}
.partcard .choice b {
  font-weight: 600;
}
.partcard .choice small {
  grid-column: 2;
  color: var(--ink-2);
  font-size: 0.8125rem;
}
</style>
