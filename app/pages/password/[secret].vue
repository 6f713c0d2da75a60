<script setup lang="ts">
import AccountName from '~/components/controls/AccountName.vue'
import LabelledField from '~/components/controls/LabelledField.vue'
import DoorPage from '~/components/shell/DoorPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useSessionStore } from '~/stores/session'
import * as peopleEndpoints from '#shared/people/endpoints'

useHead({ title: 'Choose a password', meta: [{ name: 'referrer', content: 'no-referrer' }] })
const route = useRoute()
const api = useApi()
const session = useSessionStore()
const { data: who, error } = await useAsyncData(`password-${route.params.secret}`, () =>
  api.call(peopleEndpoints.readPasswordLink, { params: { secret: String(route.params.secret) } }),
)
const password = ref('')
const { busy, problem, send } = useSending()
async function choose() {
  if (
    !(await send(() =>
      api.call(peopleEndpoints.setPassword, {
        params: { secret: String(route.params.secret) },
        body: { password: password.value },
      }),
    ))
  )
    return
  await session.load()
  await navigateTo('/')
}
</script>

<template>
  <DoorPage v-if="!who" heading="This link does not work" :lead="error?.message ?? ''">
    <p><NuxtLink to="/password">Send me a new link</NuxtLink></p>
  </DoorPage>
  <DoorPage v-else heading="Choose a password" :lead="`For ${who.name}, ${who.email}. Then you are in.`">
    <form novalidate @submit.prevent="choose">
      <AccountName :email="who.email" />
      <LabelledField
        v-model="password"
        label="Password"
        name="password"
        type="password"
        autocomplete="new-password"
        autofocus
        :problem="problem ?? undefined"
        hint="Ten characters or more."
      />
      <v-btn class="main" type="submit" :disabled="busy">Save the password and sign in</v-btn>
    </form>
  </DoorPage>
</template>
