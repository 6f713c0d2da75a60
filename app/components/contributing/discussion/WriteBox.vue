<script setup lang="ts">
import { plainText, type RichNode } from '#core/contributing/richText'
import type { DraftView, TakesUp } from '#shared/contributing/thread'
import { useDraft } from '../../../composables/contributing/useDraft'
import { useNotices } from '../../../stores/notices'
import TwoTexts from '../TwoTexts.vue'

const RichEditor = defineAsyncComponent(() => import('../RichEditor.vue'))
const props = withDefaults(defineProps<{
  activityId: string
  parentId: string | null
  /** Given name of whom it answers; empty for an opening post. */
  to: string
  minWords: number
  stored: DraftView | null
  takesUp: TakesUp | null
  autofocus?: boolean
}>(), { autofocus: true })
const emit = defineEmits<{ posted: [id: string], away: [], dropPassage: [] }>()
const notices = useNotices()
const passage = toRef(props, 'takesUp')
const draft = useDraft({ activityId: props.activityId, parentId: props.parentId }, props.stored, passage)
const busy = ref(false)
const problemId = useId()
watch(passage, () => { if (draft.words.value > 0) draft.write(draft.doc.value) })

async function post() {
  if (busy.value) return
  busy.value = true
  try {
    const id = await draft.post()
    if (id) emit('posted', id)
  }
  catch (error) { notices.warn(error) }
  finally { busy.value = false }
}
async function away() {
  await draft.save()
  emit('away')
}
async function discard() {
  await draft.discard()
  emit('away')
}
const stateWords = computed(() => ({ 'empty': '', 'typing': 'saving …', 'saved': 'saved as draft', 'kept here': 'kept in this browser', 'two texts': '' })[draft.state.value])
</script>

<template>
  <div class="box" @keydown.ctrl.enter.prevent="post" @keydown.meta.enter.prevent="post" @keydown.esc="away">
    <div v-if="takesUp" class="passage">“{{ takesUp.exact }}” <button class="link" type="button" @click="emit('dropPassage')">leave it out</button></div>
    <RichEditor :doc="draft.doc.value" :label="to ? `Your reply to ${to}` : 'Your opening post'" :autofocus="autofocus" :describedby="draft.problem.value ? problemId : undefined" @write="(doc: RichNode) => draft.write(doc)">
      <template #before><span class="to">{{ to ? `To ${to}` : 'Your opening post' }}</span></template>
    </RichEditor>
    <p v-if="draft.problem.value" :id="problemId" class="field-problem" role="alert">{{ draft.problem.value }}</p>
    <TwoTexts
      v-if="draft.theirs.value" sentence="This draft was changed in another window. Nothing was overwritten; keep the text you want." :mine="plainText(draft.doc.value)"
      :theirs="plainText(draft.theirs.value.doc as RichNode)" their-name="In the other window" @choose="draft.settle"
    />
    <div class="done">
      <span class="wc num" :class="{ enough: draft.words.value >= minWords }"><i><u :style="{ width: `${Math.min(100, draft.words.value / minWords * 100)}%` }" /></i>{{ draft.words.value }} of {{ minWords }} words</span>
      <span class="state" role="status">{{ stateWords }}</span>
      <span class="grow" />
      <v-btn v-if="draft.words.value > 0" class="quiet" @click="discard">Discard</v-btn>
      <v-btn v-if="to" class="quiet" @click="away">Put away</v-btn>
      <v-btn class="main" :disabled="busy" @click="post">Post <kbd>Ctrl Enter</kbd></v-btn>
    </div>
  </div>
</template>

<style scoped>
.box { border: 1.5px solid var(--harbour); border-radius: var(--r); background: var(--sheet); }
.passage { padding: 8px 14px 0; font: italic 400 0.875rem/1.45 var(--read); color: var(--ink-2); }
.passage .link { font: 500 0.75rem/1 var(--ui); margin-left: 6px; }
.to { font-weight: 600; padding: 3px 10px 3px 8px; margin-right: 6px; border-right: 1px solid var(--line); }
.field-problem { padding: 2px 14px 6px; }
.done { display: flex; flex-wrap: wrap; align-items: center; gap: 6px 14px; padding: 5px 6px 6px 14px; font-size: 0.78125rem; color: var(--ink-2); }
.wc { display: flex; align-items: center; gap: 9px; color: var(--ink); }
.wc i { width: 72px; height: 4px; border-radius: 2px; background: var(--line); display: block; overflow: hidden; }
.wc u { display: block; height: 100%; background: var(--harbour); }
.enough u { background: var(--moss); }
</style>
