<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'
import type { SessionRow } from '#shared/people/account'
import * as accountEndpoints from '#shared/people/accountEndpoints'
import { browserName } from '~/composables/people/browserName'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'

/** The browsers in which one is signed in. Each can be signed out from here. */
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const reading = useAsyncData('own-sessions', () => api.call(accountEndpoints.readSessions))
const { data, error, refresh } = reading
defineExpose({ refresh })
await reading
const sessions = computed(() => data.value?.sessions ?? [])
const others = computed(() => sessions.value.filter(s => !s.isThis))
const at = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const when = (s: SessionRow) => (s.isThis ? 'this browser' : `last used ${at.format(new Date(s.lastSeenAt))}`)

const end = (session: SessionRow) =>
  attempt(async () => {
    await api.call(accountEndpoints.endSession, { params: { sessionId: session.id } })
    await refresh()
    notices.say(`${browserName(session.agent)} is signed out.`)
  })
const endOthers = () =>
  attempt(async () => {
    const { ended } = await api.call(accountEndpoints.endOtherSessions)
    await refresh()
    notices.say(ended === 1 ? 'One other browser is signed out.' : `${ended} other browsers are signed out.`)
  })
</script>

<template>
  <section>
    <h2>Where you are signed in</h2>
    <p v-if="error" class="field-problem" role="alert">
      {{ error.message }} <TextButton @click="refresh()">Try again</TextButton>
    </p>
    <ClientOnly>
      <ul class="account-rows" aria-label="Browsers in which you are signed in">
        <li v-for="s in sessions" :key="s.id">
          <span
            ><b>{{ browserName(s.agent) }}</b> <span class="muted">{{ when(s) }}</span></span
          >
          <TextButton
            v-if="!s.isThis"
            :aria-label="`Sign out ${browserName(s.agent)}, ${when(s)}`"
            @click="end(s)"
          >
            Sign out
          </TextButton>
        </li>
      </ul>
    </ClientOnly>
    <p v-if="others.length > 1" class="acts">
      <TextButton @click="endOthers">Sign out all others</TextButton>
    </p>
    <p class="hint">A browser is signed out by itself after a week without use, and after 30 days at most.</p>
  </section>
</template>
