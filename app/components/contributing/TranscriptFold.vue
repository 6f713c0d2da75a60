<script setup lang="ts">
import { readWebVtt, type Cue } from '#core/files/webVtt'
import * as filesEndpoints from '#shared/files/endpoints'
import { addressOf } from '#shared/http/endpoint'
import FileInput from '~/components/controls/FileInput.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { clock } from '~/composables/files/clock'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'

/** What is said in a recording, to be read; each line plays from its time. Whoever may can add it, at any time. */
const props = defineProps<{
  fileId: string
  /** Of the recording, as its player has it. */
  url: string
  mayAdd: boolean
}>()
const api = useApi()
const notices = useNotices()
const { busy, problem, problems, send } = useSending()
const params = { fileId: props.fileId }
const cues = shallowRef<readonly Cue[]>([])
const open = ref(false)
const listId = useId()

/** None, where it has none, or where it is not to be had just now. */
async function load() {
  const answer = await fetch(addressOf(filesEndpoints.readFileTranscript, { params })).catch(() => null)
  try {
    cues.value = answer?.ok ? readWebVtt(await answer.text()) : []
  } catch {
    cues.value = [] // a recording without a transcript has its first line alone
  }
}
onMounted(load)

async function keep(transcript: string | null, said: string) {
  const kept = await send(() => api.call(filesEndpoints.keepFileTranscript, { params, body: { transcript } }))
  if (!kept) return
  await load()
  open.value = cues.value.length > 0
  notices.say(said, { label: 'Undo', run: () => keep(kept.before, 'It is as it was.') })
}
async function choose(event: Event) {
  const input = event.target as HTMLInputElement // its own event
  const file = input.files?.[0]
  input.value = ''
  if (file) await keep(await file.text(), 'The transcript is added.')
}
function play(at: number) {
  const player = document.querySelector<HTMLMediaElement>(
    `audio[src="${props.url}"], video[src="${props.url}"]`,
  )
  if (!player) return
  player.currentTime = at
  void player.play()
}
</script>

<template>
  <div v-if="cues.length > 0 || mayAdd" class="transcript">
    <p class="acts">
      <TextButton v-if="cues.length > 0" :aria-expanded="open" :aria-controls="listId" @click="open = !open">
        {{ open ? 'fold what is said' : 'read what is said' }}
      </TextButton>
      <template v-if="mayAdd">
        <label class="link" title="A transcript in WebVTT"
          >{{ cues.length > 0 ? 'another transcript' : 'add a transcript'
          }}<FileInput accept=".vtt,text/vtt" class="visually-hidden" :disabled="busy" @change="choose"
        /></label>
        <TextButton v-if="cues.length > 0" @click="keep(null, 'The transcript is removed.')"
          >remove it</TextButton
        >
      </template>
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problems.transcript ?? problem }}</p>
    <ol v-if="open" :id="listId" tabindex="0" aria-label="What is said">
      <li v-for="(cue, i) in cues" :key="i">
        <TextButton class="num" :aria-label="`Play from ${clock(cue.from)}`" @click="play(cue.from)">
          {{ clock(cue.from) }}</TextButton><span dir="auto"
          ><b v-if="cue.voice && cues[i - 1]?.voice !== cue.voice">{{ cue.voice }}: </b>{{ cue.text }}</span
        >
      </li>
    </ol>
  </div>
</template>

<style scoped>
.transcript {
  font-size: 0.8125rem;
  margin: 2px 0 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
}
.acts label {
  position: relative;
  cursor: pointer;
}
.acts label:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
}
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 8px 12px;
  max-height: 260px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--paper);
}
li {
  display: grid;
  grid-template-columns: 2.6rem minmax(0, 1fr);
  gap: 10px;
  align-items: baseline;
  font: 400 0.9375rem/1.5 var(--read);
  padding: 1px 0;
}
li .num {
  font: 500 0.75rem/1.4 var(--ui);
  text-align: end;
}
</style>
