<script setup lang="ts">
import * as accountEndpoints from '#shared/people/accountEndpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import AccountName from '~/components/controls/AccountName.vue'
import LabelledField from '~/components/controls/LabelledField.vue'
import TextButton from '~/components/controls/TextButton.vue'
import FormFoot from './FormFoot.vue'

/** A new password in place of the present one; other browsers are signed out. */
const props = defineProps<{ email: string }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problems, problem, send } = useSending()
const isOpen = ref(false)
const current = ref('')
const password = ref('')

async function change() {
  const body = { current: current.value, password: password.value }
  if (!(await send(() => api.call(accountEndpoints.changePassword, { body })))) return
  isOpen.value = false
  current.value = ''
  password.value = ''
  notices.say('Your password is changed. Every other browser is signed out.')
  emit('changed')
}
</script>

<template>
  <section>
    <h2>Password</h2>
    <p v-if="!isOpen" class="acts">
      <TextButton @click="isOpen = true">Change the password</TextButton>
    </p>
    <form v-else novalidate @submit.prevent="change">
      <AccountName :email="props.email" />
      <LabelledField
        v-model="current"
        label="Your present password"
        name="current-password"
        type="password"
        autocomplete="current-password"
        :problem="problems.current"
      />
      <LabelledField
        v-model="password"
        label="New password"
        name="new-password"
        type="password"
        autocomplete="new-password"
        :problem="problems.password"
        hint="Ten characters or more. A few words that do not belong together are good."
      />
      <FormFoot
        label="Save the password"
        :busy="busy"
        :problem="problem"
        :problems="problems"
        @cancel="isOpen = false"
      />
    </form>
  </section>
</template>
