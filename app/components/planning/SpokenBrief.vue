<script setup lang="ts">
import type { FileView } from '#shared/files/file'
import { toBase64 } from '../../composables/files/readFile'
import { newKey, useApi } from '../../composables/shell/useApi'
import { useSending } from '../../composables/shell/useSending'

/** The brief spoken by the instructor: recorded in the browser, heard beside the text. */
const props = defineProps<{ fileId: string | null, seminarId: string }>()
const emit = defineEmits<{ change: [fileId: string | null] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const recorder = shallowRef<MediaRecorder | null>(null)
const seconds = ref(0)
const refused = ref<string | null>(null)
let ticking: ReturnType<typeof setInterval> | undefined
const LONGEST = 600 // seconds

async function begin() {
  refused.value = null
  try {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    const parts: Blob[] = []
    const rec = new MediaRecorder(stream)
    rec.ondataavailable = event => parts.push(event.data)
    rec.onstop = () => {
      for (const track of stream.getTracks()) track.stop()
      clearInterval(ticking)
      void keep(new Blob(parts, { type: rec.mimeType }))
    }
    rec.start()
    recorder.value = rec
    seconds.value = 0
    ticking = setInterval(() => { if (++seconds.value >= LONGEST) end() }, 1000)
  }
  catch { refused.value = 'The microphone is not open to this page. Allow it in the browser, then try again.' }
}
function end() {
  recorder.value?.stop()
  recorder.value = null
}
async function keep(blob: Blob) {
  const kept = await send(async () => api.post<FileView>(`/api/seminars/${props.seminarId}/files`, { id: newKey(), name: `spoken-brief.${blob.type.includes('ogg') ? 'ogg' : blob.type.includes('mp4') ? 'm4a' : 'weba'}`, base64: await toBase64(blob), transcript: null }))
  if (kept) emit('change', kept.id)
}
onBeforeUnmount(() => { clearInterval(ticking); recorder.value?.stop() })
const clock = computed(() => `${Math.floor(seconds.value / 60)}:${String(seconds.value % 60).padStart(2, '0')}`)
</script>

<template>
  <p class="spoken">
    <audio v-if="fileId && !recorder" controls preload="metadata" :src="`/api/files/${fileId}`" />
    <button v-if="!recorder" class="link" type="button" :disabled="busy" @click="begin">{{ busy ? 'keeping it …' : fileId ? 'Speak it again' : 'Speak the brief as well' }}</button>
    <template v-else><span class="live" role="status">recording, {{ clock }}</span><button class="link" type="button" @click="end">Stop and keep it</button></template>
    <button v-if="fileId && !recorder" class="link" type="button" @click="emit('change', null)">Take it off</button>
    <span v-if="problem || refused" class="field-problem" role="alert">{{ problem ?? refused }}</span>
  </p>
</template>

<style scoped>
.spoken { display: flex; gap: 14px; align-items: center; font-size: 0.8125rem; padding: 4px 0 2px; flex-wrap: wrap; }
audio { height: 30px; }
.live { color: var(--brick); font-weight: 600; }
</style>
