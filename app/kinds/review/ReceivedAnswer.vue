<script setup lang="ts">
import type { ReceivedReview } from '#shared/kinds/review/review'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import { useKeptDoc } from '~/composables/contributing/useKeptDoc'
import { sendKey } from '~/autosave/sendKey'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { plainText } from '#core/contributing/richText'
import NamesFoundPanel from './NamesFoundPanel.vue'
import { useNamesCheck } from './useNamesCheck'
import TextButton from '~/components/controls/TextButton.vue'

/** What an author answers a reader, without names: kept in this browser until it has been sent. */
const props = defineProps<{ review: ReceivedReview; activityId: string }>()
const emit = defineEmits<{ answered: [] }>()
const RichEditor = defineAsyncComponent(() => import('~/components/contributing/RichEditor.vue'))
const api = useApi()
const { busy, problem, send } = useSending()
const text = useKeptDoc(() => `received:${props.review.id}`)
const { doc } = text
const isOpen = ref(false)
const key = sendKey(() => `received:${props.review.id}`)
const names = useNamesCheck(() => props.activityId)
async function answer() {
  let isSent = false
  await send(async () => {
    if (!(await names.isFine(plainText(doc.value)))) return
    await api.call(reviewEndpoints.answerReview, {
      params: { receivedId: props.review.id },
      body: { key: key.for(doc.value), doc: doc.value },
    })
    isSent = true
  })
  if (!isSent) return
  key.done()
  text.clear()
  isOpen.value = false
  emit('answered')
}
const beginWords = computed(() => {
  if (text.hasWords.value) return 'go on writing'
  return props.review.answerHtml ? 'answer again' : 'answer, without names'
})
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
  <div v-if="review.answerHtml && !isOpen" class="prose small" dir="auto" v-html="review.answerHtml" />
  <div v-if="isOpen" class="box">
    <RichEditor :doc="doc" :label="`Answer to ${review.from}`" autofocus @write="text.write" />
    <NamesFoundPanel
      v-if="names.found.value.length > 0"
      :found="names.found.value"
      what="your answer"
      verb="Answer"
      @go-on="names.decide(true)"
      @back="names.decide(false)"
    />
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p class="acts">
      <v-btn class="quiet" @click="isOpen = false">Close</v-btn
      ><v-btn class="main" :disabled="busy || !text.hasWords.value" @click="answer">Answer</v-btn>
    </p>
  </div>
  <TextButton v-else class="small" @click="isOpen = true">{{ beginWords }}</TextButton>
</template>

<style scoped>
.box {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
}
.field-problem {
  padding: 2px 14px 6px;
}
.acts {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
  padding: 6px;
}
.link {
  justify-self: start;
}
</style>
