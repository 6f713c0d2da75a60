import type { Nodes, Root } from 'mdast'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmFromMarkdown } from 'mdast-util-gfm'
import { mathFromMarkdown } from 'mdast-util-math'
import { gfm } from 'micromark-extension-gfm'
import { math } from 'micromark-extension-math'
import type { RichNode } from '#core/contributing/richText'

type Marks = NonNullable<RichNode['marks']>

/** A page read from Markdown: its title is its first heading of the first level, else the name of its file. HTML in it stays words. */
export function readMarkdownPage(
  name: string,
  text: string,
): { readonly title: string; readonly doc: RichNode } {
  const root = fromMarkdown(text, {
    extensions: [gfm(), math()],
    mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown()],
  })
  const first = root.children.find(node => node.type !== 'html')
  const titled = first?.type === 'heading' && first.depth === 1
  const notes = new Map(
    root.children.flatMap(node =>
      node.type === 'footnoteDefinition' ? [[node.identifier, node.children.map(wordsOf)] as const] : [],
    ),
  )
  const body = root.children.filter(
    node => node.type !== 'footnoteDefinition' && node !== (titled ? first : undefined),
  )
  return {
    title: titled ? wordsOf(first).trim() : titleOfFile(name),
    doc: { type: 'doc', content: body.flatMap(node => block(node, notes)) },
  }
}

const titleOfFile = (path: string): string =>
  decoded(
    path
      .split('/')
      .at(-1)!
      .replace(/\.(md|markdown|txt)$/i, ''),
  )
    .replace(/[-_]+/g, ' ')
    .trim() || 'Untitled'

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  } // a stray per cent sign
}

/** The words of a node, whatever they look like. */
function wordsOf(node: Nodes): string {
  if ('value' in node) return node.value
  return 'children' in node ? (node as Root).children.map(wordsOf).join('') : ''
}

function block(node: Nodes, notes: ReadonlyMap<string, readonly string[]>): RichNode[] {
  const inner = (nodes: readonly Nodes[]) => nodes.flatMap(child => block(child, notes))
  const line = (nodes: readonly Nodes[], marks: Marks = []) =>
    nodes.flatMap(child => inline(child, marks, notes))
  const paragraph = (content: readonly RichNode[]): RichNode => ({
    type: 'paragraph',
    ...(content.length > 0 && { content }),
  })
  switch (node.type) {
    case 'paragraph':
      return [paragraph(line(node.children))]
    case 'heading':
      return [{ type: 'heading', attrs: { level: node.depth > 2 ? 4 : 3 }, content: line(node.children) }]
    case 'blockquote':
      return [{ type: 'blockquote', content: inner(node.children) }]
    case 'list':
      return [
        {
          type: node.ordered ? 'orderedList' : 'bulletList',
          content: node.children.map(item => ({
            type: 'listItem',
            content: beginsWithParagraph(inner(item.children)),
          })),
        },
      ]
    case 'thematicBreak':
      return [{ type: 'horizontalRule' }]
    case 'math':
      return [{ type: 'blockMath', attrs: { latex: node.value } }]
    case 'code':
      return node.value
        .split('\n')
        .map(value => paragraph(value ? [{ type: 'text', text: value, marks: [{ type: 'code' }] }] : []))
    case 'html':
      return [paragraph([{ type: 'text', text: node.value }])]
    case 'table':
      return [
        {
          type: 'table',
          content: node.children.map((row, r) => ({
            type: 'tableRow',
            content: row.children.map(cell => ({
              type: r === 0 ? 'tableHeader' : 'tableCell',
              content: [paragraph(line(cell.children))],
            })),
          })),
        },
      ]
    case 'definition':
    case 'footnoteDefinition':
      return []
    default:
      return [paragraph(inline(node, [], notes))]
  }
}

const beginsWithParagraph = (content: RichNode[]): RichNode[] =>
  content[0]?.type === 'paragraph' ? content : [{ type: 'paragraph' }, ...content]

function inline(node: Nodes, marks: Marks, notes: ReadonlyMap<string, readonly string[]>): RichNode[] {
  const text = (value: string, more: Marks = []): RichNode[] =>
    value === ''
      ? []
      : [
          {
            type: 'text',
            text: value.replace(/\n/g, ' '),
            ...(marks.length + more.length > 0 && { marks: [...marks, ...more] }),
          },
        ]
  const inner = (mark: Marks[number] | null, children: readonly Nodes[]) =>
    children.flatMap(child => inline(child, mark ? [...marks, mark] : marks, notes))
  switch (node.type) {
    case 'text':
      return text(node.value)
    case 'inlineCode':
      return text(node.value, [{ type: 'code' }])
    case 'html':
      return text(node.value)
    case 'break':
      return [{ type: 'hardBreak' }]
    case 'inlineMath':
      return [{ type: 'inlineMath', attrs: { latex: node.value } }]
    case 'strong':
      return inner({ type: 'bold' }, node.children)
    case 'emphasis':
      return inner({ type: 'italic' }, node.children)
    case 'delete':
      return inner({ type: 'strike' }, node.children)
    case 'link':
      return inner(linkTo(node.url), node.children)
    case 'image':
      return text(node.alt ?? '') // its file is not here: what it shows is kept
    case 'footnoteReference': {
      const [words = '', source = ''] = notes.get(node.identifier) ?? []
      return [{ type: 'footnote', attrs: { text: words === '…' ? '' : words, source } }]
    }
    default:
      return 'children' in node ? inner(null, (node as Root).children) : []
  }
}

/** A link to another Markdown file is one to that page; others lead out. */
function linkTo(url: string): Marks[number] | null {
  if (/^(https?:|mailto:)/i.test(url)) return { type: 'link', attrs: { href: url } }
  return /\.(md|markdown)(#.*)?$/i.test(url)
    ? { type: 'pageLink', attrs: { title: titleOfFile(url.replace(/#.*$/, '')) } }
    : null
}
