<script setup lang="ts">
import { useNotices } from '~/stores/notices'

const notices = useNotices()
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
</script>

<template>
  <v-snackbar v-model="open" location="bottom left" :timeout="8000">
    <span :role="notices.current?.tone === 'problem' ? 'alert' : undefined">{{ notices.current?.text }}</span>
    <template v-if="notices.current?.act" #actions>
      <button class="link" type="button" @click="run">{{ notices.current.act.label }}</button>
    </template>
  </v-snackbar>
</template>
