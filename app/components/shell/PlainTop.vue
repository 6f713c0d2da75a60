<script setup lang="ts">
import { useSessionStore } from '~/stores/session'
import SignOut from './SignOut.vue'
import TextButton from '~/components/controls/TextButton.vue'

const session = useSessionStore()
const route = useRoute()
</script>

<template>
  <header class="plain-top">
    <NuxtLink class="mark" to="/?all=1" aria-label="Jovrel, home">J<i>o</i>vrel</NuxtLink>
    <nav aria-label="Your Jovrel">
      <NuxtLink to="/?all=1" :class="{ here: route.path === '/' }">Seminars</NuxtLink>
      <NuxtLink to="/account">Account</NuxtLink>
      <NuxtLink v-if="session.session?.person.mailroom" to="/mailroom">Mailroom</NuxtLink>
      <NuxtLink v-if="session.session?.person.readsAccessLog" to="/access-log">Access log</NuxtLink>
      <SignOut v-slot="{ leave, busy }"
        ><TextButton :disabled="busy" @click="leave">Sign out</TextButton></SignOut
      >
    </nav>
  </header>
</template>

<style scoped>
.plain-top {
  min-height: 50px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  padding: 8px 20px;
  gap: 6px 22px;
  border-bottom: 1px solid var(--line);
}
.mark {
  font: 600 1.1875rem/1 var(--read);
  letter-spacing: -0.02em;
  color: var(--harbour-deep);
  text-decoration: none;
}
.mark i {
  color: var(--ember);
  font-style: normal;
}
nav {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
nav > * {
  white-space: nowrap;
}
nav a {
  text-decoration: none;
  color: var(--ink-2);
  font-weight: 500;
}
nav a.router-link-exact-active,
nav a.here {
  color: var(--harbour-deep);
  font-weight: 650;
}
nav .link {
  color: var(--ink-2);
  font-size: inherit;
}
</style>
