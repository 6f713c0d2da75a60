<script setup lang="ts">
import { plainText, type RichNode } from '#core/contributing/richText'
import type { LetterTalk } from '#shared/marking/letter'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useTimes } from '~/composables/planning/useTimes'
import * as markingEndpoints from '#shared/marking/endpoints'

/** The talk under a returned letter, to go on with: a student's, or one's own where no enrolment is given. */
const props = defineProps<{ activityId: string; enrolmentId: string | null; toWhom: string }>()
const RichEditor = defineAsyncComponent(() => import('../contributing/RichEditor.vue'))
const api = useApi()
const { dayTime } = useTimes()
const { busy, problem, send } = useSending()
const talk = shallowRef<LetterTalk | null>(null)
const writing = ref(false)
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
const doc = shallowRef<RichNode>(EMPTY)
let key = newKey()
const fetchTalk = () =>
  props.enrolmentId === null
    ? api.call(markingEndpoints.readOwnLetterReplies, { params: { activityId: props.activityId } })
    : api.call(markingEndpoints.readLetterReplies, {
        params: { activityId: props.activityId, enrolmentId: props.enrolmentId },
      })
const reply = (body: { readonly key: string; readonly doc: RichNode }) =>
  props.enrolmentId === null
    ? api.call(markingEndpoints.replyToOwnLetter, { params: { activityId: props.activityId }, body })
    : api.call(markingEndpoints.replyToLetter, {
        params: { activityId: props.activityId, enrolmentId: props.enrolmentId },
        body,
      })
async function load() {
  try {
    talk.value = await fetchTalk()
  } catch {
    talk.value = null
  } // no letter returned: no talk about it
}
onMounted(load)
watch(
  () => [props.activityId, props.enrolmentId],
  () => {
    talk.value = null
    writing.value = false
    void load()
  },
)
async function post() {
  const answer = await send(() => reply({ key, doc: doc.value }))
  if (!answer) return
  talk.value = answer
  writing.value = false
  doc.value = EMPTY
  key = newKey()
}
</script>

<template>
  <section v-if="talk" class="letter-talk" aria-label="Talk about the letter">
    <div v-for="r in talk.replies" :key="r.id" class="r">
      <p class="by">
        <b>{{ r.isMe ? 'You' : r.author }}</b>, {{ dayTime(r.at) }}
      </p>
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
      <div class="prose" v-html="r.html" />
    </div>
    <div v-if="writing" class="box" @keydown.ctrl.enter.prevent="post">
      <RichEditor :doc="doc" :label="`Your answer to ${toWhom}`" autofocus @write="doc = $event" />
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="end">
        <v-btn class="quiet" @click="writing = false">Not now</v-btn
        ><v-btn class="main" :disabled="busy || plainText(doc) === ''" @click="post"
          >Send it <kbd>Ctrl Enter</kbd></v-btn
        >
      </p>
    </div>
    <v-btn v-else @click="writing = true">{{
      talk.replies.length > 0 ? 'Go on with it' : `Write back to ${toWhom}`
    }}</v-btn>
  </section>
</template>

<style scoped>
.letter-talk {
  display: grid;
  gap: 12px;
  justify-items: start;
  margin-top: 18px;
}
.r {
  border-left: 3px solid var(--line);
  padding-left: 14px;
}
.by {
  font-size: 0.8125rem;
  color: var(--ink-3);
}
.by b {
  color: var(--ink);
}
.prose {
  font-size: 0.96875rem;
}
.box {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
  width: 100%;
  max-width: 46em;
}
.end {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  padding: 6px;
}
.field-problem {
  padding: 2px 14px;
}
@media print {
  .letter-talk {
    display: none;
  }
}
</style>
