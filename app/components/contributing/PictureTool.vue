<script setup lang="ts">
import type { AttachLimits } from '#core/contributing/talkSettings'
import type { FileView } from '#shared/files/file'
import FileInput from '~/components/controls/FileInput.vue'
import { useUpload } from '~/composables/files/useUpload'

/** Puts a picture into the text at the caret. */
const props = withDefaults(
  defineProps<{
    activityId: string
    /** How large it may be. */
    limits?: Pick<AttachLimits, 'megabytes'> | null
    disabled?: boolean
  }>(),
  { limits: null },
)
const emit = defineEmits<{ kept: [file: FileView] }>()
const { busy, problem, upload } = useUpload(props.activityId, () => props.limits)
async function take(file: File) {
  const kept = await upload(file)
  if (kept?.type.startsWith('image/')) emit('kept', kept)
}
function choose(event: Event) {
  const input = event.target as HTMLInputElement // its own event
  const file = input.files?.[0]
  input.value = ''
  if (file) void take(file)
}
defineExpose({ take })
</script>

<template>
  <label class="pick" title="PNG, JPEG, WebP or GIF"
    >{{ busy ? 'uploading …' : 'Picture'
    }}<FileInput
      accept="image/png,image/jpeg,image/webp,image/gif"
      class="visually-hidden"
      :disabled="busy || disabled"
      @change="choose"
  /></label>
  <span v-if="problem" class="field-problem" role="alert">{{ problem }}</span>
</template>
