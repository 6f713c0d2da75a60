import { changedText, type ChangedBlock } from '#core/kinds/wiki/changedText'
import { comparePages } from '#core/kinds/wiki/comparePages'
import { spread, type Runs } from '#core/kinds/wiki/followAuthors'
import { PageReader, shapeOf, textNodes, wordsIn } from '#core/kinds/wiki/pageText'
import { joinText } from '#core/kinds/wiki/changedText'
import type { PlacedBlock } from '#core/kinds/wiki/tablesIn'
import type { RichNode } from '#core/contributing/richText'

/** A block with its words by where they came from. */
export interface AuthoredBlock extends PlacedBlock {
  readonly node: RichNode
  readonly runs: ReadonlyArray<{
    readonly origin: string
    readonly nodes: readonly RichNode[]
    readonly words: number
  }>
}
export interface Compared {
  readonly blocks: readonly ChangedBlock[]
  readonly added: number
  readonly removed: number
  readonly moved: number
}
export type Ask =
  | { readonly id: number; readonly what: 'compare'; readonly a: RichNode; readonly b: RichNode }
  | { readonly id: number; readonly what: 'authors'; readonly doc: RichNode; readonly origins: Runs }
export type Answer = { readonly id: number } & (
  | { readonly compared: Compared }
  | { readonly authored: readonly AuthoredBlock[] }
  | { readonly problem: string }
)

// one reader for all versions of the pages that are looked at: what they share is taken apart once
const reader = new PageReader()

self.onmessage = ({ data }: MessageEvent<Ask>) => {
  let answer: Answer
  try {
    answer =
      data.what === 'compare'
        ? { id: data.id, compared: compare(data.a, data.b) }
        : { id: data.id, authored: authors(data.doc, data.origins) }
  } catch (error) {
    answer = { id: data.id, problem: String(error) }
  }
  self.postMessage(answer)
}

function compare(before: RichNode, after: RichNode): Compared {
  const [a, b] = [reader.read(before), reader.read(after)]
  const comparison = comparePages(a, b)
  return {
    blocks: changedText(a, b, comparison),
    added: comparison.added,
    removed: comparison.removed,
    moved: comparison.moved.length,
  }
}

function authors(doc: RichNode, origins: Runs): AuthoredBlock[] {
  const { tokens } = reader.read(doc)
  const from = spread(origins, tokens.length)
  const blocks: Array<{
    node: RichNode
    path: string[]
    join: number
    runs: Array<{ origin: string; nodes: RichNode[]; words: number }>
  }> = []
  tokens.forEach((token, i) => {
    if (token.kind === 'block') {
      const { node, path, join } = shapeOf(token)
      blocks.push({ node, path: path.map(p => p.type), join, runs: [] })
      return
    }
    const block = blocks.at(-1)
    if (!block) return
    // what stands between two words goes with the one before it, so that colours do not flicker
    const last = block.runs.at(-1)
    const run =
      last && (last.origin === from[i] || token.kind === 'gap')
        ? last
        : { origin: from[i]!, nodes: [] as RichNode[], words: 0 }
    if (run !== last) block.runs.push(run)
    const own = token.kind === 'atom' ? [JSON.parse(token.form) as RichNode] : [...textNodes(token)]
    run.nodes = own.reduce(joinText, run.nodes)
    run.words += wordsIn([token])
  })
  return blocks
}
