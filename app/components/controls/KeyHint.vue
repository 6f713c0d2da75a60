<script setup lang="ts">
import { useSigns } from '~/composables/shell/keyList'

/** The sign that is pressed for a key of the page, as somebody has it; nothing where it is switched off. */
const props = defineProps<{ of: string }>()
const { pressedFor } = useSigns()
const sign = computed(() => pressedFor(props.of))
</script>

<template>
  <kbd v-if="sign">{{ sign }}</kbd>
</template>
