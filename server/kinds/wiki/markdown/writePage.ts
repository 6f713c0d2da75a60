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

type Inline = PhrasingContent | InlineMath

/** Where things of a page lead to in the archive: a picture's file, or null where there is none; the file of a page by its title. */
export interface LinkTargets {
  readonly picture: (src: string) => string | null
  readonly page: (title: string) => string
}

/**
 * A page as Markdown (CommonMark with tables, strikethrough and footnotes as GitHub Flavored Markdown has them, and
 * formulas between dollar signs). A footnote's source is a second paragraph of it. What Markdown has no
 * sign for (underlining) is left plain.
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
    return nodes.flatMap((node): RootContent[] => {
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
              children: children.map((item): ListItem => ({
                type: 'listItem',
                spread: false,
                children: blocks(item.content ?? []) as BlockContent[],
              })),
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
                  children: inline(
                    (cell.content ?? []).flatMap((block, i) => [
                      ...(i > 0 ? [{ type: 'text', text: ' ' }] : []),
                      ...(block.content ?? []),
                    ]),
                  ) as PhrasingContent[],
                })),
              })),
            },
          ]
        default:
          return blocks(children)
      }
    })
  }

  function inline(nodes: readonly RichNode[]): PhrasingContent[] {
    return nodes.flatMap((node): Inline[] => {
      if (node.type === 'hardBreak') return [{ type: 'break' }]
      if (node.type === 'inlineMath') return [{ type: 'inlineMath', value: String(node.attrs?.latex ?? '') }]
      if (node.type === 'footnote') return [cite(node)]
      return node.text === undefined ? (inline(node.content ?? []) as Inline[]) : [marked(node)]
    }) as PhrasingContent[]
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

  function marked(node: RichNode): Inline {
    const marks = node.marks ?? []
    const has = (type: string) => marks.find(m => m.type === type)
    let content: PhrasingContent = has('code')
      ? { type: 'inlineCode', value: node.text! }
      : { type: 'text', value: node.text! }
    if (has('italic')) content = { type: 'emphasis', children: [content] }
    if (has('bold')) content = { type: 'strong', children: [content] }
    if (has('strike')) content = { type: 'delete', children: [content] }
    const link = has('link')
    if (link) content = { type: 'link', url: String(link.attrs?.href ?? ''), children: [content] }
    const page = has('pageLink')
    if (page)
      content = {
        type: 'link',
        url: encodeURI(targets.page(String(page.attrs?.title ?? ''))),
        children: [content],
      }
    return content
  }
}
