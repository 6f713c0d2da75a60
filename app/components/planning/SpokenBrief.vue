<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import { toBase64 } from '~/composables/files/readFile'
import { useRecorder } from '~/composables/files/useRecorder'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as filesEndpoints from '#shared/files/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** The brief spoken by the instructor: recorded in the browser, heard beside the text. */
const props = defineProps<{ fileId: string | null; seminarId: string }>()
const emit = defineEmits<{ change: [fileId: string | null] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const { recording, clock, refused, begin, end } = useRecorder(file => void keep(file), 'spoken-brief')

async function keep(file: File) {
  const kept = await send(async () =>
    api.call(filesEndpoints.addSeminarFile, {
      params: { seminarId: props.seminarId },
      body: {
        id: newKey(),
        name: file.name,
        base64: await toBase64(file),
        transcript: null,
      },
    }),
  )
  if (kept) emit('change', kept.id)
}
const recordVerb = computed(() => {
  if (busy.value) return 'keeping it …'
  if (props.fileId) return 'Speak it again'
  return 'Speak the brief as well'
})
</script>

<template>
  <p class="spoken">
    <audio
      v-if="fileId && !recording"
      controls
      preload="metadata"
      :src="addressOf(filesEndpoints.readFile, { params: { fileId } })"
    />
    <TextButton v-if="!recording" :disabled="busy" @click="begin">
      {{ recordVerb }}
    </TextButton>
    <template v-else
      ><span class="live" role="status">recording, {{ clock }}</span
      ><TextButton @click="end">Stop and save</TextButton></template
    >
    <TextButton v-if="fileId && !recording" @click="emit('change', null)"> Remove </TextButton>
    <span v-if="problem || refused" class="field-problem" role="alert">{{ problem ?? refused }}</span>
  </p>
</template>

<style scoped>
.spoken {
  display: flex;
  gap: 14px;
  align-items: center;
  font-size: 0.8125rem;
  padding: 4px 0 2px;
  flex-wrap: wrap;
}
audio {
  height: 30px;
}
.live {
  color: var(--brick);
  font-weight: 600;
}
</style>
