<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { Editor } from '@tiptap/vue-3'
import Image from '@tiptap/extension-image'
import { picturesIn, pictureWords } from '#core/contributing/picturesIn'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { AttachLimits } from '#core/contributing/talkSettings'
import type { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import type { NoteDetail } from '#shared/kinds/reading/reading'
import type { AttachedFile, DraftView, TakesUp } from '#shared/contributing/thread'
import { useDraft, type WritingTarget } from '~/composables/contributing/useDraft'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { useNotices } from '~/stores/notices'
import { useThreadStore } from '~/stores/thread'
import { insertPicture } from '~/composables/contributing/insertPicture'
import AttachmentAdd from './AttachmentAdd.vue'
import PictureTool from './PictureTool.vue'
import TermFields from '~/kinds/lexicon/TermFields.vue'
import TwoTexts from './TwoTexts.vue'
import TextButton from '~/components/controls/TextButton.vue'
import MomentField from '~/components/controls/MomentField.vue'

const RichEditor = defineAsyncComponent(() => import('./RichEditor.vue'))
const props = withDefaults(
  defineProps<{
    target: WritingTarget
    /** What is written, as it is named: "Your opening post". */
    label: string
    minWords: number
    stored: DraftView | null
    takesUp?: TakesUp | null
    autofocus?: boolean
    attach?: AttachLimits | null
    /** Whether it has a title, and can be put away without being posted. */
    titled?: boolean
    /** Of a lexicon: what a term can be; the text is its definition. */
    lexicon?: LexiconSettingsBody | null
    /** Of a note in a margin: its kind, its passage, its tags. */
    note?: NoteDetail | null
    closable?: boolean
    /** Whether it can wait for a time to show itself. */
    timed?: boolean
    /** What the button says. */
    verb?: string
    /** Asked before it is posted; false leaves it where it is. */
    before?: ((text: string, fileIds: readonly string[]) => Promise<boolean>) | null // the text with its title
  }>(),
  { takesUp: null, autofocus: true, attach: null, verb: 'Post', before: null, lexicon: null, note: null },
)
const emit = defineEmits<{
  posted: [id: string, state: 'shown' | 'awaitingApproval' | 'scheduled']
  away: []
  dropPassage: []
}>()
const notices = useNotices()
const store = useThreadStore()
const passage = toRef(props, 'takesUp')
const draft = useDraft(props.target, props.stored, passage, toRef(props, 'note'))
const busy = ref(false)
const problemId = useId()
const later = ref(false)
const showAt = ref('')
const zone = useSeminarZone()
watch([passage, () => props.note], () => {
  if (draft.words.value > 0) draft.write(draft.doc.value)
})
draft.onSent(id => emit('posted', id, 'shown'))

const pictures = ref<InstanceType<typeof PictureTool> | null>(null)
const takesPictures = computed(() => (props.attach?.most ?? 0) > 0 && props.attach!.types.includes('picture'))
/** A picture comes with the text as any file does, and stands where the caret is. */
function putIn(editor: Editor | undefined, file: AttachedFile) {
  draft.setFiles([...draft.files.value, file])
  insertPicture(editor, file.url)
}
/** A picture that is pasted or dropped goes into the text. */
function takeFrom(event: Event, from: DataTransfer | null) {
  const picture = [...(from?.files ?? [])].find(f => f.type.startsWith('image/'))
  if (!picture || !pictures.value || draft.files.value.length >= props.attach!.most) return
  event.preventDefault()
  event.stopPropagation()
  void pictures.value.take(picture)
}

async function post() {
  if (busy.value) return
  busy.value = true
  store.beginSending()
  try {
    if (
      props.before &&
      !(await props.before(
        [draft.title.value ?? '', plainText(draft.doc.value), ...pictureWords(draft.doc.value)].join('\n'),
        draft.files.value.map(f => f.id),
      ))
    )
      return
    const answer = await draft.post(
      later.value && showAt.value ? { showAt: zone.instantOf(showAt.value) } : {},
    )
    if (answer) emit('posted', answer.id, answer.state)
  } catch (error) {
    notices.warn(error)
  } finally {
    store.endSending()
    busy.value = false
  }
}
async function away() {
  await draft.save()
  emit('away')
}
async function discard() {
  await draft.discard()
  emit('away')
}
const stateWords = computed(
  () =>
    ({
      empty: '',
      typing: 'saving …',
      saved: 'saved as draft',
      'kept here': 'kept in this browser',
      'not kept': 'not saved: this browser keeps nothing',
      'two texts': '',
      waiting: 'no connection: it is posted as soon as there is one',
    })[draft.state.value],
)
</script>

<template>
  <div
    class="box"
    @keydown.ctrl.enter.prevent="post"
    @keydown.meta.enter.prevent="post"
    @keydown.esc="closable && away()"
    @paste.capture="takeFrom($event, $event.clipboardData)"
    @dragover="takesPictures && $event.preventDefault()"
    @drop.capture="takeFrom($event, $event.dataTransfer)"
  >
    <div v-if="takesUp" class="passage">
      “{{ takesUp.exact }}”
      <TextButton @click="emit('dropPassage')">remove the quote</TextButton>
    </div>
    <LineInput
      v-if="titled"
      class="title"
      :value="draft.title.value ?? ''"
      maxlength="200"
      aria-label="Title"
      placeholder="Title"
      @input="draft.setTitle(($event.target as HTMLInputElement).value)"
    />
    <TermFields
      v-if="lexicon"
      :term="draft.term.value"
      :settings="lexicon"
      :activity-id="target.activityId"
      @write="draft.setTerm"
    />
    <RichEditor
      :doc="draft.doc.value"
      :label="label"
      :autofocus="autofocus"
      formulas
      :describedby="draft.problem.value ? problemId : undefined"
      :more="[Image]"
      @write="(doc: RichNode) => draft.write(doc)"
    >
      <template #before
        ><span class="to"
          ><slot>{{ label }}</slot></span
        ></template
      >
      <template v-if="takesPictures" #tools="{ editor }"
        ><PictureTool
          ref="pictures"
          :activity-id="target.activityId"
          :limits="attach"
          :disabled="draft.files.value.length >= attach!.most"
          @kept="putIn(editor, $event)"
      /></template>
      <template #after
        ><AttachmentAdd
          v-if="attach && attach.most > 0"
          part="tools"
          :activity-id="target.activityId"
          :limits="attach"
          :files="draft.files.value"
          @change="draft.setFiles"
      /></template>
    </RichEditor>
    <AttachmentAdd
      v-if="draft.files.value.length > 0"
      part="list"
      :activity-id="target.activityId"
      :limits="attach!"
      :files="draft.files.value"
      :in-text="picturesIn(draft.doc.value)"
      @change="draft.setFiles"
    />
    <p v-if="draft.problem.value" :id="problemId" class="field-problem" role="alert">
      {{ draft.problem.value }}
    </p>
    <TwoTexts
      v-if="draft.theirs.value"
      sentence="This draft was changed in another window. Nothing was overwritten; keep the text you want."
      :mine="plainText(draft.doc.value)"
      :theirs="plainText(draft.theirs.value.doc as RichNode)"
      their-name="In the other window"
      @choose="draft.settle"
    />
    <div class="done">
      <span class="wc num" :class="{ enough: draft.words.value >= minWords }"
        ><i
          ><u :style="{ width: `${Math.min(100, (draft.words.value / Math.max(1, minWords)) * 100)}%` }" /></i
        >{{ minWords > 1 ? `${draft.words.value} of ${minWords} words` : `${draft.words.value} words` }}</span
      >
      <span class="state" role="status">{{ stateWords }}</span>
      <span class="grow" />
      <template v-if="timed">
        <span v-if="later" class="when"
          >on
          <MomentField
            v-model="showAt"
            label="When it shows itself"
            :today="zone.today.value"
            usual="09:00"
          />
          {{ zone.named.value }}</span
        >
        <TextButton @click="later = !later">
          {{ later ? 'post now' : 'post later …' }}
        </TextButton>
      </template>
      <v-btn v-if="draft.words.value > 0" class="quiet" @click="discard">Discard</v-btn>
      <v-btn v-if="closable" class="quiet" @click="away">Close</v-btn>
      <v-btn class="main" :disabled="busy || draft.state.value === 'waiting'" @click="post"
        >{{ later && showAt ? 'Post at that time' : verb }} <kbd>Ctrl Enter</kbd></v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.box {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
}
.passage {
  padding: 8px 14px 0;
  font: italic 400 0.875rem/1.45 var(--read);
  color: var(--ink-2);
}
.passage .link {
  font: 500 0.75rem/1 var(--ui);
  margin-left: 6px;
}
.title {
  width: 100%;
  border: 0;
  background: none;
  padding: 10px 14px 2px;
  font: 600 1.125rem/1.4 var(--read);
  color: var(--ink);
  outline: none;
}
.title::placeholder {
  color: var(--ink-3);
}
.to {
  font-weight: 600;
  padding: 3px 10px 3px 8px;
  margin-right: 6px;
  border-right: 1px solid var(--line);
}
.field-problem {
  padding: 2px 14px 6px;
}
.done {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 5px 6px 6px 14px;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.wc {
  display: flex;
  align-items: center;
  gap: 9px;
  color: var(--ink);
}
.wc i {
  width: 72px;
  height: 4px;
  border-radius: 2px;
  background: var(--line);
  display: block;
  overflow: hidden;
}
.wc u {
  display: block;
  height: 100%;
  background: var(--harbour);
}
.enough u {
  background: var(--moss);
}
.when .in {
  padding: 2px 6px;
  font-size: 0.78125rem;
}
</style>
