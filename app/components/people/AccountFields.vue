<script setup lang="ts">
import type { AccountWrite } from '#shared/people/account'

/** Name, address and password of an account in the making. Sentences of what is wrong stand at their fields. */
const account = defineModel<AccountWrite>({ required: true })
defineProps<{ problems: Readonly<Record<string, string>> }>()
const FIELDS = [
  ['givenName', 'First name', 'given-name', 'text'],
  ['familyName', 'Family name', 'family-name', 'text'],
  ['email', 'E-mail', 'username', 'email'],
  ['password', 'Password', 'new-password', 'password'],
] as const
const set = (field: keyof AccountWrite, value: string) => {
  account.value = { ...account.value, [field]: value }
}
</script>

<template>
  <div class="account">
    <div v-for="[field, label, auto, type] in FIELDS" :key="field" class="field" :class="field">
      <label :for="field">{{ label }}</label>
      <v-text-field
        :id="field"
        :model-value="account[field]"
        :type="type"
        :autocomplete="auto"
        :aria-describedby="problems[field] ? `${field}-problem` : undefined"
        @update:model-value="set(field, $event)"
      />
      <p v-if="problems[field]" :id="`${field}-problem`" class="field-problem" role="alert">
        {{ problems[field] }}
      </p>
      <p v-else-if="field === 'password'" class="hint">Ten characters or more.</p>
    </div>
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
