<script setup lang="ts">
import type { AccountView } from '#shared/people/account'
import * as accountEndpoints from '#shared/people/accountEndpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSessionStore } from '~/stores/session'
import LabelledField from '~/components/controls/LabelledField.vue'

/** One's own name, as everybody sees it. */
const account = defineModel<AccountView>({ required: true })
const api = useApi()
const notices = useNotices()
const session = useSessionStore()
const { busy, problems, problem, send } = useSending()
const givenName = ref(account.value.givenName)
const familyName = ref(account.value.familyName)
const isChanged = computed(
  () =>
    givenName.value.trim() !== account.value.givenName ||
    familyName.value.trim() !== account.value.familyName,
)
async function save() {
  const body = { givenName: givenName.value, familyName: familyName.value }
  const changed = await send(() => api.call(accountEndpoints.changeName, { body }))
  if (!changed) return
  account.value = changed
  await session.load()
  notices.say(`Your name is ${changed.name} from now on.`)
}
</script>

<template>
  <section>
    <h2>Name</h2>
    <form novalidate @submit.prevent="save">
      <div class="pair">
        <LabelledField
          v-model="givenName"
          label="First name"
          name="given-name"
          autocomplete="given-name"
          :problem="problems.givenName"
        />
        <LabelledField
          v-model="familyName"
          label="Family name"
          name="family-name"
          autocomplete="family-name"
          :problem="problems.familyName"
        />
      </div>
      <p v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">
        {{ problem }}
      </p>
      <v-btn v-if="isChanged" class="main" type="submit" :disabled="busy">Save the name</v-btn>
    </form>
  </section>
</template>
