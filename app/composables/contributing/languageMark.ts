import { Mark, type Editor } from '@tiptap/core'
import { isLanguage } from '#core/language/languages'

/** Words in a language that is not the page's: read out by its rules, spelt by its rules. */
export const languageMark = Mark.create({
  name: 'language',
  addAttributes: () => ({ lang: { default: null } }),
  parseHTML: () => [
    { tag: 'span[lang]', getAttrs: element => isLanguage(element.getAttribute('lang')) && null },
  ],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
})

/** Marks the chosen words, or where none are chosen the whole paragraph; '' leaves it to be guessed again. */
export function markLanguage(editor: Editor, lang: string) {
  const { $from, from, to, empty } = editor.state.selection
  const span = empty ? { from: $from.start(), to: $from.end() } : { from, to }
  const chain = editor.chain().focus().setTextSelection(span)
  if (lang === '') chain.unsetMark('language')
  else chain.setMark('language', { lang })
  chain.setTextSelection({ from, to }).run()
}
