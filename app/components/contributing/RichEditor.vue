<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { EditorContent, useEditor, type AnyExtension, type JSONContent } from '@tiptap/vue-3'
import { plainText, type RichNode } from '#core/contributing/richText'
import Subscript from '@tiptap/extension-subscript'
import Superscript from '@tiptap/extension-superscript'
import { TableKit } from '@tiptap/extension-table'
import { formulaNodes } from '~/composables/contributing/formulaNodes'
import { cleanPasted } from '~/composables/contributing/cleanPasted'
import { languageMark, markLanguage } from '~/composables/contributing/languageMark'
import { isSendingKey, textNodes } from '~/composables/contributing/textNodes'
import { isFieldFocused } from '~/composables/shell/isFieldFocused'
import { vRoving } from '../controls/vRoving'
import LanguageList from '~/components/controls/LanguageList.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'
import EditorMore from './EditorMore.vue'
import EditorTable from './EditorTable.vue'
import PictureWords from './PictureWords.vue'

const FormulaField = defineAsyncComponent(() => import('./FormulaField.vue'))
const props = withDefaults(
  defineProps<{
    doc: RichNode
    /** Name of the text for those who cannot see it. */
    label: string
    /** Whether the caret goes in at once, unless somebody is writing in another field by then. */
    autofocus?: boolean
    describedby?: string
    /** More that this editor can hold, beyond plain text. */
    more?: AnyExtension[]
    /** Levels of headings it takes. */
    levels?: Array<3 | 4>
    /** Whether formulas can be put in. */
    formulas?: boolean
  }>(),
  { autofocus: false, describedby: undefined, more: () => [], levels: () => [3, 4] },
)
const emit = defineEmits<{ write: [doc: RichNode] }>()
const formula = ref({ open: false, latex: '', pos: null as number | null })
const nonce = import.meta.client
  ? document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content
  : undefined

const editor = useEditor({
  extensions: [
    ...(props.formulas
      ? formulaNodes((latex, pos) => {
          formula.value = { open: true, latex, pos }
        })
      : []),
    textNodes({
      heading: { levels: props.levels },
      codeBlock: false,
      link: { openOnClick: false, protocols: ['http', 'https', 'mailto'] },
    }),
    languageMark,
    Superscript,
    Subscript,
    TableKit.configure({ table: { resizable: false } }),
    ...props.more,
  ],
  content: props.doc as JSONContent,
  onCreate: ({ editor: e }) => {
    if (!props.autofocus || isFieldFocused()) return
    e.commands.setTextSelection(e.state.doc.content.size)
    e.view.focus()
  },
  injectNonce: nonce,
  editorProps: {
    attributes: () => ({
      dir: 'auto',
      class: 'prose',
      role: 'textbox',
      spellcheck: 'true',
      'aria-multiline': 'true',
      'aria-label': props.label,
      ...(props.describedby && { 'aria-describedby': props.describedby }),
    }),
    transformPastedHTML: cleanPasted,
    handleKeyDown: (_view, event) => isSendingKey(event),
  },
  onUpdate: ({ editor: e }) => emit('write', e.getJSON() as RichNode),
})
// a text chosen from two, or a heading set from outside, replaces what stands in the editor
watch(
  () => props.doc,
  doc => {
    if (editor.value && JSON.stringify(editor.value.getJSON()) !== JSON.stringify(doc))
      editor.value.commands.setContent(doc as JSONContent, { emitUpdate: false })
  },
)
// they stand there before the editor does, so that nothing jumps when it comes
const tools = computed(() => {
  const e = editor.value
  const isOn = (name: string) => e?.isActive(name) ?? false
  return [
    { name: 'Bold', on: isOn('bold'), run: () => e?.chain().focus().toggleBold().run() },
    { name: 'Italic', on: isOn('italic'), run: () => e?.chain().focus().toggleItalic().run() },
    { name: 'Quote', on: isOn('blockquote'), run: () => e?.chain().focus().toggleBlockquote().run() },
    { name: 'List', on: isOn('bulletList'), run: () => e?.chain().focus().toggleBulletList().run() },
    {
      name: 'Link',
      on: isOn('link') || asking.value,
      run: () => {
        asking.value = !asking.value
        address.value = String(e?.getAttributes('link').href ?? '')
      },
    },
  ]
})
/** Of the words at the caret; '' where it is guessed. */
const language = computed(() => String(editor.value?.getAttributes('language').lang ?? ''))
function setLanguage(event: Event) {
  if (editor.value) markLanguage(editor.value, (event.target as HTMLSelectElement).value) // its own event
}
function setFormula() {
  const latex = formula.value.latex.trim()
  const e = editor.value
  if (formula.value.pos !== null) {
    if (latex) e?.chain().setNodeSelection(formula.value.pos).updateInlineMath({ latex }).focus().run()
    else e?.chain().setNodeSelection(formula.value.pos).deleteSelection().focus().run()
  } else if (latex) e?.chain().focus().insertInlineMath({ latex }).run()
  formula.value = { open: false, latex: '', pos: null }
}
/** Its words, where the editor will stand: until it has come, and with as much room. */
const blocks = computed(() => plainText(props.doc).split('\n'))
const asking = ref(false)
const address = ref('')
function setLink() {
  const href = address.value.trim()
  const chain = editor.value?.chain().focus().extendMarkRange('link')
  if (href === '') chain?.unsetLink().run()
  else chain?.setLink({ href: /^(https?:|mailto:)/i.test(href) ? href : `https://${href}` }).run()
  asking.value = false
}
defineExpose({ focus: () => editor.value?.commands.focus('end'), editor })
</script>

