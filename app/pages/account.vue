<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainRadio from '~/components/controls/PlainRadio.vue'
import type { AccountView } from '#shared/people/account'
import OwnAddress from '../components/people/account/OwnAddress.vue'
import OwnName from '../components/people/account/OwnName.vue'
import OwnPasskeys from '../components/people/account/OwnPasskeys.vue'
import OwnPassword from '../components/people/account/OwnPassword.vue'
import OwnSecondStep from '../components/people/account/OwnSecondStep.vue'
import OwnSessions from '../components/people/account/OwnSessions.vue'
import ProblemPage from '../components/shell/ProblemPage.vue'
import { useApi } from '../composables/shell/useApi'
import { useSending } from '../composables/shell/useSending'
import { useNotices } from '../stores/notices'
import * as peopleEndpoints from '#shared/people/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'plain' })
useHead({ title: 'Account' })
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const {
  data: account,
  error,
  refresh,
} = await useAsyncData('account', () => api.call(peopleEndpoints.readAccount))
const CHOICES = [
  ['atOnce', 'at once', 'a mail for each thing you are told'],
  ['daily', 'once a day', 'one mail in the morning with everything of the day'],
  ['never', 'never', 'you find it in Jovrel'],
] as const
const sessions = useTemplateRef('sessions')
const origin = ref('')
onMounted(() => {
  origin.value = location.origin
})
const address = computed(() => (account.value?.calendarPath ? origin.value + account.value.calendarPath : ''))

const choose = (mailChoice: AccountView['mailChoice']) =>
  attempt(async () => {
    const before = account.value!.mailChoice
    account.value = await api.call(peopleEndpoints.chooseMail, { body: { mailChoice } })
    notices.say(`Mail ${CHOICES.find(c => c[0] === mailChoice)![1]} from now on.`, {
      label: 'Undo',
      run: async () => {
        account.value = await api.call(peopleEndpoints.chooseMail, { body: { mailChoice: before } })
      },
    })
  })
const makeCalendar = () =>
  attempt(async () => {
    const had = account.value!.calendarPath !== null
    account.value = await api.call(peopleEndpoints.makeCalendar)
    notices.say(
      had
        ? 'A new address was made. The old one opens nothing any more.'
        : 'Your calendar has an address now.',
    )
  })
const dropCalendar = () =>
  attempt(async () => {
    account.value = await api.call(peopleEndpoints.closeCalendar)
    notices.say('The calendar address opens nothing any more.')
  })
async function copy() {
  await navigator.clipboard.writeText(address.value)
  notices.say('Copied. Add it in your calendar as a subscription by address.')
}
</script>

<template>
  <ProblemPage v-if="error || !account" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf narrow">
    <div class="leaf-head">
      <h1>{{ account.name }}</h1>
      <p class="muted">{{ account.email }}</p>
    </div>
    <section>
      <h2>Mail</h2>
      <fieldset>
        <legend>Tell me by mail</legend>
        <label v-for="[value, label, note] in CHOICES" :key="value"
          ><PlainRadio name="mail" :checked="account.mailChoice === value" @change="choose(value)" />{{ ' '
          }}<b>{{ label }}</b> <span>{{ note }}</span></label
        >
      </fieldset>
    </section>
    <section>
      <h2>Calendar</h2>
      <p class="lead">
        Your due times in any calendar that takes an address. They move there when they move here. Whoever has
        the address can read it; a new one makes the old one worthless.
      </p>
      <template v-if="account.calendarPath">
        <p class="address">
          <LineInput
            class="in"
            readonly
            :value="address"
            aria-label="Calendar address"
            @focus="($event.target as HTMLInputElement).select()"
          /><v-btn @click="copy">Copy</v-btn>
        </p>
        <p class="acts">
          <TextButton @click="makeCalendar">Make a new address</TextButton
          ><TextButton @click="dropCalendar">Delete it</TextButton>
        </p>
      </template>
      <v-btn v-else class="main" @click="makeCalendar">Make a calendar address</v-btn>
    </section>
    <OwnName v-model="account" />
    <OwnAddress v-model="account" />
    <OwnPassword v-if="account.hasPassword" :email="account.email" @changed="sessions?.refresh()" />
    <OwnPasskeys v-if="account.hasPassword" :email="account.email" @changed="sessions?.refresh()" />
    <OwnSecondStep v-if="account.hasPassword" :email="account.email" @changed="sessions?.refresh()" />
    <OwnSessions ref="sessions" />
  </main>
</template>

<style scoped>
.narrow {
  max-width: 720px;
  padding-top: 36px;
}
main :deep(section) {
  padding: 18px 0;
  border-top: 1px solid var(--line);
  display: grid;
  gap: 10px;
  justify-items: start;
}
main :deep(h2) {
  font: 600 1.0625rem/1.3 var(--read);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 7px;
}
legend {
  color: var(--ink-2);
  padding: 0 0 6px;
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
label span {
  color: var(--ink-3);
}
.lead,
main :deep(.lead) {
  font: 400 0.9375rem/1.55 var(--read);
  color: var(--ink-2);
}
.address {
  display: flex;
  gap: 8px;
  width: 100%;
}
.address .in {
  flex: 1;
  font-size: 0.8125rem;
}
main :deep(.acts) {
  display: flex;
  align-items: center;
  gap: 20px;
}
main :deep(form) {
  display: grid;
  gap: 14px;
  width: 100%;
  max-width: 460px;
  justify-items: start;
}
main :deep(form .field) {
  width: 100%;
}
main :deep(.account-rows) {
  list-style: none;
  width: 100%;
}
main :deep(.account-rows li) {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: baseline;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}
main :deep(.account-rows li:last-child) {
  border-bottom: 0;
}
main :deep(.account-rows button) {
  flex: none;
}
main :deep(.account-rows .muted) {
  color: var(--ink-3);
  font-size: 0.84375rem;
}
main :deep(.pair) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  width: 100%;
}
</style>
