import { wordSegments } from '#core/language/segments'
import type { RichNode } from '#core/contributing/richText'

/**
 * The smallest thing a page is compared by: a word, what stands between two words, something that is not text (a formula,
 * a footnote), or the beginning of a block. Tokens that say the same have the same `id` within one `PageReader`.
 */
export interface Token {
  readonly kind: 'block' | 'word' | 'gap' | 'atom'
  readonly id: number
  readonly text: string // of a block or an atom: empty
  readonly form: string // how it looks, as JSON: marks of a word, shape of a block, node of an atom; '' for plain text
}

/** Where a block stands: its own node, the containers it is in, and how many of them it shares with the block before. */
interface Shape {
  readonly node: RichNode // without its content
  readonly path: readonly RichNode[] // containers from the outside in, without their content
  readonly join: number
}

export interface PageText {
  readonly tokens: readonly Token[]
  readonly ids: Int32Array
}

const LEAVES = new Set(['paragraph', 'heading', 'blockMath', 'horizontalRule', 'image', 'recording', 'paper'])

/**
 * Takes documents apart into tokens. One reader is used for all versions that are compared with each other: what blocks
 * of two versions have in common is taken apart once, and equal tokens get equal numbers.
 */
export class PageReader {
  private readonly numbers = new Map<string, number>()
  private readonly blocks = new Map<string, readonly Token[]>()

  read(doc: RichNode): PageText {
    const tokens: Token[] = []
    let before: readonly RichNode[] = []
    const visit = (node: RichNode, path: readonly RichNode[]) => {
      const children = node.content ?? []
      if (LEAVES.has(node.type) || (node.type !== 'doc' && children.length === 0)) {
        let join = 0
        while (join < path.length && join < before.length && path[join] === before[join]) join++
        for (const token of this.block(node, path, join)) tokens.push(token)
        before = path
        return
      }
      const inner = node.type === 'doc' ? path : [...path, node]
      for (const child of children) visit(child, inner)
    }
    visit(doc, [])
    return this.textOf(tokens)
  }

  /** Tokens that were put together anew, as a text. */
  textOf(tokens: readonly Token[]): PageText {
    return { tokens, ids: Int32Array.from(tokens, t => t.id) }
  }

  /** A word or gap by its text, as it is kept apart from a page. */
  plain(text: string): number {
    return this.number(`t${text}`)
  }

  private number(key: string): number {
    const known = this.numbers.get(key)
    if (known !== undefined) return known
    this.numbers.set(key, this.numbers.size)
    return this.numbers.size - 1
  }

  private block(node: RichNode, path: readonly RichNode[], join: number): readonly Token[] {
    const bare = ({ type, attrs }: RichNode): RichNode => ({ type, ...(attrs && { attrs: inOrder(attrs) }) })
    const shape = JSON.stringify({ node: bare(node), path: path.map(bare), join } satisfies Shape)
    const key = `${shape}${JSON.stringify(node.content ?? [])}`
    const known = this.blocks.get(key)
    if (known) return known
    const tokens: Token[] = [{ kind: 'block', id: this.number(`b${shape}`), text: '', form: shape }]
    let run: RichNode[] = []
    for (const child of [...(node.content ?? []), null]) {
      if (child?.text !== undefined) {
        run.push(child)
        continue
      }
      tokens.push(...this.words(run))
      run = []
      if (!child) continue
      const form = JSON.stringify({ ...child, ...(child.attrs && { attrs: inOrder(child.attrs) }) })
      tokens.push({ kind: 'atom', id: this.number(`a${form}`), text: '', form })
    }
    this.blocks.set(key, tokens)
    return tokens
  }

  /** Words by Unicode word segmentation (UAX #29), as they are counted everywhere; signs and white space between them apart. */
  private words(nodes: readonly RichNode[]): Token[] {
    const text = nodes.map(n => n.text).join('')
    if (text === '') return []
    const pieces: Array<{ text: string; isWord: boolean; isSpace: boolean }> = []
    for (const { segment, isWordLike } of wordSegments(text)) {
      const last = pieces.at(-1)
      const isSpace = segment.trim() === ''
      if (!isWordLike && last && !last.isWord && last.isSpace === isSpace) last.text += segment
      else pieces.push({ text: segment, isWord: isWordLike === true, isSpace })
    }
    const marked = nodes.some(n => n.marks && n.marks.length > 0)
    let at = 0
    return pieces.map(piece => {
      const form = marked ? formOf(nodes, at, at + piece.text.length) : ''
      at += piece.text.length
      return {
        kind: piece.isWord ? ('word' as const) : ('gap' as const),
        id: this.plain(piece.text),
        text: piece.text,
        form,
      }
    })
  }
}

