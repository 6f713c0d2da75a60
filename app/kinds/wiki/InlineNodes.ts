import { h, type FunctionalComponent, type VNodeChild } from 'vue'
import type { RichNode } from '#core/contributing/richText'

const TAGS: Readonly<Record<string, string>> = {
  bold: 'strong',
  italic: 'em',
  underline: 'u',
  strike: 's',
  code: 'code',
  pageLink: 'span',
  link: 'span',
}
const CLASSES: Readonly<Record<string, string>> = { pageLink: 'page-link', link: 'out-link' }

/** Text nodes of a page as they look, to be compared and shaded: links lead nowhere here. */
export const InlineNodes: FunctionalComponent<{ nodes: readonly RichNode[] }> = ({ nodes }) =>
  nodes.map(drawn)
InlineNodes.props = ['nodes']

function drawn(node: RichNode): VNodeChild {
  if (node.type === 'hardBreak') return h('br')
  if (node.type === 'inlineMath') return h('code', String(node.attrs?.latex ?? ''))
  if (node.type === 'footnote')
    return h(
      'sup',
      { class: 'note-mark', title: [node.attrs?.text, node.attrs?.source].filter(Boolean).join(' ') },
      'note',
    )
  return (node.marks ?? []).reduce<VNodeChild>(
    (inner, mark) => (TAGS[mark.type] ? h(TAGS[mark.type]!, { class: CLASSES[mark.type] }, [inner]) : inner),
    node.text ?? '',
  )
}
