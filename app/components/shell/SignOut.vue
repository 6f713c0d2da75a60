<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { inWords, plural } from '#core/language'
import { useWordsHere } from '~/composables/people/wordsHere'
import { useSending } from '~/composables/shell/useSending'
import { useSessionStore } from '~/stores/session'

/** Signing out. Words that are in this browser alone are sent first; where that fails, one is asked what becomes of them. */
const session = useSessionStore()
const words = useWordsHere()
const { attempt } = useSending()
const asked = ref(false)
const busy = ref(false)
const count = ref(0)
async function leave() {
  if (busy.value) return
  busy.value = true
  try {
    count.value = await words.count()
    if (count.value > 0) asked.value = true
    else await signOut(false)
  } finally {
    busy.value = false
  }
}
/** Loads a whole new page after it: nothing of who was signed in stays in memory. */
async function signOut(isForgetting: boolean) {
  await attempt(async () => {
    if (isForgetting) await words.forget() // first: a page whose session has ended may be left at any moment
    await session.signOut()
    window.location.assign('/sign-in')
  })
}
</script>

<template>
  <slot :leave="leave" :busy="busy" />
  <ModalDialog v-model="asked" max-width="500" aria-label="Words that were not sent">
    <div class="card box">
      <h2>{{ count === 1 ? 'One text is' : `${inWords(count)} texts are` }} in this browser only</h2>
      <p>
        Jovrel could not take {{ plural(count, 'it', 'them') }} yet. If you keep
        {{ plural(count, 'it', 'them') }}, nobody else who signs in here is shown
        {{ plural(count, 'it', 'them') }}, but {{ plural(count, 'it stays', 'they stay') }} on this computer.
        If others use it too, it is safer to stay until it is sent, or to delete.
      </p>
      <div class="acts">
        <v-btn class="main" @click="asked = false">Stay signed in</v-btn>
        <v-btn @click="signOut(false)">Sign out and keep {{ plural(count, 'it', 'them') }} here</v-btn>
        <v-btn class="quiet" @click="signOut(true)"
          >Sign out and delete {{ plural(count, 'it', 'them') }}</v-btn
        >
      </div>
    </div>
  </ModalDialog>
</template>

<style scoped>
.box {
  padding: 20px 24px 22px;
}
h2 {
  font: 600 1.125rem/1.3 var(--read);
}
h2::first-letter {
  text-transform: uppercase;
}
p {
  color: var(--ink-2);
  margin-top: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 16px;
}
</style>
