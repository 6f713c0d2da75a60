<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { Editor } from '@tiptap/vue-3'
import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { PageView, VersionSaved } from '#shared/kinds/wiki/wiki'
import { pageNodes } from '~/kinds/wiki/pageNodes'
import { usePageLinks } from '~/kinds/wiki/usePageLinks'
import { usePageDraft } from '~/kinds/wiki/usePageDraft'
import { insertPicture } from '~/composables/contributing/insertPicture'
import PictureTool from '~/components/contributing/PictureTool.vue'
import RichEditor from '~/components/contributing/RichEditor.vue'
import TwoTexts from '~/components/contributing/TwoTexts.vue'
import OverlapChoice from './OverlapChoice.vue'
import PageLinkList from './PageLinkList.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** A page while it is written: a private draft until it is saved as a version, with a line that says what it does. */
const props = defineProps<{ page: PageView; activityId: string }>()
const emit = defineEmits<{ saved: [VersionSaved]; away: []; discarded: [] }>()
const draft = usePageDraft(props.page)
const summary = ref('')
const actsOn = reactive(new Set<string>())
const rich = ref<InstanceType<typeof RichEditor> | null>(null)
// what the editor exposes is not in the type of a component with generic props
const editor = () => (rich.value as unknown as { editor: Editor | undefined } | null)?.editor
const open = computed(() =>
  props.page.comments.filter(c => c.parentId === null && !c.withdrawn && !c.resolved),
)
const words = computed(() => countWords(plainText(draft.doc.value)))
const plain = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

const { choice, picked, titles, choose, key } = usePageLinks(props.page.id)
const note = reactive({ open: false, text: '', source: '', pos: null as number | null })
const nodes = pageNodes({
  choice: choose,
  key,
  note: (n, pos) => Object.assign(note, { open: true, ...n, pos }),
})
function setNote() {
  const e = editor()
  const attrs = { text: note.text.trim(), source: note.source.trim() }
  if (note.pos !== null) {
    if (attrs.text || attrs.source)
      e?.chain().focus().setNodeSelection(note.pos).updateAttributes('footnote', attrs).run()
    else e?.chain().focus().setNodeSelection(note.pos).deleteSelection().run()
  } else if (attrs.text || attrs.source) e?.chain().focus().insertContent({ type: 'footnote', attrs }).run()
  Object.assign(note, { open: false, text: '', source: '', pos: null })
}
async function save() {
  const answer = await draft.save(summary.value.trim(), [...actsOn])
  if (answer) emit('saved', answer)
}
async function away() {
  await draft.away()
  emit('away')
}
async function discard() {
  await draft.discard()
  emit('discarded')
}
const stateWords = computed(
  () =>
    ({
      'as saved': '',
      typing: 'keeping your draft …',
      'draft saved': 'draft kept, only you see it',
      'kept here': 'kept in this browser',
      'not kept': 'not saved: this browser keeps nothing',
      'two texts': '',
    })[draft.state.value],
)
const behind = computed(() => props.page.number - draft.base())
const noteVerb = computed(() => {
  if (note.pos === null) return 'Insert'
  if (note.text.trim() || note.source.trim()) return 'Save changes'
  return 'Remove'
})
</script>

