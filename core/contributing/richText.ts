/** A document as the editor keeps it: a tree of nodes, text in the leaves. */
export interface RichNode {
  readonly type: string
  readonly text?: string | undefined
  readonly attrs?: Readonly<Record<string, unknown>> | undefined
  readonly marks?:
    | ReadonlyArray<{ readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> | undefined }>
    | undefined
  readonly content?: readonly RichNode[] | undefined
}

const BLOCKS = new Set([
  'paragraph',
  'heading',
  'blockquote',
  'listItem',
  'bulletList',
  'orderedList',
  'codeBlock',
  'doc',
  'horizontalRule',
  'table',
  'tableRow',
  'tableCell',
  'tableHeader',
  'blockMath',
  'image',
  'recording',
  'paper',
])

/**
 * The visible text of a document: blocks on lines of their own, hard breaks as line breaks, white space trimmed.
 *
 * @param options.leaveOutQuotations drop block quotations, as word counts do: others' words are not one's own
 */
export function plainText(doc: RichNode, options: { readonly leaveOutQuotations?: boolean } = {}): string {
  const lines: string[] = ['']
  const breakLine = () => {
    if (lines[lines.length - 1] !== '') lines.push('')
  }
  const visit = (node: RichNode) => {
    if (node.type === 'blockquote' && options.leaveOutQuotations) {
      breakLine()
      return
    }
    if (node.type === 'hardBreak') {
      lines.push('')
      return
    }
    if (node.text !== undefined) {
      lines[lines.length - 1] += node.text
      return
    }
    // a formula is read by its source; a picture by what it shows
    if (node.type === 'inlineMath' || node.type === 'blockMath') {
      lines[lines.length - 1] += String(node.attrs?.latex ?? '')
      return
    }
    const isBlock = BLOCKS.has(node.type)
    if (isBlock) breakLine()
    node.content?.forEach(visit)
    if (isBlock) breakLine()
  }
  visit(doc)
  return lines
    .map(line => line.replace(/[\s\u00a0]+/g, ' ').trim())
    .filter(Boolean)
    .join('\n')
}

/** A document of plain paragraphs, one for each line of `text`; what the seed and tests write with. */
export function paragraphs(text: string): RichNode {
  const lines = text
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean)
  return {
    type: 'doc',
    content: lines.map(line => ({ type: 'paragraph', content: [{ type: 'text', text: line }] })),
  }
}

/** Depth of the tree, 1 for a document without content. Used to refuse documents built to exhaust a renderer. */
export function depthOf(node: RichNode): number {
  let deepest = 0
  const stack: Array<readonly [RichNode, number]> = [[node, 1]]
  for (let next = stack.pop(); next; next = stack.pop()) {
    const [current, depth] = next
    deepest = Math.max(deepest, depth)
    if (Array.isArray(current?.content)) current.content.forEach(child => stack.push([child, depth + 1]))
  }
  return deepest
}
