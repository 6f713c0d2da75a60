<script setup lang="ts">
import type { TermCard } from '#shared/kinds/lexicon/lexicon'
import { useTermsStore } from '~/stores/terms'
import ProseText from '~/components/contributing/ProseText.vue'

/** The seminar's term of the day, the same for everyone; nothing where there is no lexicon. */
const terms = useTermsStore()
const card = shallowRef<TermCard | null>(null)
onMounted(() => {
  watch(
    () => terms.view?.ofTheDay,
    async id => {
      card.value = id ? await terms.card(id).catch(() => null) : null
    },
    { immediate: true },
  )
})
</script>

<template>
  <section v-if="card" class="of-the-day">
    <p class="head">
      <b>Term of the day</b> <NuxtLink :to="terms.addressOf(card.id)">{{ card.term.term }}</NuxtLink>{{ ' '
      }}<span class="muted">by {{ card.author.isMe ? 'you' : card.author.name }}</span>
    </p>
    <ProseText :html="card.html" :except="card.id" />
  </section>
</template>

<style scoped>
.of-the-day {
  border-top: 1px solid var(--line);
  margin-top: 20px;
  padding-top: 12px;
  max-width: 46em;
}
.head {
  font-size: 0.8125rem;
  display: flex;
  gap: 4px 10px;
  flex-wrap: wrap;
  align-items: baseline;
}
.head a {
  font: 600 1.0625rem/1.3 var(--read);
}
.of-the-day :deep(.prose) {
  font-size: 0.9375rem;
  color: var(--ink-2);
}
</style>
