<script setup lang="ts">
import DoorPage from '~/components/shell/DoorPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as accountEndpoints from '#shared/people/accountEndpoints'

useHead({ title: 'Confirm an address', meta: [{ name: 'referrer', content: 'no-referrer' }] })
const route = useRoute()
const api = useApi()
const params = { secret: String(route.params.secret) }
const { data: link, error } = await useAsyncData(`address-${params.secret}`, () =>
  api.call(accountEndpoints.readAddressLink, { params }),
)
const confirmed = ref(false)
const { busy, problem, send } = useSending()
// by a button, because programs that look through mail open every link in it
async function confirm() {
  if (await send(() => api.call(accountEndpoints.confirmAddress, { params }))) confirmed.value = true
}
</script>

<template>
  <DoorPage v-if="!link" heading="This link does not work" :lead="error?.message ?? ''">
    <p><NuxtLink to="/account">Go to your account</NuxtLink></p>
  </DoorPage>
  <DoorPage
    v-else-if="confirmed"
    heading="Your address is confirmed"
    :lead="`${link.email} is the address of ${link.name}.`"
  >
    <p><NuxtLink to="/">Go to your seminars</NuxtLink></p>
  </DoorPage>
  <DoorPage
    v-else
    heading="Confirm your address"
    :lead="`Is ${link.email} yours, and are you ${link.name}? Then confirm it.`"
  >
    <form novalidate @submit.prevent="confirm">
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <v-btn class="main" type="submit" :disabled="busy">Confirm the address</v-btn>
    </form>
  </DoorPage>
</template>
