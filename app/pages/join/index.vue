<script setup lang="ts">
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
      <div class="field">
        <label for="code">Joining code</label>
        <v-text-field
          id="code"
          v-model="code"
          autocomplete="off"
          autocapitalize="characters"
          autofocus
          :aria-describedby="problem ? 'problem' : undefined"
        />
        <p v-if="problem" id="problem" class="field-problem" role="alert">{{ problem }}</p>
      </div>
      <v-btn class="main" type="submit">Go on</v-btn>
    </form>
    <p class="small"><NuxtLink to="/sign-in">Sign in instead</NuxtLink></p>
  </DoorPage>
</template>
