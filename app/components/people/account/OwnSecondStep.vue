<script setup lang="ts">
import type { SecondFactorSecret } from '#shared/people/secondFactor'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import AccountName from '~/components/controls/AccountName.vue'
import LabelledField from '~/components/controls/LabelledField.vue'
import TextButton from '~/components/controls/TextButton.vue'
import FormFoot from './FormFoot.vue'

/** The second step when signing in: a code of an app beside the password, and recovery codes for the day the phone is gone. */
const props = defineProps<{ email: string }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send } = useSending()
const {
  data: step,
  error,
  refresh,
} = await useAsyncData('second-factor', () => api.call(secondFactorEndpoints.readSecondFactor))
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
    if (!(await send(() => api.call(secondFactorEndpoints.endSecondFactor, { body })))) return
    codes.value = []
    notices.say('The second step is off. Your password alone signs you in.')
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

async function copy() {
  await navigator.clipboard.writeText(codes.value.join('\n'))
  notices.say('Copied. Keep the codes where you find them without your phone.')
}
</script>

<template>
  <section>
    <h2>Second step when signing in</h2>
    <p v-if="error" class="field-problem" role="alert">
      {{ error.message }} <TextButton @click="refresh()">Try again</TextButton>
    </p>
    <template v-else-if="step">
      <p class="lead">
        {{
          step.isOn
            ? 'After your password, a code from an app on your phone is asked for.'
            : 'After your password, a code from an app on your phone can be asked for. Whoever learns your password then still cannot sign in.'
        }}
        <template v-if="step.isDemanded && !step.isOn">
          This Jovrel asks it of everybody who teaches: seminars open for you once it is on.
        </template>
      </p>
      <p v-if="step.isOn && codes.length === 0" class="hint">
        {{ step.codesLeft }} of your recovery codes are not used yet.
      </p>
      <div v-if="codes.length > 0" class="codes">
        <p>
          These recovery codes sign you in once each, when you do not have your phone. They are shown only
          now.
        </p>
        <ul aria-label="Recovery codes">
          <li v-for="c in codes" :key="c">{{ c }}</li>
        </ul>
        <p class="acts">
          <v-btn @click="copy">Copy the codes</v-btn>
          <TextButton @click="codes = []">I have kept them</TextButton>
        </p>
      </div>
      <p v-if="form === null" class="acts">
        <TextButton v-if="!step.isOn" @click="form = 'begin'">Set it up</TextButton>
        <template v-else>
          <TextButton @click="form = 'codes'">Make new recovery codes</TextButton>
          <TextButton v-if="!step.isDemanded" @click="form = 'end'">Turn it off</TextButton>
        </template>
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
        <AccountName :email="props.email" />
        <LabelledField
          v-model="password"
          label="Your password"
          name="second-step-password"
          type="password"
          autocomplete="current-password"
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
.key,
.codes ul {
  font-family: ui-monospace, monospace;
}
.codes {
  display: grid;
  gap: 10px;
  width: 100%;
  border: 1px solid var(--line);
  background: var(--sheet);
  padding: 14px 18px;
}
.codes ul {
  list-style: none;
  columns: 2;
  max-width: 320px;
}
</style>
