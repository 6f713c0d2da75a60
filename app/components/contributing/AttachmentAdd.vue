<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import type { Attachable, AttachLimits } from '#core/contributing/talkSettings'
import type { AttachedFile } from '#shared/contributing/thread'
import { useRecorder } from '~/composables/files/useRecorder'
import { useUpload } from '~/composables/files/useUpload'
import { useNotices } from '~/stores/notices'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/**
 * Files that come with a text: chosen or spoken (the tools), and shown with a way to take them off again (the list). What
 * stands in the text is taken off there.
 */
const props = defineProps<{
  part: 'tools' | 'list'
  activityId: string
  limits: AttachLimits
  files: readonly AttachedFile[]
  /** Ids of the pictures that stand in the text. */
  inText?: readonly string[]
}>()
const emit = defineEmits<{ change: [files: readonly AttachedFile[]] }>()
const notices = useNotices()
const { busy, problem, upload } = useUpload(props.activityId, () => props.limits)
const { recording, clock, refused, begin, end } = useRecorder(file => void take(file), 'voice')
const ACCEPT: Readonly<Record<Attachable, string>> = {
  picture: 'image/png,image/jpeg,image/webp,image/gif',
  paper: 'application/pdf',
  document: '.docx',
  recording: 'audio/*,video/webm,video/mp4',
}
const accept = computed(() => props.limits.types.map(t => ACCEPT[t]).join(','))
const listed = computed(() => props.files.filter(f => !props.inText?.includes(f.id)))
const full = computed(() => props.files.length >= props.limits.most)

async function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = [...(input.files ?? [])]
  input.value = ''
  for (const file of chosen) await take(file)
}
async function take(file: File) {
  const kept = await upload(file)
  if (kept) emit('change', [...props.files, kept])
}
function off(file: AttachedFile) {
  const before = props.files
  emit(
    'change',
    before.filter(f => f.id !== file.id),
  )
  notices.say(`${file.name} is removed.`, { label: 'Undo', run: () => emit('change', before) })
}
const sizeWords = (bytes: number) =>
  bytes >= 1_000_000 ? `${(bytes / 1_000_000).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1000))} kB`
</script>

<template>
  <span v-if="part === 'tools'" class="add">
    <span v-if="problem || refused" class="field-problem" role="alert">{{ problem ?? refused }}</span>
    <template v-if="recording"
      ><span class="live" role="status">recording, {{ clock }}</span
      ><TextButton @click="end">Stop and save</TextButton></template
    >
    <template v-else-if="!full">
      <label class="pick"
        >{{ busy ? 'uploading …' : 'Add a file'
        }}<FileInput multiple :accept="accept" class="visually-hidden" :disabled="busy" @change="choose"
      /></label>
      <PlainButton v-if="limits.types.includes('recording')" :disabled="busy" @click="begin">
        Speak
      </PlainButton>
    </template>
    <span v-else class="hint">{{ limits.most }} of {{ limits.most }} files</span>
  </span>
  <ul v-else-if="listed.length > 0" class="files">
    <li v-for="f in listed" :key="f.id">
      <img v-if="f.type.startsWith('image/')" :src="f.url" alt="" /><audio
        v-else-if="f.type.startsWith('audio/')"
        controls
        preload="metadata"
        :src="f.url"
      /><b>{{ f.name }}</b
      ><span class="hint num">{{ sizeWords(f.size) }}</span
      ><TextButton :aria-label="`Remove ${f.name}`" @click="off(f)">remove</TextButton>
    </li>
  </ul>
</template>

<style scoped>
.add {
  display: inline-flex;
  gap: 4px 8px;
  align-items: center;
  flex-wrap: wrap;
}
.pick,
.add button:not(.link) {
  padding: 4px 8px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink-2);
  cursor: pointer;
}
.pick:hover,
.add button:not(.link):hover {
  background: var(--sunken);
  color: var(--ink);
}
.pick:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.live {
  color: var(--brick);
  font-weight: 600;
}
.files {
  list-style: none;
  margin: 0;
  padding: 4px 14px 8px;
  display: grid;
  gap: 6px;
  font-size: 0.8125rem;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
li b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
img {
  width: 44px;
  height: 34px;
  object-fit: cover;
  border-radius: 4px;
  border: 1px solid var(--line);
}
audio {
  height: 28px;
  max-width: 220px;
}
</style>
