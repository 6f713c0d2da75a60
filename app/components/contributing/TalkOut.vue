<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { ActivityView } from '#shared/contributing/activity'
import type { FeedView, TalkExportForm } from '#shared/contributing/talkExport'
import { offerFile } from '~/composables/files/readFile'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** What one can take along: the talk as a file, or a private address for a feed reader. */
const props = defineProps<{ activity: ActivityView }>()
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const open = ref(false)
const feed = shallowRef<FeedView | null>(null)
const FORMS: ReadonlyArray<readonly [TalkExportForm, string]> = [
  ['html', 'HTML'],
  ['md', 'Markdown'],
  ['json', 'JSON'],
]
watch(open, is => {
  if (is && !feed.value)
    void attempt(async () => {
      feed.value = await api.call(contributingEndpoints.readFeed, {
        params: { activityId: props.activity.id },
      })
    })
})
const take = (form: TalkExportForm) =>
  attempt(async () => {
    const file = await api.call(contributingEndpoints.exportThread, {
      params: { activityId: props.activity.id },
      query: { as: form },
    })
    offerFile(file.name, file.type, file.text)
  })
const make = () =>
  attempt(async () => {
    feed.value = await api.call(contributingEndpoints.makeFeed, { params: { activityId: props.activity.id } })
  })
const drop = () =>
  attempt(async () => {
    feed.value = await api.call(contributingEndpoints.closeFeed, {
      params: { activityId: props.activity.id },
    })
    notices.say('That address opens nothing any more.')
  })
const copy = () =>
  attempt(async () => {
    await navigator.clipboard.writeText(feed.value!.address!)
    notices.say('Copied.')
  })
const name = (named: boolean) =>
  attempt(async () => {
    await api.call(contributingEndpoints.chooseNameInFeeds, {
      params: { seminarId: props.activity.seminarId },
      body: { named },
    })
    feed.value = { ...feed.value!, named }
  })
</script>

<template>
  <section class="out">
    <details @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary>Export</summary>
      <p class="row">
        as
        <TextButton v-for="[form, label] in FORMS" :key="form" @click="take(form)">
          {{ label }}
        </TextButton>
      </p>
      <template v-if="feed">
        <template v-if="feed.address">
          <p>In a feed reader, under an address of your own. Whoever has it can read what you can.</p>
          <p class="row">
            <LineInput
              class="in"
              :value="feed.address"
              readonly
              aria-label="Feed address"
              @focus="($event.target as HTMLInputElement).select()"
            />
          </p>
          <p class="row">
            <TextButton @click="copy">copy</TextButton><TextButton @click="make">a new one instead</TextButton
            ><TextButton @click="drop">delete it</TextButton>
          </p>
        </template>
        <p v-else class="row">
          <TextButton @click="make">follow it in a feed reader</TextButton>
        </p>
        <label class="tick"
          ><PlainCheckbox :checked="feed.named" @change="name(($event.target as HTMLInputElement).checked)" />
          my name may stand in feeds that others of the seminar follow</label
        >
      </template>
    </details>
  </section>
</template>

<style scoped>
.out {
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 12px;
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
.row {
  display: flex;
  gap: 6px 12px;
  flex-wrap: wrap;
  margin-top: 6px;
}
.in {
  width: 100%;
  font-size: 0.75rem;
  padding: 4px 8px;
}
.tick {
  display: flex;
  gap: 7px;
  margin-top: 8px;
  align-items: baseline;
}
p {
  margin-top: 6px;
}
</style>
