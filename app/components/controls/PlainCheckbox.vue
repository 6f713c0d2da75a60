<script setup lang="ts">
/** A tick without words of its own: its page labels it. By v-model, or by `:checked`. CheckBox brings its words along. */
defineOptions({ inheritAttrs: false })
const on = defineModel<boolean>()
const attrs = useAttrs()
const isGivenState = 'checked' in attrs // for good: a tick does not change whose it is
</script>

<template>
  <input v-if="isGivenState" type="checkbox" v-bind="$attrs" />
  <input v-else v-model="on" type="checkbox" v-bind="$attrs" />
</template>
