<script setup lang="ts">
import { isBehindDialog, isWriting } from '~/composables/shell/keyList'
import { useNoticeTime } from '~/composables/shell/useNoticeTime'
import { useNotices } from '~/stores/notices'
import TextButton from '~/components/controls/TextButton.vue'

const notices = useNotices()
const chosenTime = useNoticeTime()
const USUAL = 8000 // milliseconds
const time = computed(() => (notices.current?.act ? chosenTime.value : USUAL))
/**
 * The time of the notice at hand, a millisecond more for every second one: the bar's clock starts anew when its time changes,
 * and not when its words do. Otherwise an undo goes with the notice before it.
 */
const ownTime = computed(() => (time.value < 0 ? time.value : time.value + (notices.count % 2)))
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
  <v-snackbar v-model="open" location="bottom left" :timeout="ownTime">
    <span :role="notices.current?.tone === 'problem' ? 'alert' : undefined">{{ notices.current?.text }}</span>
    <template v-if="notices.current?.act" #actions>
      <TextButton aria-keyshortcuts="Control+Z" @click="run">
        {{ notices.current.act.label }}
      </TextButton>
      <kbd aria-hidden="true">Ctrl Z</kbd>
      <TextButton v-if="time < 0" @click="notices.close()">Close</TextButton>
    </template>
  </v-snackbar>
</template>
