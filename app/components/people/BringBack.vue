<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { addressOf } from '#shared/http/endpoint'
import type { Restored } from '#shared/keeping/archive'
import { ProblemDetails } from '#shared/http/problem'
import { useSessionStore } from '~/stores/session'
import * as keepingEndpoints from '#shared/keeping/endpoints'

/** Brings a seminar back from its archive: the file goes up as it is, with how far it has come. */
const session = useSessionStore()
const state = ref<'idle' | 'sending' | 'reading'>('idle')
const share = ref(0)
const problem = ref<string | null>(null)
const done = ref<Restored | null>(null)
function send({ target }: Event) {
  const field = target as HTMLInputElement // its own event
  const chosen = field.files?.[0]
  if (!chosen || state.value !== 'idle') return
  problem.value = null
  done.value = null
  state.value = 'sending'
  share.value = 0
  // the one request that says how far an upload is
  const request = new XMLHttpRequest()
  request.open('POST', addressOf(keepingEndpoints.restoreArchive, {}))
  request.setRequestHeader('content-type', 'application/zip')
  request.upload.onprogress = e => {
    share.value = e.total > 0 ? e.loaded / e.total : 0
    if (e.loaded === e.total) state.value = 'reading'
  }
  request.onload = () => {
    void answered(request, field)
  }
  request.onerror = () => {
    state.value = 'idle'
    problem.value = 'Jovrel could not be reached. Nothing was imported; try again in a moment.'
  }
  request.send(chosen)
}
async function answered(request: XMLHttpRequest, field: HTMLInputElement) {
  state.value = 'idle'
  let body: unknown = null
  try {
    body = JSON.parse(request.responseText)
  } catch {
    /* said below */
  }
  if (request.status === 200) {
    done.value = body as Restored
    await session.load()
  } else {
    const details = ProblemDetails.safeParse(body)
    problem.value = details.success ? details.data.detail : 'Something went wrong. Nothing was imported.'
  }
  field.value = '' // the same file can be chosen again
}
</script>

<template>
  <section class="back">
    <h2>Import a seminar from its archive</h2>
    <p class="hint">
      An archive is made in a seminar’s settings. Every part of it is checked first; it is imported whole or
      not at all.
    </p>
    <p>
      <label class="v-btn choose" :class="{ off: state !== 'idle' }"
        >Choose the archive …<FileInput
          class="visually-hidden"
          accept=".zip,application/zip"
          aria-label="The archive"
          :disabled="state !== 'idle'"
          @change="send"
      /></label>
    </p>
    <p v-if="state !== 'idle'" role="status" class="muted">
      {{
        state === 'sending'
          ? `sending, ${Math.round(share * 100)} %`
          : 'checking every part, then bringing it in …'
      }}
    </p>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p v-if="done" role="status">
      “{{ done.title }}” is back, with {{ done.people }} people and
      {{ done.contributions.toLocaleString('en') }} contributions. Nobody is told anything from it until an
      instructor says so; its people choose a new password by “forgotten password”.
      <NuxtLink :to="`/seminars/${done.seminarId}`">Open it</NuxtLink>
    </p>
  </section>
</template>

<style scoped>
.back {
  border-top: 1px solid var(--line);
  margin-top: 26px;
  padding-top: 14px;
  display: grid;
  gap: 8px;
}
/* the input is hidden, so that its label carries the focus */
.choose {
  display: inline-flex;
  align-items: center;
  cursor: pointer;
  position: relative;
}
.choose:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.off {
  opacity: 0.5;
}
h2 {
  font: 600 0.9375rem/1.3 var(--ui);
}
</style>
