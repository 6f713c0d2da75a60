<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import PickList from '~/components/controls/PickList.vue'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { PageComment, PageView, PagePassage } from '#shared/kinds/wiki/wiki'
import { keepText, keptText, forgetText } from '~/composables/contributing/localDrafts'
import { inWords } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { sendKey } from '~/autosave/sendKey'
import { ApiProblem } from '~/composables/shell/useApi'
import ProseText from '~/components/contributing/ProseText.vue'
import TextButton from '~/components/controls/TextButton.vue'

const RichEditor = defineAsyncComponent(() => import('~/components/contributing/RichEditor.vue'))
/** The talk about a page, beside it: comments on it or on a passage, with answers, and the version that acted on each. */
const props = defineProps<{
  page: PageView
  mayComment: boolean
  passage: PagePassage | null
  lit: string | null
  send: (doc: RichNode, passage: PagePassage | null, parentId: string | null, key: string) => Promise<unknown>
}>()
const emit = defineEmits<{
  dropPassage: []
  lit: [id: string | null]
  resolve: [id: string, number: number | null]
  withdraw: [id: string]
}>()
const { shortDayTime } = useTimes()
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
const doc = shallowRef<RichNode>(EMPTY)
const answering = ref<string | null>(null)
const writing = ref(false)
const busy = ref(false)
const problem = ref<string | null>(null)
const roots = computed(() => props.page.comments.filter(c => c.parentId === null))
const answersTo = (id: string) => props.page.comments.filter(c => c.parentId === id)
const open = computed(() => roots.value.filter(c => !c.resolved && !c.withdrawn).length)
const draftKey = computed(() => `page-comment:${props.page.id}:${answering.value ?? ''}`)
const key = sendKey(() => draftKey.value)
const chosenVersion = (c: PageComment) => props.page.versions.filter(v => v.number > (c.on ?? 0))

watch(
  () => props.passage,
  p => {
    if (p) {
      answering.value = null
      void begin(null)
    }
  },
)
async function begin(parentId: string | null) {
  answering.value = parentId
  writing.value = true
  problem.value = null
  doc.value = (await keptText(draftKey.value))?.doc ?? EMPTY
}
function write(next: RichNode) {
  doc.value = next
  void keepText(draftKey.value, { doc: next, title: null, baseVersion: null })
}
async function post() {
  if (busy.value || plainText(doc.value) === '') return
  busy.value = true
  problem.value = null
  try {
    await props.send(
      doc.value,
      answering.value ? null : props.passage,
      answering.value,
      key.for([doc.value, props.passage]),
    )
    key.done()
    await forgetText(draftKey.value)
    doc.value = EMPTY
    writing.value = false
    answering.value = null
    emit('dropPassage')
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.at('doc') ?? error.at('passage') ?? error.message
  } finally {
    busy.value = false
  }
}
defineExpose({ begin })
const countWords = computed(() => {
  if (roots.value.length === 0) return ''
  if (open.value === 0) return `${roots.value.length}, all acted on`
  return `${roots.value.length}, ${inWords(open.value)} open`
})
const aboutWords = computed(() => {
  if (answering.value)
    return `To ${roots.value.find(c => c.id === answering.value)?.author.givenName ?? 'it'}`
  if (props.passage)
    return `On “${props.passage.exact.length > 90 ? `${props.passage.exact.slice(0, 88)} …` : props.passage.exact}”`
  return 'On the page as a whole'
})
</script>

