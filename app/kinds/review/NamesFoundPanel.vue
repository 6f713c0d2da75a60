<script setup lang="ts">
import type { FoundNameView } from '#shared/kinds/review/review'

/** What in a text would tell who wrote it, before it is handed in. It is the writer's to decide. */
const props = defineProps<{
  found: readonly FoundNameView[]
  notSearched?: readonly string[] // names of papers without words that can be read
  what: string
  verb: string
}>()
const emit = defineEmits<{ goOn: []; back: [] }>()
const list = computed(() => [...new Map(props.found.map(f => [f.exact, f])).values()])
const words = (f: FoundNameView) =>
  f.isOwn
    ? { name: 'your name', email: 'your address', number: 'your student number' }[f.kind]
    : { name: 'somebody’s name here', email: 'somebody’s address', number: 'somebody’s number' }[f.kind]
const back = ref<HTMLElement | null>(null)
onMounted(() => back.value?.querySelector('button')?.focus())
</script>

<template>
  <section class="found" role="alertdialog" aria-label="Names in it">
    <h3>This could tell who is who</h3>
    <p v-if="list.length > 0">Names are hidden here, and {{ what }} holds:</p>
    <ul v-if="list.length > 0">
      <li v-for="f in list" :key="f.exact">
        <b>“{{ f.exact }}”</b> {{ words(f) }}
      </li>
    </ul>
    <p v-for="name in notSearched" :key="name">
      The pages of “{{ name }}” are pictures, so no names could be looked for in it. Look through it yourself.
    </p>
    <p ref="back" class="acts">
      <v-btn class="main" @click="emit('back')">Go back and edit</v-btn
      ><v-btn @click="emit('goOn')">{{ verb }} as it is</v-btn>
    </p>
  </section>
</template>

<style scoped>
.found {
  border: 1.5px solid var(--ember);
  border-radius: var(--r);
  background: var(--ember-soft);
  padding: 12px 16px 14px;
  display: grid;
  gap: 6px;
  margin: 10px 0;
}
h3 {
  font: 600 1rem/1.3 var(--read);
}
ul {
  list-style: none;
  display: grid;
  gap: 2px;
}
li b {
  font: 600 0.9375rem/1.4 var(--read);
  margin-right: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 4px;
}
</style>