<template>
  <div class="editor">
    <div v-roving class="tools" role="toolbar" :aria-label="`${label}: form`">
      <slot name="before" />
      <PlainButton
        v-for="tool in tools"
        :key="tool.name"
        :class="[`tool-${tool.name.toLowerCase()}`, { on: tool.on }]"
        :aria-pressed="tool.on"
        @click="tool.run"
      >
        {{ tool.name }}
      </PlainButton>
      <PlainButton
        v-if="formulas"
        class="tool-equation"
        :class="{ on: formula.open }"
        @click="formula = { open: !formula.open, latex: '', pos: null }"
      >
        Equation
      </PlainButton>
      <EditorMore :editor="editor" :levels="levels" />
      <slot name="tools" :editor="editor" />
      <LanguageList
        :value="language"
        guessed="Language"
        aria-label="Language of the chosen words, or of the paragraph"
        @change="setLanguage"
      />
      <span class="grow" />
      <slot name="after" />
    </div>
    <EditorTable v-if="editor?.isActive('table')" class="tools" :editor="editor" />
    <PictureWords v-if="editor?.isActive('image')" :editor="editor" />
    <form v-if="asking" class="address" @submit.prevent="setLink">
      <label
        >Address <LineInput v-model="address" type="text" inputmode="url" placeholder="https://"
      /></label>
      <TextButton type="submit">{{ address.trim() ? 'Set the link' : 'Remove the link' }}</TextButton>
    </form>
    <FormulaField
      v-if="formula.open"
      v-model="formula.latex"
      :is-new="formula.pos === null"
      @set="setFormula"
    />
    <EditorContent v-if="editor" :editor="editor" class="text" />
    <div v-else class="text" aria-hidden="true">
      <div class="prose" dir="auto">
        <p v-for="(block, i) in blocks" :key="i">{{ block }}<br v-if="block === ''" /></p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px;
  padding: 3px 6px;
  font-size: 0.78125rem;
  border-bottom: 1px solid var(--line-soft);
  min-height: 32px;
}
/* what stands among the tools looks like one, from wherever it comes */
.tools :deep(button),
.tools :deep(.pick) {
  padding: 4px 8px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink-2);
  cursor: pointer;
}
.tools :deep(button:hover),
.tools :deep(.pick:hover) {
  background: var(--sunken);
  color: var(--ink);
}
.tools :deep(.pick:focus-within) {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.tools :deep(button.on) {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
}
.tool-bold {
  font-weight: 700;
}
.tool-italic {
  font-style: italic;
}
.address {
  display: flex;
  gap: 12px;
  padding: 7px 14px;
  font-size: 0.8125rem;
  border-bottom: 1px solid var(--line-soft);
}
.address label {
  display: flex;
  gap: 8px;
  flex: 1;
  align-items: center;
}
.address input {
  flex: 1;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 4px 8px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  min-width: 0;
}
.text :deep(.ProseMirror-selectednode) {
  outline: 2px solid var(--ember);
}
.text :deep(.prose) {
  padding: 9px 14px 6px;
  min-height: 5.2em;
  outline: none;
  box-shadow: none;
  caret-color: var(--ember);
}
</style>
