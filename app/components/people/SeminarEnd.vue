<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
import * as peopleEndpoints from '#shared/people/endpoints'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSessionStore } from '~/stores/session'
import SettingsPart from './settings/SettingsPart.vue'

/** The end of a seminar, considered: what closing it does stands there before it is done. */
const props = defineProps<{ seminarId: string; title: string; closed: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const session = useSessionStore()
const { busy, problem, send } = useSending()
const asking = ref(false)

async function setClosed(archived: boolean) {
  const done = await send(() =>
    api.call(peopleEndpoints.archiveSeminar, {
      params: { seminarId: props.seminarId },
      body: { archived },
    }),
  )
  if (!done) return
  asking.value = false
  await session.load()
  emit('changed')
  notices.say(
    archived ? 'The seminar is closed: it is read, and nothing is added.' : 'The seminar is open again.',
    {
      label: 'Undo',
      run: () => void setClosed(!archived),
    },
  )
}
</script>

<template>
  <SettingsPart title="The end of the seminar">
    <div class="acts">
      <template v-if="closed">
        <v-btn :disabled="busy" @click="setClosed(false)">Reopen the seminar</v-btn>
        <p class="hint">Everything goes on where it stood when the seminar was closed.</p>
      </template>
      <template v-else>
        <v-btn @click="asking = true">Close the seminar …</v-btn>
        <p class="hint">When the term is over and every mark is returned. It can be reopened.</p>
      </template>
      <p v-if="problem && !asking" class="field-problem" role="alert">{{ problem }}</p>
    </div>
    <ModalDialog v-model="asking" max-width="560" aria-label="Close the seminar">
      <div class="card">
        <h3>Close “{{ title }}”?</h3>
        <ul>
          <li>Everybody in it can still read everything they can read now, their letters and marks, too.</li>
          <li>Nobody writes or hands in anything any more, also what is not due yet.</li>
          <li>
            Nothing opens or returns by itself, and standing rules write to nobody. You can still mark and
            return.
          </li>
          <li>It moves to the closed seminars in everybody’s list. You can reopen it at any time.</li>
        </ul>
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
        <p class="end">
          <v-btn class="main" :disabled="busy" @click="setClosed(true)">Close the seminar</v-btn>
          <v-btn class="quiet" @click="asking = false">Cancel</v-btn>
        </p>
      </div>
    </ModalDialog>
  </SettingsPart>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.card {
  padding: 20px 24px;
  display: grid;
  gap: 16px;
}
h3 {
  font: 600 1.125rem/1.3 var(--read);
}
ul {
  padding-left: 18px;
  display: grid;
  gap: 6px;
}
.end {
  display: flex;
  gap: 10px;
}
</style>
