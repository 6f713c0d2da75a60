<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { addressOf } from '#shared/http/endpoint'
import type { ActivityView } from '#shared/contributing/activity'
import { inWords, plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** Notes out and in by the open standard, the transcript, and an address for one's own programs. */
const props = defineProps<{ activity: ActivityView; form: 'paper' | 'article' | 'recording' }>()
const emit = defineEmits<{ taken: [] }>()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const open = ref(false)
const params = computed(() => ({ activityId: props.activity.id }))
const notesOf = (of: 'all' | 'mine') =>
  addressOf(readingEndpoints.downloadAnnotations, { params: params.value, query: { of } })
const tools = ref<{ address: string | null; token: string | null }>({ address: null, token: null })
const trial = shallowRef<{
  notes: number
  replies: number
  refused: Array<{ id: string | null; why: string }>
  json: string
} | null>(null)
async function attempt(act: () => Promise<void>) {
  try {
    await act()
  } catch (problem) {
    notices.warn(problem)
  }
}
watch(open, now => {
  if (now)
    void attempt(async () => {
      tools.value = await api.call(readingEndpoints.readAnnotationAddress, {
        params: { activityId: props.activity.id },
      })
    })
})
const previewFile = (event: Event) =>
  attempt(async () => {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (!file) return
    const json = await file.text()
    trial.value = {
      ...(await api.call(readingEndpoints.importAnnotations, {
        params: { activityId: props.activity.id },
        body: { key: newKey(), json, trial: true },
      })),
      json,
    }
  })
const take = () =>
  attempt(async () => {
    const answer = await api.call(readingEndpoints.importAnnotations, {
      params: { activityId: props.activity.id },
      body: {
        key: newKey(),
        json: trial.value!.json,
        trial: false,
      },
    })
    trial.value = null
    emit('taken')
    notices.say(
      `${inWords(answer.notes)} ${plural(answer.notes, 'note')} and ${inWords(answer.replies)} ${plural(answer.replies, 'answer')} are in the margin, as yours.`.replace(
        /^./,
        c => c.toUpperCase(),
      ),
    )
  })
const make = () =>
  attempt(async () => {
    tools.value = await api.call(readingEndpoints.makeAnnotationAddress, {
      params: { activityId: props.activity.id },
    })
  })
const drop = () =>
  attempt(async () => {
    tools.value = await api.call(readingEndpoints.closeAnnotationAddress, {
      params: { activityId: props.activity.id },
    })
    notices.say('That token opens nothing any more.')
  })
const mayWrite = computed(() => seminar.shell?.role !== 'observer' && !seminar.shell?.archived)
</script>

<template>
  <span class="out">
    <TextButton :aria-expanded="open" @click="open = !open"> export or import notes </TextButton>
    <div
      v-if="open"
      class="sheet"
      role="group"
      aria-label="Export and import of notes"
      @keydown.esc="open = false"
    >
      <p>
        <b>Download</b> <a :href="notesOf('all')" download>all notes you may read</a>{{ ' '
        }}<a :href="notesOf('mine')" download>only yours</a>{{ ' '
        }}<a
          v-if="form === 'recording'"
          :href="addressOf(readingEndpoints.downloadTranscript, { params })"
          download
          >the transcript (WebVTT)</a
        ><span class="hint">As a W3C Web Annotation collection (JSON-LD), which other programs read.</span>
      </p>
      <p v-if="mayWrite">
        <b>Import</b>{{ ' '
        }}<label class="link file"
          ><FileInput
            class="visually-hidden"
            accept=".json,.jsonld,application/ld+json"
            @change="previewFile"
          />a file of annotations …</label
        >
      </p>
      <div v-if="trial" class="trial" role="status">
        <p>
          {{ trial.notes }} {{ plural(trial.notes, 'note') }} and {{ trial.replies }}
          {{ plural(trial.replies, 'answer') }} can be imported; they will be yours.
        </p>
        <p v-if="trial.refused.length > 0" class="hint">
          {{ trial.refused.length }} cannot be imported:
          {{ [...new Set(trial.refused.map(r => r.why))].join('; ') }}.
        </p>
        <p>
          <v-btn v-if="trial.notes + trial.replies > 0" class="main" @click="take">Import them</v-btn>{{ ' '
          }}<v-btn class="quiet" @click="trial = null">Cancel</v-btn>
        </p>
      </div>
      <p>
        <b>Your own programs</b>{{ ' '
        }}<template v-if="tools.address"
          ><code>{{ tools.address }}</code
          >{{ ' ' }}<TextButton @click="make">a new token</TextButton>{{ ' '
          }}<TextButton @click="drop">delete it</TextButton></template
        ><TextButton v-else @click="make">make an address with a token</TextButton>
      </p>
      <p v-if="tools.token" class="token" role="status">
        Token, shown this once: <code>{{ tools.token }}</code><span class="hint"
          >Send it as “Authorization: Bearer …”. Whoever has it reads and writes here as you.</span
        >
      </p>
    </div>
  </span>
</template>

<style scoped>
.out {
  position: relative;
}
.out > .link {
  font: inherit;
  color: inherit;
}
.sheet {
  position: absolute;
  right: 0;
  bottom: 26px;
  width: min(27rem, 88vw);
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  padding: 12px 16px;
  z-index: 30;
  display: grid;
  gap: 9px;
  font-size: 0.8125rem;
  color: var(--ink);
  box-shadow: 0 6px 20px rgb(0 0 0 / 0.1);
}
.sheet b {
  margin-right: 8px;
}
.sheet a {
  margin-right: 10px;
}
.sheet .hint {
  display: block;
}
code {
  font-size: 0.75rem;
  overflow-wrap: anywhere;
}
.token {
  background: var(--harbour-soft);
  padding: 8px;
  border-radius: var(--r);
}
.trial {
  background: var(--sunken);
  padding: 8px 10px;
  border-radius: var(--r);
  display: grid;
  gap: 6px;
}
.file {
  cursor: pointer;
}
</style>
