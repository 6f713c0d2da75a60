<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { plural } from '#core/language'
import { paragraphs } from '#core/contributing/richText'
import type { PeersView } from '#shared/marking/peers'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { points } from '~/composables/marking/points'
import * as peersEndpoints from '#shared/marking/peersEndpoints'
import PractisedList from './PractisedList.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Samples everyone reviews before the real ones, with the instructor's own scores. */
const props = defineProps<{ view: PeersView; activityId: string; nameOf: (id: string) => string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ changed: [said: string] }>()
const api = useApi()
const { busy, problem, problems, send } = useSending()
const samples = computed(() => props.view.works.filter(w => w.isSample))
const practised = (id: string) => props.view.allocations.filter(a => a.entryId === id && a.state === 'in')
const text = ref('')
const given = reactive<Record<string, string>>({})
const why = reactive<Record<string, string>>({})
const criteria = computed(() => props.view.rubric?.criteria ?? [])
async function put() {
  const scores = Object.fromEntries(
    criteria.value.flatMap(c =>
      given[c.id]?.trim() ? [[c.id, Math.round(Number(given[c.id]!.replace(',', '.')) * 100)]] : [],
    ),
  )
  const key = newKey()
  if (
    (await send(() =>
      api.call(peersEndpoints.addSample, {
        params: { activityId: props.activityId },
        body: {
          key,
          id: key,
          doc: paragraphs(text.value),
          points: scores,
          why: { ...why },
        },
      }),
    )) === null
  )
    return
  text.value = ''
  for (const c of criteria.value) {
    given[c.id] = ''
    why[c.id] = ''
  }
  emit('changed', 'The sample is up. Everyone practises on it, and then sees your scores.')
}
async function away(id: string) {
  if (
    (await send(() =>
      api.call(peersEndpoints.removeSample, { params: { activityId: props.activityId, entryId: id } }),
    )) !== null
  )
    emit('changed', 'The sample is deleted.')
}
</script>

<template>
  <ModalDialog v-model="open" max-width="680" aria-label="Practice round">
    <div class="card dialog">
      <h2>Practice round</h2>
      <p class="muted">
        Everyone scores the samples first and sees how far they are off. Your scores anchor the estimate of
        how each reader marks.
      </p>
      <ul v-if="samples.length > 0">
        <li v-for="s in samples" :key="s.id">
          <b>{{ s.title }}</b><span class="hint num"
            >{{ s.words }} words · you gave
            {{ criteria.map(c => points(view.samples[s.id]?.[c.id] ?? 0)).join(' ') }} ·
            {{ practised(s.id).length }} {{ plural(practised(s.id).length, 'has', 'have') }} practised</span
          ><TextButton class="small" @click="away(s.id)">delete</TextButton>
          <PractisedList
            v-if="practised(s.id).length > 0"
            class="practised"
            :criteria="criteria"
            :own="view.samples[s.id] ?? {}"
            :reviews="practised(s.id)"
            :name-of="nameOf"
          />
        </li>
      </ul>
      <h3>{{ samples.length === 0 ? 'A sample' : 'Another sample' }}</h3>
      <label class="lab">Text <LinesInput v-model="text" class="in" rows="6" /></label>
      <div v-for="c in criteria" :key="c.id" class="one">
        <b>{{ c.title }}</b><LineInput
          v-model="given[c.id]"
          class="in short"
          inputmode="decimal"
          :placeholder="`0–${points(c.max)}`"
          :aria-label="`Your score for ${c.title}`"
        /><LineInput
          v-model="why[c.id]"
          class="in"
          placeholder="why, in a line"
          :aria-label="`Why, for ${c.title}`"
        />
      </div>
      <p v-if="problem" class="field-problem" role="alert">
        {{ problems.points ?? problems.doc ?? problem }}
      </p>
      <p class="acts">
        <v-btn class="main" :disabled="busy || text.trim() === ''" @click="put">Post sample</v-btn
        ><v-btn class="quiet" @click="open = false">Close</v-btn>
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
h3 {
  font-size: 0.875rem;
}
ul {
  list-style: none;
  border-top: 1px solid var(--line-soft);
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line-soft);
}
li .hint {
  grid-column: 1;
}
.one {
  display: grid;
  grid-template-columns: 130px 80px 1fr;
  gap: 8px;
  align-items: center;
}
</style>
