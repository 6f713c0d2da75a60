<script setup lang="ts" generic="T extends string | null | undefined">
/** A field of several lines of plain text. By v-model, or by `:value` with its own events. */
defineOptions({ inheritAttrs: false })
const model = defineModel<T>()
const attrs = useAttrs()
const isGivenValue = 'value' in attrs // for good: a field does not change whose it is
const field = useTemplateRef<HTMLTextAreaElement>('field')
defineExpose({ focus: () => field.value?.focus(), element: field })
</script>

<template>
  <textarea v-if="isGivenValue" ref="field" v-bind="$attrs" />
  <textarea v-else ref="field" v-model="model" v-bind="$attrs" />
</template>
