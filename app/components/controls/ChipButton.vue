<script setup lang="ts">
/** One of several small choices beside one another; `on` is the class of what is chosen. */
</script>

<template>
  <button class="chip" type="button"><slot /></button>
</template>
