<script setup lang="ts" generic="V extends string | number | boolean | null">
import PlainRadio from '~/components/controls/PlainRadio.vue'
import SentencePart from './SentencePart.vue'

/** One of a few things inside a sentence, each with a line of what it means. */
const value = defineModel<V>({ required: true })
const props = defineProps<{
  label: string
  choices: ReadonlyArray<{ readonly value: V; readonly text: string; readonly note?: string }>
  disabled?: boolean
  text?: string
}>()
const emit = defineEmits<{ opened: [open: boolean] }>()
const shown = computed(() => props.text ?? props.choices.find(c => c.value === value.value)?.text ?? '…')
</script>

<template>
  <SentencePart
    v-slot="{ close }"
    :text="shown"
    :label="label"
    :disabled="disabled"
    @opened="emit('opened', $event)"
  >
    <div role="radiogroup" :aria-label="label">
      <label v-for="c in choices" :key="String(c.value)" class="choice" :class="{ on: c.value === value }">
        <PlainRadio
          :name="label"
          :checked="c.value === value"
          @change="value = c.value"
          @click="c.value === value && close()"
        /><b>{{ c.text }}</b
        ><small v-if="c.note">{{ c.note }}</small>
      </label>
    </div>
    <slot />
  </SentencePart>
</template>
