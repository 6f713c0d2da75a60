import { shuffled, type Random } from '#core/chance/seededRandom'
import type { RichNode } from '#core/contributing/richText'

const WORDS =
  'the mole toll harbour stone of and widow share pilot oath herring lasts barge quay tide silt guild paid built first second for a to in was roll chain'.split(
    ' ',
  )

/** A block of a page with words of a small vocabulary, so that repetitions and chance matches occur. */
export function someBlock(random: Random, most = 40): RichNode {
  const count = Math.floor(random() * most)
  const words = Array.from({ length: count }, () => WORDS[Math.floor(random() * WORDS.length)]!)
  const text = words.join(' ') + (count > 0 && random() < 0.8 ? '.' : '')
  const roll = random()
  const findInline = () => {
    if (text === '') return []
    if (roll < 0.2 && count > 4)
      return [
        { type: 'text', text: text.slice(0, 9) },
        { type: 'text', text: text.slice(9, 14), marks: [{ type: 'bold' }] },
        { type: 'text', text: text.slice(14) },
      ].filter(n => n.text !== '')
    if (roll < 0.3)
      return [
        { type: 'text', text },
        { type: 'footnote', attrs: { text: `See ${count}.` } },
      ]
    return [{ type: 'text', text }]
  }
  const inline: RichNode[] = findInline()
  const block: RichNode = { type: 'paragraph', ...(inline.length > 0 && { content: inline }) }
  if (roll > 0.9)
    return {
      type: 'bulletList',
      content: [
        { type: 'listItem', content: [block] },
        {
          type: 'listItem',
          content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a second item' }] }],
        },
      ],
    }
  if (roll > 0.85)
    return { type: 'heading', attrs: { level: 3 }, ...(block.content && { content: block.content }) }
  if (roll > 0.82)
    return {
      type: 'table',
      content: [
        {
          type: 'tableRow',
          content: [
            { type: 'tableHeader', content: [{ type: 'paragraph' }] },
            { type: 'tableCell', content: [block] },
          ],
        },
      ],
    }
  if (roll > 0.8) return { type: 'blockMath', attrs: { latex: 'x^2' } }
  return block
}

export const somePage = (random: Random, blocks = 12): RichNode => ({
  type: 'doc',
  content: Array.from({ length: 1 + Math.floor(random() * blocks) }, () => someBlock(random)),
})

/** A page after somebody has worked on it: words taken out, put in, blocks moved, doubled, removed, everything replaced. */
export function reworked(random: Random, doc: RichNode): RichNode {
  let content = [...(doc.content ?? [])]
  const at = () => Math.floor(random() * Math.max(1, content.length))
  for (let n = 1 + Math.floor(random() * 4); n > 0; n--) {
    const roll = random()
    if (roll < 0.03) content = []
    else if (roll < 0.08) content = [...somePage(random).content!]
    else if (roll < 0.2) content.splice(at(), 0, someBlock(random))
    else if (roll < 0.3) content.splice(at(), 1)
    else if (roll < 0.45 && content.length > 1) content.splice(at(), 0, ...content.splice(at(), 1))
    else if (roll < 0.5 && content.length > 0) content.splice(at(), 0, content[at()]!)
    else if (roll < 0.55) content = shuffled(content, random)
    else if (content.length > 0) {
      const k = at()
      content[k] = editWords(random, content[k]!)
    }
  }
  return { type: 'doc', ...(content.length > 0 && { content: structuredClone(content) }) }
}

function editWords(random: Random, node: RichNode): RichNode {
  if (node.text === undefined)
    return node.content ? { ...node, content: node.content.map(c => editWords(random, c)) } : node
  const words = node.text.split(' ')
  const k = Math.floor(random() * words.length)
  words.splice(
    k,
    Math.floor(random() * 4),
    ...Array.from({ length: Math.floor(random() * 4) }, () => WORDS[Math.floor(random() * WORDS.length)]!),
  )
  return { ...node, text: words.join(' ') || 'of' }
}
