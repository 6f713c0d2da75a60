<script setup lang="ts">
import type { AccountWrite } from '#shared/people/account'
import TextButton from '../components/controls/TextButton.vue'
import LabelledField from '../components/controls/LabelledField.vue'
import AccountFields from '../components/people/AccountFields.vue'
import { canUsePasskeys, PasskeyRefused } from '../composables/people/passkeyDevice'
import { ApiProblem, useApi } from '../composables/shell/useApi'
import { useSending } from '../composables/shell/useSending'
import { useSessionStore } from '../stores/session'
import * as peopleEndpoints from '#shared/people/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'

useHead({ title: 'Sign in' })
const store = useSessionStore()
const route = useRoute()
const api = useApi()
const email = ref('')
const password = ref('')
const problem = ref<string | null>(null)
const busy = ref(false)
const { data: installation } = await useAsyncData('installation', () =>
  api.call(peopleEndpoints.readInstallation),
)
const account = ref<AccountWrite>({ givenName: '', familyName: '', email: '', password: '' })
const code = ref('')
const { busy: making, problems, problem: refused, send } = useSending()
async function makeFirst() {
  const made = await send(() =>
    api.call(peopleEndpoints.makeFirstAccount, { body: { ...account.value, code: code.value } }),
  )
  if (!made) return
  await store.load()
  await navigateTo('/seminars/new')
}
const { data } = await useAsyncData('demo-people', () => api.call(peopleEndpoints.readDemoPeople))
const demo = computed(() => data.value?.people ?? [])

/** @param act whether one is signed in after it */
async function enter(act: () => Promise<boolean>) {
  busy.value = true
  problem.value = null
  try {
    if (!(await act())) return
    const to = String(route.query.to ?? '/')
    await navigateTo(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  } catch (error) {
    const isSaid = error instanceof ApiProblem || error instanceof PasskeyRefused
    problem.value = isSaid ? error.message : 'Something went wrong; please try again.'
  } finally {
    busy.value = false
  }
}
const needsCode = ref(false)
const hasPasskey = ref(false)
const canPasskey = ref(false)
onMounted(() => {
  canPasskey.value = canUsePasskeys()
})
const appCode = ref('')
const submit = () =>
  enter(async () => {
    const asked = await store.signIn(email.value, password.value)
    needsCode.value = asked.needsCode
    hasPasskey.value = asked.hasPasskey
    return !needsCode.value
  })
const submitPasskey = () =>
  enter(async () => {
    await store.signInByPasskey()
    return true
  })
const submitCode = () =>
  enter(async () => {
    await store.signInByCode(appCode.value)
    return true
  })
const enterAs = (personId: string) =>
  enter(async () => {
    await store.signInAs(personId)
    return true
  })
function startAgain() {
  needsCode.value = false
  appCode.value = ''
  password.value = ''
  problem.value = null
}
</script>

<template>
  <main class="door" :class="{ wide: demo.length > 0 }">
    <section class="form">
      <p class="mark">J<i>o</i>vrel</p>
      <template v-if="installation?.empty">
        <h1>Make the first account</h1>
        <p class="lead">
          This Jovrel is new. Its first account is an instructor's: it sets up seminars and reads the
          mailroom.
        </p>
        <form novalidate @submit.prevent="makeFirst">
          <AccountFields v-model="account" :problems="problems" />
          <LabelledField
            v-model="code"
            label="Code from the console"
            name="setup-code"
            autocomplete="off"
            :problem="problems.code"
            hint="It was printed where Jovrel was started."
          />
          <p v-if="refused && Object.keys(problems).length === 0" class="field-problem" role="alert">
            {{ refused }}
          </p>
          <v-btn class="main" type="submit" :disabled="making">Make the account</v-btn>
        </form>
      </template>
      <h1 v-if="!installation?.empty">Sign in</h1>
      <form v-if="needsCode" novalidate @submit.prevent="submitCode">
        <LabelledField
          v-model="appCode"
          label="Code from your app"
          name="app-code"
          autocomplete="one-time-code"
          :problem="problem ?? undefined"
          hint="Six digits. Without your phone, write one of your recovery codes."
        />
        <p class="enter">
          <v-btn class="main" type="submit" :disabled="busy">Sign in</v-btn>
          <v-btn v-if="hasPasskey && canPasskey" :disabled="busy" @click="submitPasskey">
            Use your passkey
          </v-btn>
        </p>
        <p class="ways"><TextButton @click="startAgain">Sign in as somebody else</TextButton></p>
      </form>
      <form v-else-if="!installation?.empty" novalidate @submit.prevent="submit">
        <LabelledField
          v-model="email"
          label="E-mail"
          name="email"
          type="email"
          autocomplete="username"
          autofocus
        />
        <LabelledField
          v-model="password"
          label="Password"
          name="password"
          type="password"
          autocomplete="current-password"
          :problem="problem ?? undefined"
        />
        <p class="enter">
          <v-btn class="main" type="submit" :disabled="busy">Sign in</v-btn>
          <v-btn v-if="canPasskey" :disabled="busy" @click="submitPasskey">Use a passkey</v-btn>
        </p>
        <p class="ways">
          <NuxtLink to="/join">I have a joining code</NuxtLink
          ><NuxtLink to="/password">I do not know my password</NuxtLink>
        </p>
      </form>
    </section>
    <section v-if="demo.length > 0" class="demo">
      <h2>Harbour Cities, the demo seminar</h2>
      <p class="lead">It is Wednesday of week 6. Sign in as one of these people; nothing here is real.</p>
      <ul>
        <li v-for="person in demo" :key="person.id">
          <PlainButton :disabled="busy" @click="enterAs(person.id)">
            <b>{{ person.name }}</b><span>{{ person.reason }}</span>
          </PlainButton>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.door {
  margin: 12vh auto 40px;
  padding: 0 20px;
  width: 100%;
  max-width: 400px;
  display: grid;
  gap: 40px;
}
.mark {
  font: 600 1.75rem/1 var(--read);
  letter-spacing: -0.02em;
  color: var(--harbour-deep);
}
.mark i {
  color: var(--ember);
  font-style: normal;
}
h1 {
  font: 600 1.3125rem/1.2 var(--read);
  margin-top: 26px;
}
form {
  display: grid;
  gap: 14px;
  margin-top: 16px;
}
form > .main,
form > .enter {
  justify-self: start;
  margin-top: 4px;
}
form .enter {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
form p.ways {
  display: flex;
  gap: 18px;
  font-size: 0.84375rem;
  margin-top: 6px;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
.lead {
  color: var(--ink-2);
  margin-top: 5px;
}
ul {
  list-style: none;
  margin-top: 14px;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line);
}
li button {
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 10px 4px;
  display: grid;
  grid-template-columns: 11rem 1fr;
  gap: 12px;
  cursor: pointer;
  align-items: baseline;
}
li button:hover {
  background: var(--sheet);
}
li b {
  font-weight: 600;
  color: var(--harbour);
}
li span {
  color: var(--ink-2);
  font-size: 0.84375rem;
}
@media (min-width: 900px) {
  .door.wide {
    max-width: 960px;
    grid-template-columns: 340px 1fr;
    gap: 72px;
  }
  .demo {
    border-left: 1px solid var(--line);
    padding-left: 40px;
  }
}
@media (max-width: 560px) {
  .door {
    margin-top: 5vh;
  }
  li button {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
