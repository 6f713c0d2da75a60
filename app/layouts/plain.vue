<script setup lang="ts">
import PlainTop from '../components/shell/PlainTop.vue'
</script>

<template>
  <div>
    <PlainTop />
    <slot />
  </div>
</template>
