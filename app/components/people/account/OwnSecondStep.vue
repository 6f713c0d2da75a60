<script setup lang="ts">
import type { SecondFactorSecret } from '#shared/people/secondFactor'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'
import { useSecondStep } from '~/composables/people/useSecondStep'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import LabelledField from '~/components/controls/LabelledField.vue'
import TextButton from '~/components/controls/TextButton.vue'
import FormFoot from './FormFoot.vue'
import PasswordAgain from './PasswordAgain.vue'
import RecoveryCodes from './RecoveryCodes.vue'

/** The second step when signing in: a code of an app beside the password, and recovery codes for the day the phone is gone. */
const props = defineProps<{ email: string }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send } = useSending()
const { data: step, error, refresh } = await useSecondStep()
type Form = 'begin' | 'codes' | 'end'
const VERBS: Readonly<Record<Form, string>> = {
  begin: 'Go on',
  codes: 'Make new codes',
  end: 'Turn it off',
}
const form = ref<Form | null>(null)
const password = ref('')
const code = ref('')
const secret = ref<SecondFactorSecret | null>(null)
const codes = ref<readonly string[]>([])
const picture = computed(() => `data:image/svg+xml;utf8,${encodeURIComponent(secret.value?.qr ?? '')}`)
const secretInFours = computed(() => secret.value?.secret.replace(/(.{4})/g, '$1 ').trim() ?? '')

function close() {
  form.value = null
  secret.value = null
  password.value = ''
  code.value = ''
}

/** The password is shown again for each of them. */
async function withPassword() {
  const body = { password: password.value }
  if (form.value === 'begin') {
    secret.value = await send(() => api.call(secondFactorEndpoints.beginSecondFactor, { body }))
    return
  }
  if (form.value === 'codes') {
    const made = await send(() => api.call(secondFactorEndpoints.renewRecoveryCodes, { body }))
    if (!made) return
    codes.value = made.codes
    notices.say('New recovery codes are made. The old ones open nothing any more.')
  } else {
    const left = await send(() => api.call(secondFactorEndpoints.endSecondFactor, { body }))
    if (!left) return
    if (!left.isOn) codes.value = []
    notices.say(
      left.isOn
        ? 'The app’s codes are of no use any more. Your passkeys still are.'
        : 'The second step is off. Your password alone signs you in.',
    )
  }
  close()
  await refresh()
}

async function confirm() {
  const made = await send(() =>
    api.call(secondFactorEndpoints.confirmSecondFactor, { body: { code: code.value } }),
  )
  if (!made) return
  codes.value = made.codes
  close()
  await refresh()
  notices.say('The second step is on. Every other browser is signed out.')
  emit('changed')
}

/** Where a second step is demanded, one of its ways has to stay. */
const mayEnd = computed(() => !step.value?.isDemanded || step.value.passkeys.length > 0)
const lead = computed(() => {
  if (step.value?.hasApp) return 'After your password, a code from an app on your phone is asked for.'
  if (step.value?.isOn)
    return 'After your password, a passkey or a recovery code is asked for. An app on your phone can make codes, too.'
  return 'After your password, a code from an app on your phone can be asked for. Whoever learns your password then still cannot sign in.'
})
</script>

<template>
  <section>
    <h2>Second step when signing in</h2>
    <p v-if="error" class="field-problem" role="alert">
      {{ error.message }} <TextButton @click="refresh()">Try again</TextButton>
    </p>
    <template v-else-if="step">
      <p class="lead">
        {{ lead }}
        <template v-if="step.isDemanded && !step.isOn">
          This Jovrel asks a code or a passkey of everybody who teaches: seminars open for you once you have
          one.
        </template>
      </p>
      <p v-if="step.isOn && codes.length === 0" class="hint">
        {{ step.codesLeft }} of your recovery codes are not used yet.
      </p>
      <RecoveryCodes v-if="codes.length > 0" :codes="codes" @kept="codes = []" />
      <p v-if="form === null" class="acts">
        <TextButton v-if="!step.hasApp" @click="form = 'begin'">Set it up</TextButton>
        <TextButton v-if="step.isOn" @click="form = 'codes'">Make new recovery codes</TextButton>
        <TextButton v-if="step.hasApp && mayEnd" @click="form = 'end'">Turn it off</TextButton>
      </p>
      <form v-else-if="secret" novalidate @submit.prevent="confirm">
        <div class="secret">
          <img :src="picture" alt="A code to scan with the app" width="180" height="180" />
          <p>
            Scan this with the app that makes your codes, or type this key into it:<br /><span class="key">{{
              secretInFours
            }}</span>
          </p>
        </div>
        <LabelledField
          v-model="code"
          label="The code the app shows"
          name="second-step-code"
          autocomplete="one-time-code"
          :problem="problems.code"
        />
        <FormFoot label="Turn it on" :busy="busy" :problem="problem" :problems="problems" @cancel="close" />
      </form>
      <form v-else novalidate @submit.prevent="withPassword">
        <PasswordAgain
          v-model="password"
          :email="props.email"
          name="second-step-password"
          :problem="problems.password"
        />
        <FormFoot :label="VERBS[form]" :busy="busy" :problem="problem" :problems="problems" @cancel="close" />
      </form>
    </template>
  </section>
</template>

<style scoped>
.secret {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  align-items: center;
}
.secret img {
  background: #fff;
  border: 1px solid var(--line);
  padding: 6px;
}
.secret p {
  flex: 1;
  min-width: 200px;
}
.key {
  font-family: ui-monospace, monospace;
}
</style>
