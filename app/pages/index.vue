<script setup lang="ts">
import BringBack from '../components/people/BringBack.vue'
import { useSessionStore } from '../stores/session'

definePageMeta({ layout: 'plain' })
const store = useSessionStore()
const route = useRoute()
const seminars = computed(() => store.session?.seminars ?? [])
const current = computed(() => seminars.value.filter(s => !s.archived))
const past = computed(() => seminars.value.filter(s => s.archived))
const founds = computed(() => store.session?.person.foundsSeminars ?? false)
// whoever has one seminar is on the way there; the list is for those with more, and for those who ask for it
if (seminars.value.length === 1 && route.query.all === undefined)
  await navigateTo(`/seminars/${seminars.value[0]!.id}`, { replace: true })
useHead({ title: 'Your seminars' })
</script>

<template>
  <main class="leaf narrow">
    <div class="leaf-head">
      <h1>Your seminars</h1>
      <span class="grow" /><NuxtLink v-if="founds" class="v-btn main go" to="/seminars/new"
        >Set up a seminar</NuxtLink
      >
    </div>
    <p v-if="seminars.length === 0" class="invite">
      {{
        founds
          ? 'Begin with the term: its first Monday, its weeks and its breaks. People, groups and activities follow in any order.'
          : 'You are in no seminar yet. An instructor adds you to one, or gives you a code to join it with.'
      }}
    </p>
    <ul>
      <li v-for="s in current" :key="s.id">
        <NuxtLink :to="`/seminars/${s.id}`"
          ><b>{{ s.title }}</b
          ><span>{{ s.code }} · {{ s.role }}</span></NuxtLink
        >
      </li>
    </ul>
    <template v-if="past.length > 0">
      <h2>Closed</h2>
      <ul>
        <li v-for="s in past" :key="s.id">
          <NuxtLink :to="`/seminars/${s.id}`"
            ><b>{{ s.title }}</b
            ><span>{{ s.code }} · {{ s.role }}</span></NuxtLink
          >
        </li>
      </ul>
    </template>
    <p class="small"><NuxtLink to="/join">Join a seminar with a code</NuxtLink></p>
    <BringBack v-if="founds" />
  </main>
</template>

<style scoped>
.narrow {
  max-width: 720px;
  padding-top: 40px;
}
ul {
  list-style: none;
  margin-bottom: 22px;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line);
}
li a {
  display: flex;
  gap: 16px;
  justify-content: space-between;
  align-items: baseline;
  padding: 13px 4px;
  text-decoration: none;
  color: inherit;
}
li a:hover {
  background: var(--sheet);
}
li b {
  font: 600 1.0625rem/1.3 var(--read);
}
li span {
  color: var(--ink-3);
  white-space: nowrap;
}
h2 {
  font: 600 0.8125rem/1.3 var(--ui);
  color: var(--ink-3);
  margin: 6px 0;
}
.go {
  display: inline-flex;
  align-items: center;
}
</style>
