import { paragraphs, type RichNode } from '#core/contributing/richText'
import { type DemoMark } from './marks'

export function letterDoc(m: DemoMark): RichNode {
  return {
    type: 'doc',
    content: m.letter.flatMap(([heading, text]) => [
      ...(heading
        ? [{ type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text: heading }] }]
        : []),
      ...(paragraphs(text).content ?? []),
    ]),
  }
}

/** A document in which what stands between dollar signs is a formula. */
export function withFormulas(node: RichNode): RichNode {
  if (!node.content) return node
  return {
    ...node,
    content: node.content.flatMap((child): RichNode[] => {
      if (child.text === undefined) return [withFormulas(child)]
      return child.text.split(/\$([^$]+)\$/).flatMap((part, i): RichNode[] => {
        if (i % 2 === 1) return [{ type: 'inlineMath', attrs: { latex: part } }]
        if (part) return [{ ...child, text: part }]
        return []
      })
    }),
  }
}
