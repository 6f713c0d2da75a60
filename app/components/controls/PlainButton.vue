<script setup lang="ts">
/** A button that is a part of something drawn: a row, a tab, a disc. Its page gives it its look. */
const button = useTemplateRef<HTMLButtonElement>('button')
defineExpose({ focus: () => button.value?.focus() })
</script>

<template>
  <button ref="button" type="button"><slot /></button>
</template>
