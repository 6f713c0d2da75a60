<script setup lang="ts">
/** Tells a password manager whose password a form is about; nobody sees or reaches it. */
defineProps<{ email: string }>()
</script>

<template>
  <input
    type="text"
    :value="email"
    autocomplete="username"
    class="visually-hidden"
    tabindex="-1"
    aria-hidden="true"
    readonly
  />
</template>
