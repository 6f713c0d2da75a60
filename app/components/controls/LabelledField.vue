<script setup lang="ts">
import { typedBeforeHydration } from '~/composables/shell/typedBeforeHydration'

/** A text field with its label, a hint, and what was wrong with it at its place. */
const text = defineModel<string>({ required: true })
const props = defineProps<{
  readonly label: string
  readonly name: string // of the field, unique on the page
  readonly type?: 'text' | 'email' | 'password'
  readonly autocomplete: string
  readonly problem?: string
  readonly hint?: string
  readonly autofocus?: boolean
}>()
const typed = typedBeforeHydration(props.name)
onMounted(() => {
  if (typed !== '' && text.value === '') text.value = typed
})
</script>

<template>
  <div class="field">
    <label :for="name">{{ label }}</label>
    <v-text-field
      :id="name"
      v-model="text"
      :type="type ?? 'text'"
      :autocomplete="autocomplete"
      :autofocus="autofocus"
      :aria-describedby="problem || hint ? `${name}-note` : undefined"
    />
    <p v-if="problem" :id="`${name}-note`" class="field-problem" role="alert">{{ problem }}</p>
    <p v-else-if="hint" :id="`${name}-note`" class="hint">{{ hint }}</p>
  </div>
</template>
