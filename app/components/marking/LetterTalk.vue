<script setup lang="ts">
import type { RichNode } from '#core/contributing/richText'
import type { LetterTalk } from '#shared/marking/letter'
import { sendKey } from '~/autosave/sendKey'
import { useApi } from '~/composables/shell/useApi'
import { useKeptDoc } from '~/composables/contributing/useKeptDoc'
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
const target = () => `${props.activityId}:${props.enrolmentId ?? 'own'}`
const text = useKeptDoc(() => `letter:${target()}`)
const { doc } = text
const key = sendKey(() => `letter:${target()}`)
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
    problem.value = null
    void load()
  },
)
const beginWords = computed(() => {
  if (text.hasWords.value) return 'Go on writing'
  return talk.value && talk.value.replies.length > 0 ? 'Write again' : `Write back to ${props.toWhom}`
})
async function post() {
  const sentTo = target()
  const answer = await send(() => reply({ key: key.for(doc.value), doc: doc.value }))
  if (!answer || sentTo !== target()) return
  key.done()
  talk.value = answer
  writing.value = false
  text.clear()
}
</script>

<template>
  <section v-if="talk" class="letter-talk" aria-label="Talk about the letter">
    <div v-for="r in talk.replies" :key="r.id" class="r">
      <p class="by">
        <b>{{ r.isMe ? 'You' : r.author }}</b>, {{ dayTime(r.at) }}
      </p>
      <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
      <div class="prose" dir="auto" v-html="r.html" />
    </div>
    <div v-if="writing" class="box" @keydown.ctrl.enter.prevent="post">
      <RichEditor :doc="doc" :label="`Your answer to ${toWhom}`" autofocus @write="text.write" />
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="end">
        <v-btn class="quiet" @click="writing = false">Cancel</v-btn
        ><v-btn class="main" :disabled="busy || !text.hasWords.value" @click="post"
          >Send it <kbd>Ctrl Enter</kbd></v-btn
        >
      </p>
    </div>
    <v-btn v-else @click="writing = true">{{ beginWords }}</v-btn>
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
