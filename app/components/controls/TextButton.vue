<script setup lang="ts">
/** An act that stands in a line of text, or beside a main button. */
</script>

<template>
  <button class="link" type="button"><slot /></button>
</template>
