<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import ProblemPage from '../components/shell/ProblemPage.vue'
import { useApi } from '../composables/shell/useApi'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'

definePageMeta({ layout: 'plain' })
useHead({ title: 'Mailroom' })
const api = useApi()
const { data, error, refresh } = await useAsyncData('mailroom', () =>
  api.call(messagingEndpoints.readMailroom),
)
const words = ref('')
const open = ref<string | null>(null)
const shown = computed(() =>
  (data.value?.messages ?? []).filter(m =>
    `${m.to.join(' ')} ${m.subject} ${m.text}`.toLowerCase().includes(words.value.trim().toLowerCase()),
  ),
)
// the reader's own clock is known in the browser only; until then the server's stands there
const zone = ref('UTC')
onMounted(() => {
  zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone
})
const at = computed(
  () =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone.value,
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    }),
)
/** Text cut at its addresses, so that links to this Jovrel can be followed. */
const parts = (text: string) =>
  text.split(/(https?:\/\/\S+)/).map(part => ({
    part,
    path: /^https?:\/\/[^/]+(\/\S*)?$/.test(part) ? part.replace(/^https?:\/\/[^/]+/, '') || '/' : null,
  }))
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf">
    <div class="leaf-head">
      <h1>Mailroom</h1>
      <p class="muted small">
        mail that would go out if a mail server were set; nothing here leaves this machine
      </p>
      <span class="grow" />
      <label
        ><span class="visually-hidden">Look for</span
        ><LineInput v-model="words" class="in" type="search" placeholder="name, address or words"
      /></label>
      <v-btn @click="refresh()">Check again</v-btn>
    </div>
    <p v-if="data.messages.length === 0" class="invite">
      Nothing has come in yet. Invitations, new passwords and what students are told arrive here over SMTP, as
      they would anywhere.
    </p>
    <p v-else-if="shown.length === 0" class="invite">No mail has these words.</p>
    <ul class="mails">
      <li v-for="m in shown" :key="m.id" :class="{ open: open === m.id }">
        <PlainButton :aria-expanded="open === m.id" @click="open = open === m.id ? null : m.id">
          <span class="to">{{ m.to.join(', ') }}</span><b>{{ m.subject }}</b
          ><time class="num">{{ at.format(new Date(m.receivedAt)) }}</time>
        </PlainButton>
        <pre v-if="open === m.id"><template v-for="(p, i) in parts(m.text)" :key="i"
          ><NuxtLink v-if="p.path" :to="p.path">{{ p.part }}</NuxtLink
          ><template v-else>{{ p.part }}</template></template
        ></pre>
      </li>
    </ul>
  </main>
</template>

<style scoped>
.mails {
  list-style: none;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line-soft);
}
li button {
  width: 100%;
  display: grid;
  grid-template-columns: minmax(0, 16rem) minmax(0, 1fr) auto;
  gap: 16px;
  text-align: left;
  padding: 9px 4px;
  background: none;
  border: 0;
  cursor: pointer;
  align-items: baseline;
}
li button:hover {
  background: var(--sheet);
}
.to {
  color: var(--ink-2);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
time {
  color: var(--ink-3);
  font-size: 0.78125rem;
}
.open {
  background: var(--sheet);
}
pre {
  margin: 0;
  padding: 6px 20px 18px;
  white-space: pre-wrap;
  font: 400 0.9375rem/1.55 var(--read);
  overflow-wrap: anywhere;
}
@media (max-width: 700px) {
  li button {
    grid-template-columns: 1fr auto;
  }
  .to {
    grid-column: 1 / -1;
  }
}
</style>
