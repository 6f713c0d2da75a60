<script setup lang="ts">
import type { AccountView } from '#shared/people/account'
import * as accountEndpoints from '#shared/people/accountEndpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import LabelledField from './LabelledField.vue'

/** One's own address: whether it is confirmed, and another in its place. */
const account = defineModel<AccountView>({ required: true })
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send, attempt } = useSending()
const isOpen = ref(false)
const email = ref('')
const password = ref('')

async function ask() {
  const body = { email: email.value, password: password.value }
  const asked = await send(() => api.call(accountEndpoints.changeEmail, { body }))
  if (!asked) return
  account.value = asked
  isOpen.value = false
  email.value = ''
  password.value = ''
}
const askForConfirmation = () =>
  attempt(async () => {
    await api.call(accountEndpoints.askForConfirmation)
    notices.say(`A link is on its way to ${account.value.email}.`)
  })
</script>

<template>
  <section>
    <h2>E-mail address</h2>
    <p class="lead">
      <b>{{ account.email }}</b>
      <template v-if="!account.isConfirmed">
        is not confirmed yet. Open the link in the mail we sent there; until then, seminars that others add
        you to by this address stay closed.</template
      >
    </p>
    <p v-if="account.emailAskedFor" class="lead" role="status">
      A link is on its way to {{ account.emailAskedFor }}. Once you have opened it there, that is your
      address.
    </p>
    <p class="acts">
      <button v-if="!account.isConfirmed" class="link" type="button" @click="askForConfirmation">
        Send the link again
      </button>
      <button v-if="account.hasPassword && !isOpen" class="link" type="button" @click="isOpen = true">
        Change the address
      </button>
    </p>
    <form v-if="isOpen" novalidate @submit.prevent="ask">
      <LabelledField
        v-model="email"
        label="New address"
        name="new-email"
        type="email"
        autocomplete="email"
        :problem="problems.email"
        hint="We send a link there. Your address stays as it is until you open it."
      />
      <LabelledField
        v-model="password"
        label="Your password"
        name="email-password"
        type="password"
        autocomplete="current-password"
        :problem="problems.password"
      />
      <p v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">
        {{ problem }}
      </p>
      <p class="acts">
        <v-btn class="main" type="submit" :disabled="busy">Send the link</v-btn>
        <button class="link" type="button" @click="isOpen = false">Cancel</button>
      </p>
    </form>
  </section>
</template>
