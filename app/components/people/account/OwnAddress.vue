<script setup lang="ts">
import type { AccountView } from '#shared/people/account'
import * as accountEndpoints from '#shared/people/accountEndpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import LabelledField from '~/components/controls/LabelledField.vue'
import TextButton from '~/components/controls/TextButton.vue'
import FormFoot from './FormFoot.vue'

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
      <TextButton v-if="!account.isConfirmed" @click="askForConfirmation"> Send the link again </TextButton>
      <TextButton v-if="account.hasPassword && !isOpen" @click="isOpen = true">
        Change the address
      </TextButton>
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
      <FormFoot
        label="Send the link"
        :busy="busy"
        :problem="problem"
        :problems="problems"
        @cancel="isOpen = false"
      />
    </form>
  </section>
</template>
