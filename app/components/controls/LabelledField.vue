<script setup lang="ts">
import { isFieldFocused } from '~/composables/shell/isFieldFocused'
import { typedBeforeHydration } from '~/composables/shell/typedBeforeHydration'

/** A text field with its label, a hint, and what was wrong with it at its place. Other attributes go to the field. */
defineOptions({ inheritAttrs: false })
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
const field = useTemplateRef<{ focus: () => void }>('field')
const typed = typedBeforeHydration(props.name)
// v-text-field moves the caret when it is first seen, which is later than somebody may have gone to the next field
const isMounted = ref(false)
onMounted(() => {
  isMounted.value = true
  if (typed !== '' && text.value === '') text.value = typed
  if (props.autofocus && !isFieldFocused()) field.value?.focus()
})
</script>

<template>
  <div class="field">
    <label :for="name">{{ label }}</label>
    <v-text-field
      v-bind="$attrs"
      :id="name"
      ref="field"
      v-model="text"
      :type="type ?? 'text'"
      :autocomplete="autocomplete"
      :autofocus="autofocus && !isMounted"
      :aria-describedby="problem || hint ? `${name}-note` : undefined"
    />
    <p v-if="problem" :id="`${name}-note`" class="field-problem" role="alert">{{ problem }}</p>
    <p v-else-if="hint" :id="`${name}-note`" class="hint">{{ hint }}</p>
  </div>
</template>
