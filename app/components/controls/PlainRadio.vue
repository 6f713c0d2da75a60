<script setup lang="ts" generic="T">
/** One of several of which one is chosen: its page labels it. By v-model, or by `:checked`. */
defineOptions({ inheritAttrs: false })
const model = defineModel<T>()
const attrs = useAttrs()
const isGivenState = 'checked' in attrs // for good: a tick does not change whose it is
</script>

<template>
  <input v-if="isGivenState" type="radio" v-bind="$attrs" />
  <input v-else v-model="model" type="radio" v-bind="$attrs" />
</template>