/** How the text from `start` to `end` of some text nodes looks: its marks, or its pieces where it looks different within. */
function formOf(nodes: readonly RichNode[], start: number, end: number): string {
  const pieces: RichNode[] = []
  let at = 0
  for (const node of nodes) {
    const [from, to] = [Math.max(start, at), Math.min(end, at + node.text!.length)]
    if (from < to)
      pieces.push({
        type: 'text',
        text: node.text!.slice(from - at, to - at),
        ...(node.marks && {
          marks: node.marks.map(m => ({ type: m.type, ...(m.attrs && { attrs: inOrder(m.attrs) }) })),
        }),
      })
    at += node.text!.length
  }
  return pieces.every(p => !p.marks?.length) ? '' : JSON.stringify(pieces)
}

/** What a word or gap is in a document: mostly one text node. */
export const textNodes = (token: Token): readonly RichNode[] =>
  token.form === '' ? [{ type: 'text', text: token.text }] : (JSON.parse(token.form) as RichNode[])
/** The block a token begins, and what it stands in. */
export const shapeOf = (token: Token): Shape => JSON.parse(token.form) as Shape

interface Building {
  type: string
  attrs?: Readonly<Record<string, unknown>>
  content?: Array<Building | RichNode>
}

/**
 * The document that some tokens make. Of tokens that were read it is the same document again; of tokens from two
 * documents it is always a valid one: a block joins what is there to be joined.
 */
export function docOf(tokens: readonly Token[]): RichNode {
  const root: Building = { type: 'doc' }
  let open: Building[] = [] // containers around the last block
  let block: Building | null = null
  for (const token of tokens) {
    if (token.kind === 'block') {
      const { node, path, join } = shapeOf(token)
      let shared = 0
      while (shared < join && shared < open.length && open[shared]!.type === path[shared]!.type) shared++
      open = open.slice(0, shared)
      for (const container of path.slice(shared))
        open.push(
          into(open.at(-1) ?? root, {
            type: container.type,
            ...(container.attrs && { attrs: container.attrs }),
          }),
        )
      block = into(open.at(-1) ?? root, { type: node.type, ...(node.attrs && { attrs: node.attrs }) })
    } else {
      // words that lost the beginning of their block begin one of their own
      block ??= into(root, { type: 'paragraph' })
      if (token.kind === 'atom') into(block, JSON.parse(token.form) as Building)
      else for (const node of textNodes(token)) intoText(block, node)
    }
  }
  return root as RichNode
}

function into(parent: Building, child: Building): Building {
  ;(parent.content ??= []).push(child)
  return child
}

function intoText(block: Building, node: RichNode) {
  const last = block.content?.at(-1) as { type: string; text?: string; marks?: unknown } | undefined
  if (last?.text !== undefined && JSON.stringify(last.marks ?? []) === JSON.stringify(node.marks ?? []))
    last.text += node.text
  else (block.content ??= []).push({ ...node })
}

/** Attributes with their names in order: a document is the same however it was stored. */
const inOrder = (attrs: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(Object.entries(attrs).sort(([a], [b]) => (a < b ? -1 : 1)))

/** Whether two runs of tokens of one reader say the same and look the same. */
export const sameTokens = (a: readonly Token[], b: readonly Token[]): boolean =>
  a.length === b.length && a.every((t, i) => t.id === b[i]!.id && t.form === b[i]!.form)

/** Number of words among some tokens. */
export function wordsIn(tokens: readonly Token[], start = 0, end = tokens.length): number {
  let count = 0
  for (let i = start; i < end; i++) if (tokens[i]!.kind === 'word') count++
  return count
}

/** Where blocks begin, with the end of the text last. */
export function blockStarts(tokens: readonly Token[]): number[] {
  const starts: number[] = []
  tokens.forEach((t, i) => {
    if (t.kind === 'block') starts.push(i)
  })
  return [...starts, tokens.length]
}
