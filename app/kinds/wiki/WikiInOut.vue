<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { addressOf } from '#shared/http/endpoint'
import type { WikiView } from '#shared/kinds/wiki/wiki'
import { plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useUpload } from '~/composables/files/useUpload'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

/** A wiki taken along as a site or as Markdown, and pages taken in from Markdown. */
const props = defineProps<{ activityId: string; view: WikiView }>()
const emit = defineEmits<{ taken: [] }>()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const out = (as: string) =>
  addressOf(wikiEndpoints.downloadWiki, {
    params: { activityId: props.activityId },
    query: { as, group: props.view.groupId },
  })
const { upload, problem: notUploaded } = useUpload(props.activityId, () => null)
const left = ref<readonly string[]>([])
async function take(event: Event) {
  const input = event.target as HTMLInputElement // its own event
  const chosen = [...(input.files ?? [])]
  input.value = ''
  if (chosen.length === 0) return
  left.value = []
  const answer = await send(async () => {
    const { readPageFiles } = await import('./readPageFiles')
    const { pages, pictures } = await readPageFiles(chosen)
    const uploaded: Array<{ path: string; fileId: string }> = []
    for (const { path, file } of pictures) {
      const kept = await upload(file)
      if (!kept) throw new Error(`${notUploaded.value ?? ''} Nothing was imported.`.trim())
      uploaded.push({ path, fileId: kept.id })
    }
    return api.call(wikiEndpoints.importPages, {
      params: { activityId: props.activityId },
      body: { key: newKey(), groupId: props.view.groupId, files: [...pages], pictures: uploaded },
    })
  })
  if (!answer) return
  left.value = answer.left
  const made = answer.pages.filter(p => p.isNew).length
  const listed = answer.left.length > 0 ? ' What was not imported is listed under “Export and import”.' : ''
  notices.say(
    `${answer.pages.length} ${plural(answer.pages.length, 'page')} came in: ${made} new, ${answer.pages.length - made} as another version.${listed}`,
  )
  emit('taken')
}
</script>

<template>
  <details class="in-out">
    <summary>{{ view.may.write ? 'Export and import' : 'Export' }}</summary>
    <p>
      as <a :href="out('site')" download>a site (zip)</a> or
      <a :href="out('markdown')" download>Markdown (zip)</a>
    </p>
    <p v-if="view.may.write">
      <label class="link"
        >Import pages from Markdown<FileInput
          multiple
          accept=".md,.markdown,text/markdown,.zip,application/zip,image/png,image/jpeg,image/webp,image/gif"
          class="visually-hidden"
          :disabled="busy"
          @change="take"
      /></label>
    </p>
    <p v-if="view.may.write" class="hint">
      Choose their pictures with them, or one zip of both. Code, tasks, tables, formulas and footnotes are
      kept.
    </p>
    <p v-if="busy" role="status">Importing …</p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <ul v-if="left.length > 0" class="left" aria-label="What was not imported">
      <li v-for="(sentence, i) in left" :key="i" dir="auto">{{ sentence }}</li>
    </ul>
  </details>
</template>

<style scoped>
.in-out {
  border-top: 1px solid var(--line-soft);
  margin-top: 12px;
  padding: 10px 20px 0;
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
}
summary {
  cursor: pointer;
  font-weight: 650;
  font-size: 0.8125rem;
  color: var(--ink);
}
p {
  margin-top: 6px;
}
.left {
  margin: 8px 0 0;
  padding-left: 1.1em;
  overflow-wrap: anywhere;
}
label.link:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
  border-radius: 4px;
}
</style>
