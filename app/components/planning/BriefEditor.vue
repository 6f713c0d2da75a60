<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import type { Editor } from '@tiptap/vue-3'
import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import { plural } from '#core/language'
import { insertPicture } from '~/composables/contributing/insertPicture'
import { toBase64 } from '~/composables/files/readFile'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import RichEditor from '../contributing/RichEditor.vue'
import { briefNodes } from './briefNodes'
import * as filesEndpoints from '#shared/files/endpoints'

/** A brief or a starter: text with pictures, files, video, formulas and tables. */
const props = defineProps<{ doc: RichNode; label: string; seminarId: string; placeholder?: string }>()
const emit = defineEmits<{ write: [doc: RichNode] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const rich = ref<InstanceType<typeof RichEditor> | null>(null)
// what the editor exposes is not in the type of a component with generic props
const editor = () => (rich.value as unknown as { editor: Editor | undefined } | null)?.editor
const words = computed(() => countWords(plainText(props.doc)))

async function upload(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  // a transcript chosen together with its recording goes along with it
  const transcript = files.find(f => /\.vtt$/i.test(f.name))
  for (const file of files.filter(f => f !== transcript))
    await take(file, transcript ? await transcript.text() : null)
}
async function take(file: File, transcript: string | null = null) {
  const kept = await send(async () =>
    api.call(filesEndpoints.addSeminarFile, {
      params: { seminarId: props.seminarId },
      body: {
        id: newKey(),
        name: file.name,
        base64: await toBase64(file),
        transcript,
      },
    }),
  )
  if (!kept) return
  if (kept.type.startsWith('image/')) insertPicture(editor(), kept.url)
  else
    editor()
      ?.chain()
      .focus()
      .insertContent({
        type: /^(audio|video)\//.test(kept.type) ? 'recording' : 'paper',
        attrs: { src: kept.url, name: kept.name, type: kept.type },
      })
      .run()
}
const isEmpty = computed(() => plainText(props.doc) === '')
</script>

<template>
  <div
    class="brief-editor"
    :class="{ blank: isEmpty }"
    :style="placeholder ? { '--placeholder': JSON.stringify(placeholder) } : undefined"
    @dragover.prevent
    @drop="$event.dataTransfer?.files[0] && ($event.preventDefault(), take($event.dataTransfer.files[0]!))"
  >
    <RichEditor
      ref="rich"
      :doc="doc"
      :label="label"
      :more="briefNodes"
      formulas
      @write="emit('write', $event)"
    >
      <template #before
        ><b class="what">{{ label }}</b></template
      >
      <template #tools>
        <label class="pick" title="PNG, JPEG, WebP or GIF"
          >Picture<FileInput accept="image/*" class="visually-hidden" :disabled="busy" @change="upload"
        /></label>
        <label class="pick" title="PDF, video or sound, up to 20 MB; choose a WebVTT transcript along with it"
          >File or video<FileInput
            multiple
            accept="application/pdf,video/*,audio/*,.vtt"
            class="visually-hidden"
            :disabled="busy"
            @change="upload"
        /></label>
      </template>
      <template #after
        ><span class="hint">{{
          busy ? 'taking the file in …' : `${words} ${plural(words, 'word')}`
        }}</span></template
      >
    </RichEditor>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.brief-editor {
  position: relative;
}
.what {
  font: 600 0.8125rem/1 var(--ui);
  color: var(--ink-2);
  margin-right: 10px;
}
.brief-editor :deep(.tools) {
  padding-left: 0;
}
.brief-editor :deep(.prose) {
  padding: 9px 0 6px;
  min-height: 3.6em;
}
/* stands in the text itself, wherever the tools above it end */
.blank :deep(.prose)::before {
  content: var(--placeholder, '');
  float: left;
  height: 0;
  color: var(--ink-3);
  pointer-events: none;
}
</style>
