<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { DeskStudent } from '#shared/marking/desk'
import { capital, inWords, plural } from '#core/language'
import { lateWords } from '~/composables/marking/lateWords'
import { points } from '~/composables/marking/points'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import TextButton from '~/components/controls/TextButton.vue'
import MomentField from '~/components/controls/MomentField.vue'

/** What is about to go out, student by student, and when they see it. */
const props = defineProps<{
  held: readonly DeskStudent[]
  called: (s: DeskStudent) => string
  notHeld: number
  max: number // hundredths
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  return: [ids: string[], at: string | null, when: string]
  preview: [id: string]
}>()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const zone = useSeminarZone()
const left = reactive(new Set<string>())
const later = ref(false)
const when = ref('')
const chosen = computed(() => props.held.filter(s => !left.has(s.id)))
const toggle = (id: string) => {
  if (!left.delete(id)) left.add(id)
}
const at = computed(() => (when.value ? zone.instantOf(when.value) : null))
const wrong = computed(() =>
  later.value && at.value !== null && at.value <= (seminar.shell?.now ?? '')
    ? 'That time is over. Choose one that is to come.'
    : null,
)
const without = computed(() => chosen.value.filter(s => s.held?.hasLetter === false))
const pointsOf = ({ held }: DeskStudent) => {
  if (!held) return ''
  const now = `${points(held.points)} of ${points(props.max)}`
  return held.returned === null || held.returned === held.points ? now : `${points(held.returned)} → ${now}`
}
const lateOf = ({ held }: DeskStudent) => {
  if (!held || held.lateMinutes === 0) return ''
  return `${lateWords(held.lateMinutes)} late${held.lateWaived ? ', counted as on time' : ''}`
}
const notesOf = (s: DeskStudent) =>
  [
    lateOf(s),
    s.held?.setByHand && 'points set by hand',
    s.held?.returnAt && `returns ${dayTime(s.held.returnAt)}`,
  ]
    .filter(Boolean)
    .join(' · ')
const letterOf = ({ held }: DeskStudent) => (held?.hasLetter ? 'a letter' : 'no letter')
const seesWhen = computed(() =>
  later.value
    ? 'From that time on each student can open letter, steps and points; ten minutes later they are told.'
    : 'Each student can open letter, steps and points at once; in ten minutes they are told.',
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
  <ModalDialog v-model="open" max-width="560" aria-label="Return held marks">
    <div class="card box">
      <h2>Return {{ held.length === 1 ? 'the held mark' : `${inWords(held.length)} held marks` }}</h2>
      <p>{{ seesWhen }} Until they are told you can take each mark back.</p>
      <p v-if="notHeld > 0" class="apart">
        The plan returns all together, and {{ inWords(notHeld) }} {{ plural(notHeld, 'is', 'are') }} ready and
        not held yet.
      </p>
      <div class="list">
        <table class="num">
          <thead>
            <tr>
              <th scope="col">Student</th>
              <th scope="col">Points</th>
              <th scope="col">Letter</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in held" :key="s.id" :class="{ out: left.has(s.id) }">
              <th scope="row">
                <label
                  ><PlainCheckbox :checked="!left.has(s.id)" @change="toggle(s.id)" /> {{ called(s) }}</label
                >
                <p v-if="notesOf(s)" class="notes">{{ notesOf(s) }}</p>
              </th>
              <td>{{ pointsOf(s) }}</td>
              <td>
                <TextButton
                  :class="{ warn: s.held?.hasLetter === false }"
                  :aria-label="`${letterOf(s)}: see what ${called(s)} will get`"
                  @click="emit('preview', s.id)"
                >
                  {{ letterOf(s) }}
                </TextButton>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="without.length > 0" class="apart" role="status">
        {{
          without.length === 1
            ? `${called(without[0]!)} would get steps and points without a letter.`
            : `${capital(inWords(without.length))} students would get steps and points without a letter.`
        }}
      </p>
      <div class="when">
        <CheckBox v-model="later">at a time</CheckBox
        ><MomentField
          v-if="later"
          v-model="when"
          label="When they return"
          :today="zone.today.value"
          usual="09:00"
        /><span v-if="later && zone.named.value" class="hint">{{ zone.named.value }}</span>
      </div>
      <p v-if="wrong" class="field-problem" role="alert">{{ wrong }}</p>
      <div class="acts">
        <v-btn class="main" :disabled="chosen.length === 0 || (later && (!at || wrong !== null))" @click="go"
          >{{ later ? 'Return then to' : 'Return to' }} {{ inWords(chosen.length) }}
          {{ plural(chosen.length, 'student') }}</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
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
p {
  color: var(--ink-2);
  margin-top: 4px;
}
.list {
  margin: 12px 0;
  max-height: 46vh;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.8125rem;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
  color: var(--ink-2);
  font-size: 0.75rem;
}
th,
td {
  text-align: left;
  padding: 2px 10px 2px 2px;
  font-weight: 500;
}
td {
  white-space: nowrap;
}
tbody tr {
  border-top: 1px solid var(--line-soft);
}
.out td {
  color: var(--ink-3);
}
.notes {
  color: var(--ink-2);
  font-size: 0.75rem;
  white-space: normal;
  margin: -4px 0 5px 30px;
}
.warn {
  color: var(--ember);
  font-weight: 600;
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
