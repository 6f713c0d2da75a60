import { Mark, mergeAttributes, Node } from '@tiptap/core'
import Image from '@tiptap/extension-image'
import { Suggestion } from '@tiptap/suggestion'
import { PluginKey } from '@tiptap/pm/state'

/** What a writer is choosing a page for: the words typed since the brackets, and where to show the choice. */
export interface LinkChoice {
  readonly words: string
  readonly at: DOMRect | null
  readonly take: (title: string) => void
}

/** A link to another page of the wiki, by its title: typed between double brackets. */
const pageLink = (onChoice: (choice: LinkChoice | null) => void, onKey: (event: KeyboardEvent) => boolean) =>
  Mark.create({
    name: 'pageLink',
    inclusive: false,
    excludes: 'link',
    addAttributes: () => ({
      title: {
        default: '',
        parseHTML: (e: HTMLElement) => e.getAttribute('data-page') ?? '',
        renderHTML: ({ title }: Record<string, unknown>) => ({ 'data-page': String(title) }),
      },
    }),
    parseHTML: () => [{ tag: 'a.page-link' }, { tag: 'span.page-link' }],
    renderHTML: ({ HTMLAttributes }) => ['span', mergeAttributes(HTMLAttributes, { class: 'page-link' }), 0],
    addProseMirrorPlugins() {
      return [
        Suggestion({
          editor: this.editor,
          char: '[[',
          allowSpaces: true,
          allowedPrefixes: null,
          pluginKey: new PluginKey('pageLink'),
          items: ({ query }) => [query],
          command: ({ editor, range, props }) => {
            const title = String((props as { title: string }).title)
            editor
              .chain()
              .focus()
              .deleteRange(range)
              .insertContent([
                { type: 'text', text: title, marks: [{ type: 'pageLink', attrs: { title } }] },
                { type: 'text', text: ' ' },
              ])
              .run()
          },
          render: () => ({
            onStart: props =>
              onChoice({
                words: props.query,
                at: props.clientRect?.() ?? null,
                take: title => props.command({ title }),
              }),
            onUpdate: props =>
              onChoice({
                words: props.query,
                at: props.clientRect?.() ?? null,
                take: title => props.command({ title }),
              }),
            onKeyDown: ({ event }) => onKey(event),
            onExit: () => onChoice(null),
          }),
        }),
      ]
    },
  })

/** A footnote with its source: a number in the text, the words below the page. */
const footnote = (onNote: (note: { text: string; source: string }, pos: number) => void) =>
  Node.create({
    name: 'footnote',
    group: 'inline',
    inline: true,
    atom: true,
    selectable: true,
    addAttributes: () => ({ text: { default: '' }, source: { default: '' } }),
    parseHTML: () => [],
    renderHTML: ({ HTMLAttributes: { text, source } }) => [
      'sup',
      { class: 'footnote', title: [text, source].filter(Boolean).join(' ') },
      '*',
    ],
    addNodeView() {
      return ({ node, getPos }) => {
        const dom = document.createElement('button')
        dom.type = 'button'
        dom.className = 'footnote-mark'
        dom.textContent = '*'
        dom.title = [node.attrs.text, node.attrs.source].filter(Boolean).join(' ')
        dom.setAttribute('aria-label', `Footnote: ${dom.title}`)
        dom.addEventListener('click', () => {
          const pos = getPos()
          if (pos !== undefined)
            onNote({ text: String(node.attrs.text), source: String(node.attrs.source) }, pos)
        })
        return { dom }
      }
    },
  })

/** What a page of a wiki can hold beyond the text of a post. */
export const pageNodes = (on: {
  choice: (choice: LinkChoice | null) => void
  key: (event: KeyboardEvent) => boolean
  note: (note: { text: string; source: string }, pos: number) => void
}) => [Image, pageLink(on.choice, on.key), footnote(on.note)]
