import type { Definition, ListItem, Nodes, Root } from 'mdast'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmFromMarkdown } from 'mdast-util-gfm'
import { mathFromMarkdown } from 'mdast-util-math'
import { gfm } from 'micromark-extension-gfm'
import { math } from 'micromark-extension-math'
import type { RichNode } from '#core/contributing/richText'
import { isLineBreak, openedBy } from './inlineTags'
import { codeParagraphs, TASK } from './signs'

type Marks = NonNullable<RichNode['marks']>

/** What a page has no place for, by how often it stood in the file. */
export interface LeftOut {
  pictures: number // whose file is not there: what they show is kept in words
  links: number // to files that are no pages: their words are kept
  numbers: number // lists that began at another number than 1
  columns: number // tables with columns set to the right or in the middle
}
export interface MarkdownPage {
  readonly title: string
  readonly doc: RichNode
  readonly left: Readonly<LeftOut>
}

/**
 * A page read from Markdown: its title is its first heading of the first level, else the name of its file. HTML in it stays
 * words, but for what `pageMarkdown` writes.
 *
 * @param pictureAt the address here of a picture by the one in the file; null where it is not there
 */
export function readMarkdownPage(
  name: string,
  text: string,
  pictureAt: (url: string) => string | null = () => null,
): MarkdownPage {
  const root = fromMarkdown(text, {
    extensions: [gfm(), math()],
    mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown()],
  })
  const first = root.children.find(node => node.type !== 'html')
  const titled = first?.type === 'heading' && first.depth === 1
  const page = new PageOf(root, pictureAt)
  const body = root.children.filter(node => node !== (titled ? first : undefined))
  const content = page.blocks(body)
  return {
    title: titled ? wordsOf(first).trim() : titleOfFile(name),
    doc: { type: 'doc', content },
    left: page.left,
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

export function decoded(text: string): string {
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

/** The blocks of a page, made from those of a Markdown file. */
class PageOf {
  readonly left: LeftOut = { pictures: 0, links: 0, numbers: 0, columns: 0 }
  private readonly notes = new Map<string, readonly string[]>()
  private readonly addresses = new Map<string, Definition>()

  constructor(
    root: Root,
    private readonly pictureAt: (url: string) => string | null,
  ) {
    for (const node of root.children) {
      if (node.type === 'footnoteDefinition') this.notes.set(node.identifier, node.children.map(wordsOf))
      if (node.type === 'definition') this.addresses.set(node.identifier, node)
    }
  }

  blocks(nodes: readonly Nodes[]): RichNode[] {
    return nodes.flatMap(node => this.block(node))
  }

  private block(node: Nodes): RichNode[] {
    switch (node.type) {
      case 'paragraph':
        return this.paragraphs(node.children)
      case 'heading': {
        const [words, ...pictures] = picturesApart(this.inlines(node.children, []))
        const attrs = { level: node.depth > 2 ? 4 : 3 }
        return [{ type: 'heading', attrs, content: words ?? [] }, ...pictures.flat()]
      }
      case 'blockquote':
        return [{ type: 'blockquote', content: this.blocks(node.children) }]
      case 'list':
        if (node.ordered && (node.start ?? 1) !== 1) this.left.numbers++
        return [
          {
            type: node.ordered ? 'orderedList' : 'bulletList',
            content: node.children.map(item => this.item(item)),
          },
        ]
      case 'thematicBreak':
        return [{ type: 'horizontalRule' }]
      case 'math':
        return [{ type: 'blockMath', attrs: { latex: node.value } }]
      case 'code':
        return codeParagraphs(node.value)
      case 'html':
        return [{ type: 'paragraph', content: [{ type: 'text', text: node.value }] }]
      case 'table':
        if (node.align?.some(align => align === 'right' || align === 'center')) this.left.columns++
        return [
          {
            type: 'table',
            content: node.children.map((row, r) => ({
              type: 'tableRow',
              content: row.children.map(cell => ({
                type: r === 0 ? 'tableHeader' : 'tableCell',
                content: this.paragraphs(cell.children),
              })),
            })),
          },
        ]
      case 'definition':
      case 'footnoteDefinition':
        return []
      default:
        return this.paragraphs([node])
    }
  }

  private item({ checked, children }: ListItem): RichNode {
    const content = beginsWithParagraph(this.blocks(children))
    if (typeof checked !== 'boolean') return { type: 'listItem', content }
    const [first, ...more] = content
    const box: RichNode = { type: 'text', text: checked ? TASK.done : TASK.open }
    const [words, ...rest] = first!.content ?? []
    // plain words go on from the box
    const begun =
      words?.text !== undefined && !words.marks
        ? [{ ...words, text: box.text! + words.text }, ...rest]
        : [box, ...(words ? [words, ...rest] : [])]
    return { type: 'listItem', content: [{ ...first!, content: begun }, ...more] }
  }

  /** Words with the pictures in them as blocks of their own, as a page holds them. */
  private paragraphs(nodes: readonly Nodes[]): RichNode[] {
    const parts = picturesApart(this.inlines(nodes, []))
    const blocks = parts.flatMap(part => {
      if (part[0]?.type === 'image') return part
      return part.length > 0 ? [{ type: 'paragraph', content: part }] : []
    })
    return blocks.length > 0 ? blocks : [{ type: 'paragraph' }]
  }

  private inlines(nodes: readonly Nodes[], marks: Marks): RichNode[] {
    const open: Array<{ readonly mark: Marks[number]; readonly close: string }> = []
    return nodes.flatMap((node, i) => {
      if (node.type === 'html') {
        const tag = node.value.toLowerCase()
        if (isLineBreak(tag)) return [{ type: 'hardBreak' }]
        if (open.at(-1)?.close === tag) {
          open.pop()
          return []
        }
        const opened = openedBy(node.value)
        const isClosed = nodes
          .slice(i + 1)
          .some(n => n.type === 'html' && n.value.toLowerCase() === opened?.close)
        if (opened && isClosed) {
          open.push(opened)
          return []
        }
      }
      return this.inline(node, [...marks, ...open.map(o => o.mark)])
    })
  }

  private inline(node: Nodes, marks: Marks): RichNode[] {
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
        return this.inlines(node.children, [...marks, { type: 'bold' }])
      case 'emphasis':
        return this.inlines(node.children, [...marks, { type: 'italic' }])
      case 'delete':
        return this.inlines(node.children, [...marks, { type: 'strike' }])
      case 'link':
        return this.inlines(node.children, [...marks, ...this.linkTo(node.url)])
      case 'linkReference': {
        const url = this.addresses.get(node.identifier)?.url
        return this.inlines(node.children, url === undefined ? marks : [...marks, ...this.linkTo(url)])
      }
      case 'image':
        return this.picture(node.url, node.alt ?? '', text)
      case 'imageReference':
        return this.picture(this.addresses.get(node.identifier)?.url ?? '', node.alt ?? '', text)
      case 'footnoteReference': {
        const [words = '', ...source] = this.notes.get(node.identifier) ?? []
        return [{ type: 'footnote', attrs: { text: words === '…' ? '' : words, source: source.join(' ') } }]
      }
      default:
        return 'children' in node ? this.inlines((node as Root).children, marks) : []
    }
  }

  private picture(url: string, alt: string, text: (value: string) => RichNode[]): RichNode[] {
    const src = this.pictureAt(url)
    if (src !== null) return [{ type: 'image', attrs: { src, alt } }]
    this.left.pictures++
    return text(alt) // its file is not here: what it shows is kept
  }

  /** A link to another Markdown file is one to that page; others lead out. */
  private linkTo(url: string): Marks {
    if (/^(https?:|mailto:)/i.test(url)) return [{ type: 'link', attrs: { href: url } }]
    if (/\.(md|markdown)(#.*)?$/i.test(url))
      return [{ type: 'pageLink', attrs: { title: titleOfFile(url.replace(/#.*$/, '')) } }]
    this.left.links++
    return []
  }
}

const beginsWithParagraph = (content: RichNode[]): RichNode[] =>
  content[0]?.type === 'paragraph' ? content : [{ type: 'paragraph' }, ...content]

/** What stands in a line, parted at its pictures; white space around a picture goes. */
function picturesApart(content: readonly RichNode[]): RichNode[][] {
  const parts: RichNode[][] = [[]]
  for (const node of content) {
    if (node.type === 'image') parts.push([node], [])
    else parts.at(-1)!.push(node)
  }
  const isBlank = (part: readonly RichNode[]) => part.every(n => n.text?.trim() === '')
  return parts.length === 1 ? parts : parts.filter((part, i) => i === 0 || !isBlank(part))
}
