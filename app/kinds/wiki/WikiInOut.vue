<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { addressOf } from '#shared/http/endpoint'
import type { WikiView } from '#shared/kinds/wiki/wiki'
import { plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
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
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const files = await Promise.all(
    [...(input.files ?? [])].map(async f => ({ name: f.name, text: await f.text() })),
  )
  input.value = ''
  if (files.length === 0) return
  const answer = await send(() =>
    api.call(wikiEndpoints.importPages, {
      params: { activityId: props.activityId },
      body: {
        key: newKey(),
        groupId: props.view.groupId,
        files,
      },
    }),
  )
  if (!answer) return
  const made = answer.pages.filter(p => p.isNew).length
  notices.say(
    `${answer.pages.length} ${plural(answer.pages.length, 'page')} came in: ${made} new, ${answer.pages.length - made} as another version.`,
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
          accept=".md,.markdown,text/markdown"
          class="visually-hidden"
          :disabled="busy"
          @change="take"
      /></label>
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
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
label.link:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
  border-radius: 4px;
}
</style>
