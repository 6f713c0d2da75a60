<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import LineInput from '~/components/controls/LineInput.vue'
import type { VersionAdded } from '#shared/kinds/reading/reading'
import { isLanguage, PAGE_LANGUAGE } from '#core/language/languages'
import LanguageList from '~/components/controls/LanguageList.vue'
import { capital, inWords, plural } from '#core/language'
import { toBase64 } from '~/composables/files/readFile'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { FORMS, isMedia, isTranscript, sizeWords } from './libraryFiles'
import BookSupplier from './BookSupplier.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** Texts of the library: papers, articles, books and recordings, added from a file or from the book supplier. */
const props = defineProps<{ seminarId: string }>()
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const { data, error, refresh } = await useAsyncData(`texts-${props.seminarId}`, () =>
  api.call(readingEndpoints.readLibraryTexts, { params: { seminarId: props.seminarId } }),
)
const busy = ref<string | null>(null)
const remarks = ref<string[]>([])
const carried = shallowRef<{ title: string; answer: VersionAdded } | null>(null)
const waiting = shallowRef<{ media: File; textId: string | null } | null>(null) // a recording that waits for its transcript
const isBuying = ref(false)
async function picked(event: Event, textId: string | null) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  const media =
    files.find(isMedia) ?? (files.length === 1 && isTranscript(files[0]!) ? waiting.value?.media : undefined)
  const transcript = files.find(isTranscript)
  if (media && !transcript) {
    waiting.value = { media, textId: waiting.value?.textId ?? textId }
    return
  }
  if (!media && transcript) {
    notices.say('A transcript comes with its recording: choose both files together.')
    return
  }
  const file = media ?? files[0]
  if (file) await send(file, transcript ?? null, media && waiting.value ? waiting.value.textId : textId)
}
const send = (file: File, transcript: File | null, textId: string | null) =>
  attempt(async () => {
    busy.value = file.name
    remarks.value = []
    carried.value = null
    try {
      const upload = {
        key: newKey(),
        name: file.name,
        base64: await toBase64(file),
        transcript: transcript ? await transcript.text() : null,
      }
      if (textId) {
        const answer = await api.call(readingEndpoints.addTextVersion, {
          params: { seminarId: props.seminarId, textId },
          body: upload,
        })
        carried.value = { title: data.value?.texts.find(t => t.id === textId)?.title ?? '', answer }
        remarks.value = answer.remarks
      } else {
        const answer = await api.call(readingEndpoints.addText, {
          params: { seminarId: props.seminarId },
          body: {
            ...upload,
            id: newKey(),
            title: '',
            credit: '',
          },
        })
        remarks.value = answer.remarks
        notices.say(`“${answer.title}” is in the library.`)
      }
      waiting.value = null
      await refresh()
    } finally {
      busy.value = null
    }
  })
const setLanguage = (id: string, event: Event) =>
  attempt(async () => {
    const { value } = event.target as HTMLSelectElement // its own event
    await api.call(readingEndpoints.changeText, {
      params: { seminarId: props.seminarId, textId: id },
      body: { language: isLanguage(value) ? value : null },
    })
    await refresh()
  })
async function setArchived(id: string, archived: boolean) {
  await api.call(readingEndpoints.changeText, {
    params: { seminarId: props.seminarId, textId: id },
    body: { archived },
  })
  await refresh()
}
const archive = (id: string, title: string) =>
  attempt(async () => {
    await setArchived(id, true)
    notices.say(`“${title}” is removed from the library. Readings that use it keep it.`, {
      label: 'Undo',
      run: async () => {
        await attempt(() => setArchived(id, false))
      },
    })
  })
/** A text keeps its title where the new one is empty or refused, and the field says so. */
async function rename(text: { id: string; title: string }, event: Event) {
  const field = event.target as HTMLInputElement // its own event
  const title = field.value.trim()
  const done =
    title &&
    (await attempt(async () => {
      await api.call(readingEndpoints.changeText, {
        params: { seminarId: props.seminarId, textId: text.id },
        body: { title },
      })
      await refresh()
      return true
    }))
  if (!done) field.value = text.title
}
async function taken(title: string) {
  isBuying.value = false
  await refresh()
  notices.say(`“${title}” is in the library.`)
}
</script>

