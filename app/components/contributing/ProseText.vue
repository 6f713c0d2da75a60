<script setup lang="ts">
import { useTermsStore } from '~/stores/terms'

/** A text as it was rendered and sanitised on the server, with the seminar's terms lit up in it. */
const props = defineProps<{ html: string; /** The term this text defines. */ except?: string }>()
const terms = useTermsStore()
const linked = computed(() => terms.link(props.html, props.except))
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
  <div class="prose" dir="auto" v-html="linked" />
</template>
