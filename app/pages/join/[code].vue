<script setup lang="ts">
import type { AccountWrite } from '#shared/people/account'
import AccountFields from '~/components/people/AccountFields.vue'
import DoorPage from '~/components/shell/DoorPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useSessionStore } from '~/stores/session'
import * as peopleEndpoints from '#shared/people/endpoints'

useHead({ title: 'Join a seminar' })
const route = useRoute()
const api = useApi()
const session = useSessionStore()
const { data: seminar, error } = await useAsyncData(`join-${route.params.code}`, () =>
  api.call(peopleEndpoints.readJoiningCode, { params: { code: String(route.params.code) } }),
)
const account = ref<AccountWrite>({ givenName: '', familyName: '', email: '', password: '' })
const { busy, problems, problem, send } = useSending()
const me = computed(() => session.session?.person ?? null)

async function join() {
  const joined = await send(() =>
    api.call(peopleEndpoints.joinSeminar, {
      params: { code: String(route.params.code) },
      body: {
        account: me.value ? null : account.value,
      },
    }),
  )
  if (!joined) return
  await session.load()
  await navigateTo(`/seminars/${joined.seminarId}`)
}
</script>

<template>
  <DoorPage v-if="!seminar" heading="This code does not open" :lead="error?.message ?? ''">
    <p><NuxtLink to="/join">Use another code</NuxtLink></p>
  </DoorPage>
  <DoorPage
    v-else
    :heading="seminar.title"
    :lead="[seminar.college, seminar.code, seminar.section].filter(Boolean).join(' · ')"
  >
    <p v-if="seminar.already">
      You are in this seminar already. <NuxtLink :to="`/seminars/${seminar.seminarId}`">Open it</NuxtLink>
    </p>
    <form v-else novalidate @submit.prevent="join">
      <p v-if="me">
        You join as <b>{{ me.name }}</b>.
      </p>
      <AccountFields v-else v-model="account" :problems="problems" />
      <p v-if="problem && (me || Object.keys(problems).length === 0)" class="field-problem" role="alert">
        {{ problem }}
      </p>
      <v-btn class="main" type="submit" :disabled="busy">Join the seminar</v-btn>
    </form>
    <p v-if="!me" class="small">
      You have an account?
      <NuxtLink :to="{ path: '/sign-in', query: { to: route.fullPath } }">Sign in first</NuxtLink>, then you
      come back here.
    </p>
  </DoorPage>
</template>