<template>
  <section
    class="editor"
    :aria-label="`Writing on ${page.title}`"
    @keydown.ctrl.enter.prevent="save"
    @keydown.meta.enter.prevent="save"
  >
    <h2>{{ page.title }}</h2>
    <p v-if="behind > 0" class="behind" role="status">
      {{ behind === 1 ? 'A version was' : `${behind} versions were` }} saved since you began.
      {{ behind === 1 ? 'It is' : 'They are' }} joined with yours when you save.
    </p>
    <TwoTexts
      v-if="draft.theirs.value"
      sentence="You changed this page in another window. Nothing was overwritten; keep the text you want."
      :mine="plainText(draft.doc.value)"
      :theirs="plainText(draft.theirs.value.doc as RichNode)"
      their-name="In the other window"
      @choose="draft.settle"
    />
    <OverlapChoice
      v-if="draft.overlaps.value"
      v-model="draft.choices.value"
      :overlaps="draft.overlaps.value"
    />
    <div class="box">
      <RichEditor
        ref="rich"
        class="rich"
        :doc="draft.doc.value"
        label="The page"
        :more="nodes"
        autofocus
        formulas
        @write="draft.write"
      >
        <template #tools="{ editor: e }">
          <PlainButton title="or type [[" @click="e?.chain().focus().insertContent('[[').run()">
            Page link
          </PlainButton>
          <PlainButton
            :class="{ on: note.open }"
            @click="Object.assign(note, { open: !note.open, text: '', source: '', pos: null })"
          >
            Footnote
          </PlainButton>
          <PictureTool :activity-id="activityId" @kept="insertPicture(e, $event.url)" />
        </template>
        <template #after
          ><span class="hint num">{{ words }} words</span></template
        >
      </RichEditor>
      <form v-if="note.open" class="note" @submit.prevent="setNote">
        <label>Footnote <LineInput v-model="note.text" class="in" maxlength="2000" autofocus /></label
        ><label
          >Source
          <LineInput
            v-model="note.source"
            class="in"
            maxlength="2000"
            placeholder="an address, or where it stands" /></label
        ><TextButton type="submit">
          {{ noteVerb }}
        </TextButton>
      </form>
    </div>
    <PageLinkList v-if="choice && titles.length > 0" :choice="choice" :titles="titles" :picked="picked" />
    <fieldset v-if="open.length > 0" class="acts-on">
      <legend>This version acts on</legend>
      <label v-for="c in open" :key="c.id"
        ><PlainCheckbox
          :checked="actsOn.has(c.id)"
          @change="actsOn.has(c.id) ? actsOn.delete(c.id) : actsOn.add(c.id)"
        /><span
          ><b>{{ c.author.isMe ? 'You' : c.author.givenName }}</b> {{ plain(c.html) }}</span
        ></label
      >
    </fieldset>
    <p v-if="draft.problem.value" class="field-problem" role="alert">{{ draft.problem.value }}</p>
    <div class="done">
      <label class="summary"
        ><span>What this version does</span
        ><LineInput v-model="summary" class="in" maxlength="200" placeholder="dates the second mole"
      /></label>
      <span class="state" role="status">{{ stateWords }}</span><span class="grow" />
      <v-btn v-if="page.draft || draft.state.value !== 'as saved'" class="quiet" @click="discard"
        >Delete draft</v-btn
      >
      <v-btn class="quiet" @click="away">Close</v-btn>
      <v-btn
        class="main"
        :disabled="draft.busy.value || (draft.overlaps.value !== null && !draft.chosen.value)"
        @click="save"
        >Save version {{ page.number + 1 }} <kbd>Ctrl Enter</kbd></v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.editor {
  max-width: 52em;
}
h2 {
  font: 600 1.5rem/1.3 var(--read);
  margin-bottom: 8px;
}
.behind {
  font-size: 0.8125rem;
  color: var(--ember);
  margin-bottom: 8px;
}
.box {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
}
.rich :deep(.tools) {
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 3;
  border-radius: var(--r) var(--r) 0 0;
}
.rich :deep(.prose) {
  font-size: 1.0625rem;
  line-height: 1.6;
  min-height: 16em;
  padding: 12px 20px 16px;
}
.rich :deep(.prose h3) {
  font: 600 1.25rem/1.35 var(--read);
  color: var(--ink);
}
.rich :deep(.prose h4) {
  font: 600 1.0625rem/1.35 var(--read);
}
.rich :deep(.page-link) {
  color: var(--harbour);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.rich :deep(.footnote-mark) {
  border: 0;
  background: var(--harbour-soft);
  border-radius: 3px;
  color: var(--harbour-deep);
  font: 650 0.75rem/1 var(--ui);
  padding: 1px 4px;
  cursor: pointer;
  vertical-align: 4px;
}
.note {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  padding: 8px 14px;
  border-top: 1px solid var(--line-soft);
  font-size: 0.8125rem;
}
.note label {
  display: flex;
  gap: 8px;
  align-items: center;
  flex: 1;
  min-width: 16rem;
}
.note .in {
  flex: 1;
  padding: 4px 8px;
}
.acts-on {
  border: 0;
  padding: 0;
  margin: 12px 0 0;
  display: grid;
  gap: 4px;
  font-size: 0.84375rem;
}
.acts-on legend {
  font: 600 0.8125rem/1.4 var(--ui);
  padding: 0;
  margin-bottom: 3px;
}
.acts-on label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.acts-on b {
  font-weight: 600;
}
.done {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin-top: 12px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  position: sticky;
  bottom: -60px;
  background: var(--sheet);
  padding: 9px 0 10px;
  border-top: 1px solid var(--line);
  z-index: 3;
}
.summary {
  display: flex;
  gap: 10px;
  align-items: center;
  flex: 1 0 100%;
  font-weight: 600;
  color: var(--ink);
  white-space: nowrap;
}
.summary .in {
  font-weight: 400;
  flex: 1;
  padding: 4px 9px;
}
</style>
