<script setup lang="ts">
import { isBehindDialog, isWriting } from '~/composables/shell/keyList'
import { useNoticeTime } from '~/composables/shell/useNoticeTime'
import { useNotices } from '~/stores/notices'

const notices = useNotices()
const chosenTime = useNoticeTime()
const USUAL = 8000 // milliseconds
const time = computed(() => (notices.current?.act ? chosenTime.value : USUAL))
const open = computed({
  get: () => notices.current !== null,
  set: value => {
    if (!value) notices.close()
  },
})
async function run() {
  const act = notices.current?.act
  notices.close()
  await act?.run()
}
function onKey(event: KeyboardEvent) {
  const isUndo = (event.ctrlKey || event.metaKey) && !event.shiftKey && event.key.toLowerCase() === 'z'
  if (!isUndo || !notices.current?.act || isWriting(event) || isBehindDialog()) return
  event.preventDefault()
  void run()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <v-snackbar v-model="open" location="bottom left" :timeout="time">
    <span :role="notices.current?.tone === 'problem' ? 'alert' : undefined">{{ notices.current?.text }}</span>
    <template v-if="notices.current?.act" #actions>
      <button class="link" type="button" aria-keyshortcuts="Control+Z" @click="run">
        {{ notices.current.act.label }}
      </button>
      <kbd aria-hidden="true">Ctrl Z</kbd>
      <button v-if="time < 0" class="link" type="button" @click="notices.close()">Close</button>
    </template>
  </v-snackbar>
</template>
