<script setup lang="ts">
import type { Term } from '~/kinds/lexicon/useLexiconFilter'
import ProseText from '~/components/contributing/ProseText.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** One term a day, to come back to. */
defineProps<{ term: Term }>()
const emit = defineEmits<{ choose: [id: string] }>()
</script>

<template>
  <section>
    <h2>Term of the day</h2>
    <p class="day">
      <TextButton @click="emit('choose', term.id)">{{ term.term.term }}</TextButton>
    </p>
    <ProseText v-if="term.html" class="small-prose" :html="term.html" :except="term.id" />
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
}
.day .link {
  font: 600 1.0625rem/1.4 var(--read);
}
.small-prose {
  font-size: 0.875rem;
  line-height: 1.5;
  color: var(--ink-2);
}
</style>