<template>
  <section class="comments" aria-label="Comments on this page">
    <h2>
      Comments on this page
      <span>{{ countWords }}</span>
    </h2>
    <p v-if="roots.length === 0 && !writing" class="none">
      {{
        mayComment
          ? 'None yet. Choose words on the page to comment on them, or comment on the whole page.'
          : 'None yet.'
      }}
    </p>
    <article
      v-for="c in roots"
      :id="`c-${c.id}`"
      :key="c.id"
      class="comment"
      tabindex="-1"
      :class="{ done: c.resolved, lit: c.id === lit }"
      @mouseenter="c.passage && emit('lit', c.id)"
      @mouseleave="emit('lit', null)"
      @focusin="c.passage && emit('lit', c.id)"
    >
      <p v-if="c.passage" class="passage">“{{ c.passage.exact }}”</p>
      <p class="by">
        <b>{{ c.author.isMe ? 'You' : c.author.givenName }}</b> {{ shortDayTime(c.shownAt)
        }}<template v-if="c.on"> on version {{ c.on }}</template>
      </p>
      <p v-if="c.withdrawn" class="gone">This comment was withdrawn.</p>
      <ProseText v-else :html="c.html" />
      <p v-if="c.resolved" class="acted">
        acted on in version {{ c.resolved.number }} by
        {{ c.resolved.writer.isMe ? 'you' : c.resolved.writer.givenName }}
      </p>
      <p v-else-if="!c.withdrawn" class="acted open">open</p>
      <div v-for="a in answersTo(c.id)" :id="`c-${a.id}`" :key="a.id" class="answer">
        <p class="by">
          <b>{{ a.author.isMe ? 'You' : a.author.givenName }}</b> {{ shortDayTime(a.shownAt) }}
          <TextButton v-if="a.mayWithdraw" @click="emit('withdraw', a.id)"> withdraw </TextButton>
        </p>
        <p v-if="a.withdrawn" class="gone">Withdrawn.</p>
        <ProseText v-else :html="a.html" />
      </div>
      <p v-if="mayComment && !c.withdrawn" class="acts">
        <TextButton @click="begin(c.id)">answer</TextButton>
        <TextButton v-if="c.resolved" @click="emit('resolve', c.id, null)"> open it again </TextButton>
        <label v-else-if="chosenVersion(c).length > 0" class="link"
          >acted on in
          <PickList
            aria-label="Version that acted on it"
            @change="emit('resolve', c.id, Number(($event.target as HTMLSelectElement).value))"
          >
            <option value="" disabled selected>version …</option>
            <option v-for="v in chosenVersion(c)" :key="v.number" :value="v.number">
              {{ v.number }}, {{ v.author.givenName }}
            </option>
          </PickList></label
        >
        <TextButton v-if="c.mayWithdraw" @click="emit('withdraw', c.id)"> withdraw </TextButton>
      </p>
    </article>
    <div
      v-if="writing"
      class="write"
      @keydown.ctrl.enter.prevent="post"
      @keydown.meta.enter.prevent="post"
      @keydown.esc="writing = false"
    >
      <p class="to">
        {{ aboutWords }}
        <TextButton v-if="passage && !answering" @click="emit('dropPassage')">
          on the whole page instead
        </TextButton>
      </p>
      <RichEditor
        :key="draftKey"
        class="small-editor"
        :doc="doc"
        label="Your comment"
        autofocus
        @write="write"
      />
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="acts">
        <v-btn class="main" :disabled="busy || plainText(doc) === ''" @click="post"
          >Comment <kbd>Ctrl Enter</kbd></v-btn
        ><v-btn class="quiet" @click="writing = false">Close</v-btn>
      </p>
    </div>
    <p v-else-if="mayComment" class="acts">
      <v-btn @click="begin(null)">Comment on the page <KeyHint of="c" /></v-btn>
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.none {
  font-size: 0.8125rem;
  line-height: 19px;
  color: var(--ink-2);
  margin-top: 5px;
}
.comment {
  border-left: 2.5px dashed var(--ember);
  padding: 1px 0 1px 12px;
  margin-top: 13px;
  outline: none;
  scroll-margin: 40px;
}
.comment.done {
  border-left: 2.5px solid var(--moss);
}
.comment.lit {
  background: var(--sunken);
}
.passage {
  font: italic 400 0.8125rem/1.4 var(--read);
  color: var(--ink-2);
}
.by {
  font-size: 0.75rem;
  line-height: 17px;
  color: var(--ink-3);
}
.by b {
  color: var(--ink);
  font-weight: 600;
}
.comment :deep(.prose) {
  font-size: 0.9375rem;
  line-height: 1.45;
}
.acted {
  font: 600 0.75rem/18px var(--ui);
  color: var(--moss);
}
.acted.open {
  color: var(--ember);
}
.gone {
  font-style: italic;
  color: var(--ink-3);
  font-size: 0.8125rem;
}
.answer {
  border-left: 1.5px solid var(--spine);
  padding-left: 10px;
  margin-top: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 5px 12px;
  align-items: center;
  font-size: 0.75rem;
  margin-top: 5px;
}
.acts select {
  border: 0;
  background: none;
  color: var(--harbour);
  font: inherit;
  cursor: pointer;
  max-width: 7.5rem;
}
.write {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
  margin-top: 13px;
  padding-bottom: 6px;
}
.write .to {
  font: 600 0.78125rem/1.4 var(--ui);
  padding: 8px 12px 2px;
}
.write .to .link {
  font-weight: 500;
}
.write .acts,
.write .field-problem {
  padding: 0 12px;
}
.small-editor :deep(.prose) {
  min-height: 4em;
  padding: 7px 12px;
}
</style>
