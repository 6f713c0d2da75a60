<script setup lang="ts">
import type { AttachedFile } from '#shared/contributing/thread'
import TranscriptFold from './TranscriptFold.vue'
import TextButton from '~/components/controls/TextButton.vue'

/**
 * Files that came with a text, shown in place: pictures, recordings, papers, and documents as text, so that
 * nobody has to download them.
 */
const props = defineProps<{
  files: readonly AttachedFile[]
  /** The text they came with: a picture that stands in it is not shown again. */
  html: string
  /** Whether the reader can say what is heard in them. */
  mayTranscribe: boolean
}>()
const listed = computed(() => props.files.filter(f => !props.html.includes(f.url)))
const open = reactive(new Set<string>())
const texts = reactive(new Map<string, string>())
const failed = reactive(new Set<string>())

async function toggle(file: AttachedFile) {
  if (open.delete(file.id)) return
  open.add(file.id)
  if (!file.hasText || texts.has(file.id)) return
  const answer = await fetch(`${file.url}/text`).catch(() => null)
  if (answer?.ok) texts.set(file.id, await answer.text())
  else failed.add(file.id)
}
const isShownAtOnce = (f: AttachedFile) => f.type.startsWith('image/') || /^(audio|video)\//.test(f.type)
</script>

<template>
  <div v-if="listed.length > 0" class="files">
    <template v-for="f in listed" :key="f.id">
      <figure v-if="f.type.startsWith('image/')">
        <a :href="f.url" target="_blank"
          ><img :src="f.url" :alt="f.name.replace(/\.[^.]+$/, '')" loading="lazy"
        /></a>
        <figcaption>{{ f.name }}</figcaption>
      </figure>
      <figure v-else-if="isShownAtOnce(f)">
        <audio v-if="f.type.startsWith('audio/')" controls preload="metadata" :src="f.url" /><video
          v-else
          controls
          preload="metadata"
          :src="f.url"
        >
          <track kind="captions" :src="`${f.url}/transcript`" srclang="en" label="Transcript" />
        </video>
        <figcaption>{{ f.name }}</figcaption>
        <TranscriptFold :file-id="f.id" :url="f.url" :may-add="mayTranscribe" />
      </figure>
      <div v-else class="paper">
        <TextButton :aria-expanded="open.has(f.id)" @click="toggle(f)">
          {{ open.has(f.id) ? 'fold' : 'read' }} {{ f.name }}</TextButton
        >{{ ' ' }}<a class="hint" :href="f.url" :download="f.name">as a file</a>
        <template v-if="open.has(f.id)">
          <iframe v-if="f.type === 'application/pdf'" :src="f.url" :title="f.name" loading="lazy" />
          <p v-else-if="failed.has(f.id)" class="field-problem">
            Its text cannot be shown just now. Fold it and open it again, or download it.
          </p>
          <!-- eslint-disable vue/no-v-html -- sanitised on the server when it was uploaded -->
          <div
            v-else
            class="sheet prose"
            tabindex="0"
            :aria-label="f.name"
            dir="auto"
            v-html="texts.get(f.id) ?? '…'"
          />
          <!-- eslint-enable vue/no-v-html -->
        </template>
      </div>
    </template>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  margin-top: 8px;
  font-size: 0.8125rem;
}
figure {
  margin: 0;
  max-width: 300px;
}
img {
  display: block;
  max-width: 100%;
  max-height: 220px;
  border-radius: var(--r);
  border: 1px solid var(--line);
}
audio {
  height: 32px;
}
video {
  max-width: 100%;
  border-radius: var(--r);
}
figcaption {
  color: var(--ink-3);
  font-size: 0.75rem;
  margin-top: 2px;
}
.paper {
  flex: 1 0 100%;
}
iframe {
  display: block;
  width: 100%;
  height: 460px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  margin-top: 6px;
  background: var(--sunken);
}
.sheet {
  max-height: 420px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--paper);
  padding: 14px 20px;
  margin-top: 6px;
}
</style>
