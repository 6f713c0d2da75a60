<script setup lang="ts" generic="T">
/** One of several of which one is chosen: its page labels it. By v-model, or by `:checked`. */
defineOptions({ inheritAttrs: false })
const model = defineModel<T>()
const attrs = useAttrs()
const isGivenState = computed(() => 'checked' in attrs)
</script>

<template>
  <input v-if="isGivenState" type="radio" v-bind="$attrs" />
  <input v-else v-model="model" type="radio" v-bind="$attrs" />
</template>
