<script setup lang="ts" generic="T extends string | number | null | undefined">
/** A field of one line: text, search, a number. By v-model, or by `:value` with its own events where each page reads them. */
defineOptions({ inheritAttrs: false })
const model = defineModel<T>()
const attrs = useAttrs()
const isGivenValue = 'value' in attrs // for good: a field does not change whose it is
const field = useTemplateRef<HTMLInputElement>('field')
defineExpose({ focus: () => field.value?.focus(), select: () => field.value?.select() })
</script>

<template>
  <input v-if="isGivenValue" ref="field" v-bind="$attrs" />
  <input v-else ref="field" v-model="model" v-bind="$attrs" />
</template>
