<script setup lang="ts">
import type { PasskeyRow } from '#shared/people/secondFactor'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'
import LabelledField from '~/components/controls/LabelledField.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { browserName } from '~/composables/people/browserName'
import { canUsePasskeys, isNumber, makePasskey, PasskeyRefused } from '~/composables/people/passkeyDevice'
import { useSecondStep } from '~/composables/people/useSecondStep'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import FormFoot from './FormFoot.vue'
import PasswordAgain from './PasswordAgain.vue'
import RecoveryCodes from './RecoveryCodes.vue'

/** Keys in one's devices that sign one in by a finger, a face or a PIN. */
defineProps<{ email: string }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send } = useSending()
const { data: step, refresh } = await useSecondStep()
const isAdding = ref(false)
const leaving = ref<PasskeyRow | null>(null)
const password = ref('')
const title = ref('')
const codes = ref<readonly string[]>([])
const isPossible = ref(true)
const host = ref('')
const whyNot = computed(() =>
  isNumber(host.value)
    ? `Browsers keep passkeys for addresses with a name only, and Jovrel is opened as ${host.value} here.`
    : 'This browser keeps no passkeys here: they need a newer browser and an encrypted connection.',
)
onMounted(() => {
  isPossible.value = canUsePasskeys()
  host.value = location.hostname
})
const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' })
const inUse = ({ lastUsedAt }: PasskeyRow) =>
  lastUsedAt ? `last used ${day.format(new Date(lastUsedAt))}` : 'not used yet'

function close() {
  isAdding.value = false
  leaving.value = null
  password.value = ''
  problem.value = null
  problems.value = {}
}
function beginAdding() {
  title.value = browserName(navigator.userAgent)
  isAdding.value = true
}

function beginRemoving(key: PasskeyRow) {
  close()
  leaving.value = key
}

async function add() {
  const body = { password: password.value }
  const asked = await send(() => api.call(passkeyEndpoints.beginPasskey, { body }))
  if (!asked) return
  try {
    const credential = await makePasskey(asked.options)
    const added = await send(() =>
      api.call(passkeyEndpoints.addPasskey, { body: { title: title.value, credential } }),
    )
    if (!added) return
    codes.value = added.codes
    close()
    await refresh()
    notices.say(
      added.codes.length > 0
        ? 'The passkey is added. Every other browser is signed out.'
        : 'The passkey is added.',
    )
    emit('changed')
  } catch (error) {
    if (!(error instanceof PasskeyRefused)) throw error
    problem.value = error.message
  }
}

async function remove() {
  const { id, title: gone } = leaving.value!
  const done = await send(() =>
    api.call(passkeyEndpoints.removePasskey, {
      params: { passkeyId: id },
      body: { password: password.value },
    }),
  )
  if (!done) return
  if (!done.isOn) codes.value = []
  close()
  step.value = done
  notices.say(`The passkey “${gone}” signs you in no more. You can delete it in the device, too.`)
}
</script>

<template>
  <section v-if="step">
    <h2>Passkeys</h2>
    <p class="lead">
      A passkey signs you in by your finger, your face or the PIN of your device, without a password. Nobody
      can guess it or ask it of you in a false mail.
    </p>
    <ClientOnly>
      <ul v-if="step.passkeys.length > 0" class="account-rows" aria-label="Your passkeys">
        <li v-for="key in step.passkeys" :key="key.id">
          <span
            ><b>{{ key.title }}</b> <span class="muted">{{ inUse(key) }}</span>{{ ' '
            }}<span v-if="key.site !== host" class="muted">works at {{ key.site }} only</span></span
          >
          <TextButton :aria-label="`Remove the passkey ${key.title}`" @click="beginRemoving(key)">
            Remove
          </TextButton>
        </li>
      </ul>
    </ClientOnly>
    <RecoveryCodes v-if="codes.length > 0" :codes="codes" @kept="codes = []" />
    <form v-if="leaving" novalidate @submit.prevent="remove">
      <p>Remove the passkey “{{ leaving.title }}”?</p>
      <PasswordAgain v-model="password" :email="email" name="passkey-password" :problem="problems.password" />
      <FormFoot
        label="Remove the passkey"
        :busy="busy"
        :problem="problem"
        :problems="problems"
        @cancel="close"
      />
    </form>
    <form v-else-if="isAdding" novalidate @submit.prevent="add">
      <LabelledField
        v-model="title"
        label="Name of the passkey"
        name="passkey-title"
        autocomplete="off"
        hint="By which you know it later: this phone, the blue key."
        :problem="problems.title"
      />
      <PasswordAgain v-model="password" :email="email" name="passkey-password" :problem="problems.password" />
      <FormFoot
        label="Make the passkey"
        :busy="busy"
        :problem="problem"
        :problems="problems"
        @cancel="close"
      />
    </form>
    <p v-else-if="isPossible" class="acts">
      <TextButton @click="beginAdding">Add a passkey</TextButton>
    </p>
    <p v-else class="hint">{{ whyNot }}</p>
  </section>
</template>
