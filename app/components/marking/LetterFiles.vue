<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { v7 } from 'uuid'
import type { LetterFile } from '#shared/marking/desk'
import { toBase64 } from '~/composables/files/readFile'
import { useRecorder } from '~/composables/files/useRecorder'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as filesEndpoints from '#shared/files/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** What goes with a letter: files, and what the marker says aloud. */
const props = defineProps<{ seminarId: string; files: readonly LetterFile[] }>()
const emit = defineEmits<{ change: [files: LetterFile[]] }>()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const { recording, clock, refused, begin, end } = useRecorder(file => void take(file, true), 'spoken note')
async function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = [...(input.files ?? [])]
  input.value = ''
  for (const file of chosen) await take(file, false)
}
async function take(file: File, spoken: boolean) {
  const kept = await send(async () =>
    api.call(filesEndpoints.addSeminarFile, {
      params: { seminarId: props.seminarId },
      body: {
        id: v7(),
        name: file.name,
        base64: await toBase64(file),
        transcript: null,
      },
    }),
  )
  if (kept)
    emit('change', [
      ...props.files,
      { id: kept.id, url: kept.url, name: kept.name, type: kept.type, size: kept.size, spoken },
    ])
}
function off(file: LetterFile) {
  const before = [...props.files]
  emit(
    'change',
    before.filter(f => f.id !== file.id),
  )
  notices.say(`${file.name} no longer goes with the letter.`, {
    label: 'Undo',
    run: () => emit('change', before),
  })
}
</script>

<template>
  <div class="with">
    <ul v-if="files.length > 0">
      <li v-for="f in files" :key="f.id">
        <audio v-if="f.type.startsWith('audio/')" controls preload="metadata" :src="f.url" /><a
          v-else
          :href="f.url"
          target="_blank"
          >{{ f.name }}</a
        ><TextButton :aria-label="`Remove ${f.name}`" @click="off(f)">remove</TextButton>
      </li>
    </ul>
    <p class="add">
      <template v-if="recording"
        ><span class="live" role="status">recording, {{ clock }}</span
        ><TextButton @click="end">Stop and save</TextButton></template
      >
      <template v-else
        ><label class="link"
          >{{ busy ? 'uploading …' : 'add a file'
          }}<FileInput
            multiple
            accept="image/*,application/pdf,audio/*,video/webm,video/mp4"
            class="visually-hidden"
            :disabled="busy"
            @change="choose" /></label
        ><TextButton :disabled="busy" @click="begin">speak a note</TextButton></template
      >
    </p>
    <p v-if="problem || refused" class="field-problem" role="alert">{{ problem ?? refused }}</p>
  </div>
</template>

<style scoped>
.with {
  font-size: 0.78125rem;
  margin-top: 7px;
}
ul {
  list-style: none;
  display: grid;
  gap: 5px;
  margin-bottom: 5px;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
li a {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
audio {
  height: 28px;
  flex: 1;
  min-width: 0;
}
.add {
  display: flex;
  gap: 14px;
  align-items: center;
}
label {
  position: relative;
  cursor: pointer;
}
label:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
  border-radius: 3px;
}
.live {
  color: var(--ember);
}
</style>
