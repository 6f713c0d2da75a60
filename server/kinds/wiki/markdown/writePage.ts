import type {
  BlockContent,
  FootnoteDefinition,
  ListItem,
  PhrasingContent,
  Root,
  RootContent,
  TableRow,
} from 'mdast'
import { gfmToMarkdown } from 'mdast-util-gfm'
import { mathToMarkdown, type InlineMath, type Math as BlockMath } from 'mdast-util-math'
import { toMarkdown } from 'mdast-util-to-markdown'
import type { RichNode } from '#core/contributing/richText'
import { tagsOf } from './inlineTags'
import { codeLine, TASK } from './signs'

type Inline = PhrasingContent | InlineMath

/** Where things of a page lead to in the archive: a picture's file, or null where there is none; the file of a page by its title. */
export interface LinkTargets {
  readonly picture: (src: string) => string | null
  readonly page: (title: string) => string
}

/**
 * A page as Markdown (CommonMark with tables, tasks, strikethrough and footnotes as GitHub Flavored Markdown has them, and
 * formulas between dollar signs). A footnote's source is a second paragraph of it. What Markdown has no sign for
 * (underlining, raised and lowered letters, another language, lines of a cell) stands in the HTML it may hold.
 */
export function pageMarkdown(doc: RichNode, targets: LinkTargets): string {
  const notes: FootnoteDefinition[] = []
  const root: Root = { type: 'root', children: [...blocks(doc.content ?? []), ...notes] }
  return toMarkdown(root, {
    extensions: [gfmToMarkdown(), mathToMarkdown()],
    bullet: '-',
    rule: '-',
    emphasis: '*',
  })

  function blocks(nodes: readonly RichNode[]): RootContent[] {
    return codeTogether(nodes).flatMap((node): RootContent[] => {
      if ('code' in node) return [{ type: 'code', value: node.code }]
      const children = node.content ?? []
      switch (node.type) {
        case 'paragraph':
          return children.length > 0 ? [{ type: 'paragraph', children: inline(children) }] : []
        case 'heading':
          return [{ type: 'heading', depth: node.attrs?.level === 4 ? 3 : 2, children: inline(children) }]
        case 'blockquote':
          return [{ type: 'blockquote', children: blocks(children) as BlockContent[] }]
        case 'bulletList':
        case 'orderedList':
          return [
            {
              type: 'list',
              ordered: node.type === 'orderedList',
              spread: false,
              children: children.map(listItem),
            },
          ]
        case 'horizontalRule':
          return [{ type: 'thematicBreak' }]
        case 'blockMath':
          return [{ type: 'math', value: String(node.attrs?.latex ?? '') } as BlockMath as RootContent]
        case 'image': {
          const url = targets.picture(String(node.attrs?.src ?? ''))
          return url
            ? [{ type: 'paragraph', children: [{ type: 'image', url, alt: String(node.attrs?.alt ?? '') }] }]
            : []
        }
        case 'table':
          return [
            {
              type: 'table',
              children: children.map((row): TableRow => ({
                type: 'tableRow',
                children: (row.content ?? []).map(cell => ({
                  type: 'tableCell',
                  children: linesOf(cell.content ?? []).flatMap((line, i): PhrasingContent[] => [
                    ...(i > 0 ? [LINE_BREAK] : []),
                    ...line,
                  ]),
                })),
              })),
            },
          ]
        default:
          return blocks(children)
      }
    })
  }

  function listItem(item: RichNode): ListItem {
    const [first, ...more] = item.content ?? []
    const [words, ...rest] = first?.content ?? []
    // a box alone is no task
    const box = Object.values(TASK).find(
      sign => words?.text?.startsWith(sign) && (words.text.trim().length > 1 || rest.length > 0),
    )
    const text = box === undefined ? words : { ...words!, text: words!.text!.slice(box.length) }
    const begun = text && text.text !== '' ? [text, ...rest] : rest
    const content = first ? [{ ...first, ...(first.content && { content: begun }) }, ...more] : []
    return {
      type: 'listItem',
      spread: false,
      ...(box !== undefined && { checked: box === TASK.done }),
      children: blocks(content) as BlockContent[],
    }
  }

  /** What stands in a cell, line by line: a table of Markdown has no blocks in its cells. */
  function linesOf(cell: readonly RichNode[]): PhrasingContent[][] {
    return cell.flatMap((node): PhrasingContent[][] => {
      if (node.type === 'image')
        return blocks([node]).map(p => ('children' in p ? (p.children as PhrasingContent[]) : []))
      const isLine = node.type === 'paragraph' || node.type === 'heading'
      return isLine ? [inline(node.content ?? [], LINE_BREAK)] : linesOf(node.content ?? [])
    })
  }

  function inline(
    nodes: readonly RichNode[],
    lineBreak: PhrasingContent = { type: 'break' },
  ): PhrasingContent[] {
    const made: Inline[] = []
    let texts: MarkedText[] = []
    for (const node of [...nodes, null]) {
      if (node?.text !== undefined) {
        texts.push({ text: node.text, marks: inOrder(node.marks ?? []) })
        continue
      }
      made.push(...marked(texts))
      texts = []
      if (node) made.push(...atom(node, lineBreak))
    }
    return made as PhrasingContent[] // formulas are phrasing of an extension
  }

  function atom(node: RichNode, lineBreak: PhrasingContent): Inline[] {
    if (node.type === 'hardBreak') return [lineBreak]
    if (node.type === 'inlineMath') return [{ type: 'inlineMath', value: String(node.attrs?.latex ?? '') }]
    if (node.type === 'footnote') return [cite(node)]
    return inline(node.content ?? [], lineBreak)
  }

  function cite({ attrs }: RichNode): Inline {
    const identifier = String(notes.length + 1)
    const paragraph = (value: string): BlockContent => ({
      type: 'paragraph',
      children: [{ type: 'text', value }],
    })
    const source = String(attrs?.source ?? '')
    notes.push({
      type: 'footnoteDefinition',
      identifier,
      label: identifier,
      children: [paragraph(String(attrs?.text ?? '') || '…'), ...(source ? [paragraph(source)] : [])],
    })
    return { type: 'footnoteReference', identifier, label: identifier }
  }

  /** Text with its marks, outermost first; what neighbours have in common is set around both. */
  function marked(texts: readonly MarkedText[]): PhrasingContent[] {
    const made: PhrasingContent[] = []
    for (let i = 0; i < texts.length;) {
      const [mark] = texts[i]!.marks
      const apart = texts.findIndex((t, k) => k > i && !isSame(t.marks[0], mark))
      const end = apart < 0 ? texts.length : apart
      const group = texts.slice(i, end)
      i = end
      const value = group.map(t => t.text).join('')
      if (!mark) made.push({ type: 'text', value })
      else if (mark.type === 'code') made.push({ type: 'inlineCode', value })
      else made.push(...around(mark, marked(group.map(t => ({ ...t, marks: t.marks.slice(1) })))))
    }
    return made
  }

  function around(mark: Mark, children: PhrasingContent[]): PhrasingContent[] {
    const tags = tagsOf(mark)
    if (tags) return [{ type: 'html', value: tags[0] }, ...children, { type: 'html', value: tags[1] }]
    switch (mark.type) {
      case 'italic':
        return [{ type: 'emphasis', children }]
      case 'bold':
        return [{ type: 'strong', children }]
      case 'strike':
        return [{ type: 'delete', children }]
      case 'link':
        return [{ type: 'link', url: String(mark.attrs?.href ?? ''), children }]
      case 'pageLink':
        return [{ type: 'link', url: encodeURI(targets.page(String(mark.attrs?.title ?? ''))), children }]
      default:
        return children
    }
  }
}

