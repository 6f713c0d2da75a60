<script setup lang="ts">
import type { DeskStudent } from '#shared/marking/desk'
import { inWords, plural } from '../../composables/planning/expectationWords'

const props = defineProps<{ held: readonly DeskStudent[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ return: [ids: string[]] }>()
const left = reactive(new Set<string>())
const chosen = computed(() => props.held.filter(s => !left.has(s.id)))
const toggle = (id: string) => { if (!left.delete(id)) left.add(id) }
</script>

<template>
  <v-dialog v-model="open" max-width="440" aria-label="Return held marks">
    <div class="card box">
      <h2>Return {{ held.length === 1 ? 'the held mark' : `${inWords(held.length)} held marks` }}</h2>
      <p>Each student gets letter, steps and points. Leave out whom you like.</p>
      <ul><li v-for="s in held" :key="s.id"><label><input type="checkbox" :checked="!left.has(s.id)" @change="toggle(s.id)"> {{ s.name }}</label></li></ul>
      <div class="acts"><v-btn class="main" :disabled="chosen.length === 0" @click="emit('return', chosen.map(s => s.id))">Return to {{ inWords(chosen.length) }} {{ plural(chosen.length, 'student') }}</v-btn><v-btn class="quiet" @click="open = false">Not yet</v-btn></div>
    </div>
  </v-dialog>
</template>

<style scoped>
.box { padding: 20px 24px 22px; }
h2 { font: 600 1.125rem/1.3 var(--read); }
p { color: var(--ink-2); margin-top: 4px; }
ul { list-style: none; margin: 12px 0 16px; max-height: 46vh; overflow: auto; }
li { border-top: 1px solid var(--line-soft); }
label { display: flex; gap: 10px; align-items: center; padding: 7px 2px; cursor: pointer; }
input { accent-color: var(--harbour); }
.acts { display: flex; gap: 8px; }
</style>
