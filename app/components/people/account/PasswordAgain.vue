<script setup lang="ts">
import AccountName from '~/components/controls/AccountName.vue'
import LabelledField from '~/components/controls/LabelledField.vue'

/** The password of who is signed in, asked again before something of the account is changed. */
const password = defineModel<string>({ required: true })
defineProps<{
  readonly email: string
  readonly name: string // of the field, unique on the page
  readonly problem?: string
}>()
</script>

<template>
  <AccountName :email="email" />
  <LabelledField
    v-model="password"
    label="Your password"
    :name="name"
    type="password"
    autocomplete="current-password"
    :problem="problem"
  />
</template>
