<script setup lang="ts">
import LabelledField from '~/components/controls/LabelledField.vue'
import DoorPage from '~/components/shell/DoorPage.vue'

useHead({ title: 'Join a seminar' })
const code = ref('')
const problem = ref<string | null>(null)
function go() {
  const plain = code.value.trim().toUpperCase().replace(/\s+/g, '')
  if (!/^[A-Z0-9-]{4,20}$/.test(plain)) {
    problem.value = 'A joining code looks like KELP-4QX. Check its letters.'
    return
  }
  void navigateTo(`/join/${plain}`)
}
</script>

<template>
  <DoorPage
    heading="Join a seminar"
    lead="Write the code your instructor gave you, from the board or a letter."
  >
    <form novalidate @submit.prevent="go">
      <LabelledField
        v-model="code"
        label="Joining code"
        name="code"
        autocomplete="off"
        autocapitalize="characters"
        autofocus
        :problem="problem ?? undefined"
      />
      <v-btn class="main" type="submit">Go on</v-btn>
    </form>
    <p class="small"><NuxtLink to="/sign-in">Sign in instead</NuxtLink></p>
  </DoorPage>
</template>
