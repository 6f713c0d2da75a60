<script setup lang="ts">
import TranscriptFold from './TranscriptFold.vue'

/** What is said in the recordings that stand in a text, below it. */
const props = defineProps<{ html: string; mayAdd: boolean }>()
const RECORDING = /<(?:audio|video)[^>]*? src="(\/api\/files\/([0-9a-f-]{36}))"/g
const recordings = computed(() =>
  [...props.html.matchAll(RECORDING)].map(([, url, fileId]) => ({ url: url!, fileId: fileId! })),
)
</script>

<template>
  <TranscriptFold
    v-for="r in recordings"
    :key="r.fileId"
    :file-id="r.fileId"
    :url="r.url"
    :may-add="mayAdd"
  />
</template>
