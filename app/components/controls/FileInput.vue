<script setup lang="ts">
/** Chooses files of one's own. It is unseen: the label around it is what one sees, and shows where the keyboard is. */
const field = useTemplateRef<HTMLInputElement>('field')
defineExpose({ click: () => field.value?.click() })
</script>

<template>
  <input ref="field" type="file" />
</template>