type Mark = NonNullable<RichNode['marks']>[number]
interface MarkedText {
  readonly text: string
  readonly marks: readonly Mark[]
}
const OUTERMOST_FIRST = [
  'link',
  'pageLink',
  'strike',
  'bold',
  'italic',
  'underline',
  'superscript',
  'subscript',
  'language',
  'code',
]
const isSame = (a: Mark | undefined, b: Mark | undefined) => JSON.stringify(a) === JSON.stringify(b)
const inOrder = (marks: readonly Mark[]) =>
  marks.toSorted((a, b) => OUTERMOST_FIRST.indexOf(a.type) - OUTERMOST_FIRST.indexOf(b.type))

const LINE_BREAK: PhrasingContent = { type: 'html', value: '<br>' }

/** Blocks with paragraphs of code that follow each other as one piece of code; empty ones are lines within it. */
function codeTogether(nodes: readonly RichNode[]): Array<RichNode | { readonly code: string }> {
  const together: Array<RichNode | { readonly code: string }> = []
  for (let i = 0; i < nodes.length; i++) {
    const lines: string[] = []
    let end = i
    for (
      let line = codeLine(nodes[i]!);
      line !== null;
      line = end < nodes.length ? codeLine(nodes[end]!) : null
    ) {
      lines.push(line)
      end++
    }
    while (lines.at(-1) === '') lines.pop()
    if (lines.length === 0 || lines[0] === '') together.push(nodes[i]!)
    else {
      together.push({ code: lines.join('\n') })
      i += lines.length - 1
    }
  }
  return together
}
