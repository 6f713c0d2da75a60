<script setup lang="ts">
import LabelledField from '~/components/controls/LabelledField.vue'
import DoorPage from '~/components/shell/DoorPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as peopleEndpoints from '#shared/people/endpoints'

useHead({ title: 'A new password' })
const api = useApi()
const email = ref('')
const done = ref(false)
const { busy, problem, send } = useSending()
async function ask() {
  if (await send(() => api.call(peopleEndpoints.askForPassword, { body: { email: email.value } })))
    done.value = true
}
</script>

<template>
  <DoorPage
    heading="A new password"
    :lead="
      done
        ? 'If there is an account with this address, a letter with a link is on its way. The link works once, for an hour.'
        : 'We send a link to your address; with it you choose a new password.'
    "
  >
    <form v-if="!done" novalidate @submit.prevent="ask">
      <LabelledField
        v-model="email"
        label="E-mail"
        name="email"
        type="email"
        autocomplete="username"
        autofocus
        :problem="problem ?? undefined"
      />
      <v-btn class="main" type="submit" :disabled="busy">Send the link</v-btn>
    </form>
    <p class="small"><NuxtLink to="/sign-in">Back to signing in</NuxtLink></p>
  </DoorPage>
</template>
