<script setup lang="ts">
import type { AccountWrite } from '#shared/people/account'
import LabelledField from '~/components/controls/LabelledField.vue'

/** Name, address and password of an account in the making. Sentences of what is wrong stand at their fields. */
const account = defineModel<AccountWrite>({ required: true })
defineProps<{ problems: Readonly<Record<string, string>> }>()
const FIELDS = [
  ['givenName', 'First name', 'given-name', 'text'],
  ['familyName', 'Family name', 'family-name', 'text'],
  ['email', 'E-mail', 'username', 'email'],
  ['password', 'Password', 'new-password', 'password'],
] as const
let latest = account.value // several fields may be set before what was set arrives here again
watch(account, now => (latest = now))
const set = (field: keyof AccountWrite, value: string) => {
  latest = { ...latest, [field]: value }
  account.value = latest
}
</script>

<template>
  <div class="account">
    <LabelledField
      v-for="[field, label, auto, type] in FIELDS"
      :key="field"
      :model-value="account[field]"
      :label="label"
      :name="field"
      :class="field"
      :type="type"
      :autocomplete="auto"
      :problem="problems[field]"
      :hint="field === 'password' ? 'Ten characters or more.' : undefined"
      @update:model-value="set(field, $event)"
    />
  </div>
</template>

<style scoped>
.account {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.email,
.password {
  grid-column: 1 / -1;
}
@media (max-width: 420px) {
  .account {
    grid-template-columns: 1fr;
  }
}
</style>
