<script setup lang="ts">
import { localInstant } from '#core/planning/week'
import type { DeskStudent } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'

const props = defineProps<{
  held: readonly DeskStudent[]
  called: (s: DeskStudent) => string
  notHeld: number
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  return: [ids: string[], at: string | null, when: string]
  preview: [id: string]
}>()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const left = reactive(new Set<string>())
const later = ref(false)
const when = ref('')
const chosen = computed(() => props.held.filter(s => !left.has(s.id)))
const toggle = (id: string) => {
  if (!left.delete(id)) left.add(id)
}
const at = computed(() =>
  when.value
    ? localInstant(when.value.slice(0, 10), when.value.slice(11, 16), seminar.shell!.timeZone).toISOString()
    : null,
)
const wrong = computed(() =>
  later.value && at.value !== null && at.value <= (seminar.shell?.now ?? '')
    ? 'That time is over. Choose one that is to come.'
    : null,
)
const go = () =>
  emit(
    'return',
    chosen.value.map(s => s.id),
    later.value ? at.value : null,
    at.value ? dayTime(at.value) : '',
  )
</script>

<template>
  <v-dialog v-model="open" max-width="460" aria-label="Return held marks">
    <div class="card box">
      <h2>Return {{ held.length === 1 ? 'the held mark' : `${inWords(held.length)} held marks` }}</h2>
      <p>
        Each student gets letter, steps and points. Leave out whom you like; for ten minutes each can be taken
        back, and only then are students told.
      </p>
      <p v-if="notHeld > 0" class="apart">
        The plan returns all together, and {{ inWords(notHeld) }} {{ plural(notHeld, 'is', 'are') }} ready and
        not held yet.
      </p>
      <ul>
        <li v-for="s in held" :key="s.id">
          <label
            ><input type="checkbox" :checked="!left.has(s.id)" @change="toggle(s.id)" />
            {{ called(s) }}</label
          ><button class="link small" type="button" @click="emit('preview', s.id)">see the letter</button>
        </li>
      </ul>
      <p class="when">
        <label><input v-model="later" type="checkbox" /> at a time</label
        ><input v-if="later" v-model="when" class="in" type="datetime-local" aria-label="When they return" />
      </p>
      <p v-if="wrong" class="field-problem" role="alert">{{ wrong }}</p>
      <div class="acts">
        <v-btn class="main" :disabled="chosen.length === 0 || (later && (!at || wrong !== null))" @click="go"
          >{{ later ? 'Return then to' : 'Return to' }} {{ inWords(chosen.length) }}
          {{ plural(chosen.length, 'student') }}</v-btn
        ><v-btn class="quiet" @click="open = false">Not yet</v-btn>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 20px 24px 22px;
}
h2 {
  font: 600 1.125rem/1.3 var(--read);
}
p {
  color: var(--ink-2);
  margin-top: 4px;
}
ul {
  list-style: none;
  margin: 12px 0 12px;
  max-height: 46vh;
  overflow: auto;
}
li {
  border-top: 1px solid var(--line-soft);
  display: flex;
  justify-content: space-between;
  align-items: center;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 7px 2px;
  cursor: pointer;
}
.apart {
  color: var(--ember);
}
.when {
  display: flex;
  gap: 12px;
  align-items: center;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
</style>
