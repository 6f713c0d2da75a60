<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { v7 } from 'uuid'
import { fillPhrase, findPhrases } from '#core/marking/phrases'
import type { PhraseView } from '#shared/marking/desk'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as markingEndpoints from '#shared/marking/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** Remarks kept for reuse: sought by words, those for the criterion at hand and lately used first; chosen by arrows and Enter. */
const props = defineProps<{ seminarId: string; criterion: string | null; points: string | null }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ insert: [text: string] }>()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const list = shallowRef<readonly PhraseView[] | null>(null)
const failed = ref<string | null>(null)
const words = ref('')
const at = ref(0)
async function load() {
  failed.value = null
  try {
    list.value = (
      await api.call(markingEndpoints.readPhrases, { params: { seminarId: props.seminarId } })
    ).phrases
  } catch (error) {
    failed.value = error instanceof Error ? error.message : String(error)
  }
}
watch(
  open,
  is => {
    if (is) {
      words.value = ''
      at.value = 0
      void load()
    }
  },
  { immediate: true },
)
const found = computed(() => {
  const byId = new Map((list.value ?? []).map(p => [p.id, p]))
  return findPhrases(
    [...byId.values()].map(p => ({ ...p, lastUsedAt: p.lastUsedAt ? new Date(p.lastUsedAt) : null })),
    words.value,
    props.criterion,
    new Date(),
  )
    .slice(0, 60)
    .map(p => byId.get(p.id)!)
})
const atHand = computed(() => found.value[at.value] ?? null)
watch(words, () => {
  at.value = 0
})
// the student's own name is filled in when the letter is returned
const fill = (text: string) =>
  fillPhrase(text, { criterion: props.criterion?.toLowerCase(), points: props.points ?? undefined } as Record<
    string,
    string
  >)
function choose(p: PhraseView) {
  emit('insert', fill(p.text))
  open.value = false
  void api
    .call(markingEndpoints.recordPhraseUse, {
      params: { seminarId: props.seminarId, phraseId: p.id },
    })
    .catch(() => {})
}
const isNew = computed(
  () =>
    list.value !== null &&
    words.value.trim().length > 12 &&
    !found.value.some(p => p.text === words.value.trim()),
)
async function keep() {
  const kept = await send(() =>
    api.call(markingEndpoints.savePhrase, {
      params: { seminarId: props.seminarId },
      body: { id: v7(), text: words.value.trim(), criterion: props.criterion },
    }),
  )
  if (kept) {
    list.value = [kept, ...(list.value ?? [])]
    choose(kept)
  }
}
async function drop(p: PhraseView) {
  if (
    (await send(() =>
      api.call(markingEndpoints.removePhrase, { params: { seminarId: props.seminarId, phraseId: p.id } }),
    )) === null
  )
    return
  list.value = (list.value ?? []).filter(x => x.id !== p.id)
  notices.say('The phrase is gone.', {
    label: 'Restore',
    run: async () => {
      const kept = await api.call(markingEndpoints.savePhrase, {
        params: { seminarId: props.seminarId },
        body: { id: v7(), text: p.text, criterion: p.criterion },
      })
      list.value = [kept, ...(list.value ?? [])]
    },
  })
}
function onKey(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(found.value.length - 1, at.value + 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (event.key === 'Enter') {
    const p = found.value[at.value]
    if (p) choose(p)
    else if (isNew.value) void keep()
    else return
  } else return
  event.preventDefault()
  void nextTick(() => document.getElementById(`phrase-${at.value}`)?.scrollIntoView({ block: 'nearest' }))
}
</script>

<template>
  <ModalDialog v-model="open" max-width="560" aria-label="Phrases">
    <div class="card box">
      <label class="lab"
        >Phrases<LineInput
          v-model="words"
          class="in"
          autofocus
          placeholder="words of a phrase, or a new one to keep"
          role="combobox"
          :aria-expanded="found.length > 0"
          :aria-controls="list ? 'phrases' : undefined"
          :aria-activedescendant="found[at] ? `phrase-${at}` : undefined"
          @keydown="onKey"
      /></label>
      <p v-if="failed" class="field-problem" role="alert">
        {{ failed }} <TextButton @click="load">Try again</TextButton>
      </p>
      <p v-else-if="!list" class="hint">fetching them …</p>
      <ul v-else id="phrases" role="listbox" aria-label="Phrases">
        <li
          v-for="(p, i) in found"
          :id="`phrase-${i}`"
          :key="p.id"
          role="option"
          :aria-selected="i === at"
          :class="{ on: i === at }"
          @mouseenter="at = i"
          @click="choose(p)"
        >
          {{ fill(p.text)
          }}<span class="hint"
            >{{ p.criterion ?? 'any criterion'
            }}<template v-if="p.uses > 0"> · used {{ p.uses }}×</template></span
          >
        </li>
      </ul>
      <p v-if="atHand" class="hint">
        <kbd>Enter</kbd> inserts it.
        <TextButton @click="drop(atHand)"> Forget the phrase at hand </TextButton>
      </p>
      <p v-if="list && found.length === 0 && !isNew" class="hint">
        {{
          list.length === 0
            ? 'None kept yet. Write one above: “{first name}”, “{criterion}” and “{points}” are filled in.'
            : 'None holds these words.'
        }}
      </p>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p v-if="isNew" class="keep">
        <v-btn :disabled="busy" @click="keep"
          >Save it{{ criterion ? ` for ${criterion.toLowerCase()}` : '' }} and insert it</v-btn
        >
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.on .hint {
  color: var(--ink-2);
}
.box {
  padding: 18px 20px;
  display: grid;
  gap: 10px;
}
ul {
  list-style: none;
  max-height: 48vh;
  overflow-y: auto;
  margin: 0 -8px;
}
li {
  border-radius: var(--r);
  padding: 8px;
  font: 400 0.9375rem/1.45 var(--read);
  cursor: pointer;
}
li.on {
  background: var(--harbour-soft);
}
li .hint {
  display: block;
  font-family: var(--ui);
}
</style>