<template>
  <section id="texts">
    <div class="head">
      <h2>Texts to read</h2>
      <span class="grow" />
      <template v-if="data?.mayManage">
        <v-btn @click="isBuying = !isBuying">From the book supplier …</v-btn>
        <label class="v-btn file main" :class="{ busy }"
          ><FileInput
            class="visually-hidden"
            multiple
            accept=".pdf,.html,.htm,.xhtml,.md,.markdown,.txt,.docx,.epub,.weba,.webm,.mp3,.ogg,.wav,.mp4,.m4a,.vtt"
            :disabled="busy !== null"
            @change="picked($event, null)"
          />{{ busy ? `reading ${busy} …` : 'Add a text …' }}</label
        >
      </template>
    </div>
    <p class="hint">
      PDF, HTML, Markdown, DOCX, EPUB; a recording together with its transcript (WebVTT). Up to 20 MB.
    </p>
    <p v-if="waiting" class="ask" role="status">
      “{{ waiting.media.name }}” needs its transcript.
      <label class="link"
        ><FileInput class="visually-hidden" accept=".vtt" @change="picked($event, waiting.textId)" />Choose
        the WebVTT file</label
      >{{ ' ' }}<TextButton @click="waiting = null">cancel</TextButton>
    </p>
    <p v-for="r in remarks" :key="r" class="ask" role="status">{{ r }}</p>
    <div v-if="carried" class="ask" role="status">
      <p>
        Version {{ carried.answer.number }} of “{{ carried.title }}” is what is read now.
        {{ carried.answer.kept + carried.answer.moved + carried.answer.nearly }}
        {{
          plural(carried.answer.kept + carried.answer.moved + carried.answer.nearly, 'note has', 'notes have')
        }}
        found their words again<template v-if="carried.answer.nearly > 0"
          >, {{ inWords(carried.answer.nearly) }} of them nearly</template
        >.<template v-if="carried.answer.lost.length === 0"> None is lost.</template>
      </p>
      <template v-if="carried.answer.lost.length > 0"
        ><p>
          <b>{{ capital(inWords(carried.answer.lost.length)) }} could not be placed.</b> They are kept, and
          stand at the end of the text:
        </p>
        <ul>
          <li v-for="l in carried.answer.lost" :key="l.id">
            <NuxtLink :to="`/seminars/${seminarId}/activities/${l.activityId}#c-${l.id}`">{{
              l.author
            }}</NuxtLink>
            on “{{ l.exact.slice(0, 90) }}”, in {{ l.activity }}
          </li>
        </ul></template
      >
    </div>
    <BookSupplier v-if="isBuying" :seminar-id="seminarId" @taken="taken" @failed="isBuying = false" />
    <ProblemPage v-if="error" :sentence="error.message" @retry="refresh()" />
    <p v-else-if="data?.texts.length === 0" class="invite">
      There is no text yet. Add the paper, article or recording that is to be read together; its margin is
      where the class will talk.
    </p>
    <ul v-else class="texts">
      <li v-for="t in data?.texts" :key="t.id">
        <span class="form">{{ FORMS[t.form] }}</span>
        <div>
          <LineInput
            v-if="data?.mayManage"
            class="title"
            :value="t.title"
            :aria-label="`Title of ${t.title}`"
            @change="rename(t, $event)"
          /><b v-else>{{ t.title }}</b>
          <p class="hint">
            {{ t.credit }}{{ t.credit ? ' · ' : '' }}{{ sizeWords(t)
            }}<template v-if="t.scans > 0"> · {{ t.scans }} scanned</template
            ><template v-if="t.version > 1"> · version {{ t.version }}</template>
          </p>
        </div>
        <p class="hint">
          <template v-if="t.usedBy.length === 0">not read yet</template
          ><template v-for="(a, i) in t.usedBy" :key="a.id"
            >{{ i > 0 ? ', ' : 'read in '
            }}<NuxtLink :to="`/seminars/${seminarId}/activities/${a.id}`">{{ a.title }}</NuxtLink></template
          ><template v-if="t.notes > 0"> · {{ t.notes }} {{ plural(t.notes, 'note') }}</template>
        </p>
        <p v-if="data?.mayManage" class="acts">
          <label class="link"
            ><FileInput
              class="visually-hidden"
              multiple
              :disabled="busy !== null"
              :aria-label="`A new version of ${t.title}`"
              @change="picked($event, t.id)"
            />a new version …</label
          ><LanguageList
            :value="t.language ?? PAGE_LANGUAGE"
            :aria-label="`Language of ${t.title}`"
            @change="setLanguage(t.id, $event)"
          /><TextButton @click="archive(t.id, t.title)">Remove</TextButton>
        </p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1rem;
}
.head {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.grow {
  flex: 1;
}
.file {
  cursor: pointer;
  display: inline-flex;
  align-items: center;
}
.file:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.busy {
  opacity: 0.7;
}
.ask {
  background: var(--harbour-soft);
  border-left: 4px solid var(--harbour);
  padding: 10px 14px;
  margin: 8px 0;
  font-size: 0.875rem;
  display: grid;
  gap: 6px;
}
p.ask {
  display: block;
}
.ask ul {
  padding-left: 1.2em;
  max-height: 16rem;
  overflow: auto;
}
.ask label.link,
.acts label.link {
  cursor: pointer;
}
.texts {
  list-style: none;
  margin-top: 8px;
}
.texts li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1.6fr) minmax(0, 1.2fr) auto;
  gap: 4px 18px;
  padding: 9px 0;
  border-top: 1px solid var(--line-soft);
  align-items: baseline;
  font-size: 0.8125rem;
}
.form {
  font: 600 0.78125rem/1.2 var(--ui);
  color: var(--k-reading);
  border-left: 4px solid var(--k-reading);
  padding-left: 8px;
}
.title {
  width: 100%;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
  font: 600 1rem/1.35 var(--read);
  color: var(--ink);
  padding: 0;
}
.title:hover,
.title:focus {
  border-bottom-color: var(--spine);
}
.acts {
  display: flex;
  align-items: baseline;
  gap: 14px;
}
@media (max-width: 760px) {
  .texts li {
    grid-template-columns: 1fr;
  }
}
</style>
