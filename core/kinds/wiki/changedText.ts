import type { RichNode } from '#core/contributing/richText'
import type { Comparison } from './comparePages'
import { shapeOf, textNodes, type PageText, type Token } from './pageText'

export type ChangeKind = 'kept' | 'added' | 'removed'
/** A run of text that fared alike; an atom (formula, footnote, line break) stands alone. */
export interface ChangedPart {
  readonly as: ChangeKind
  readonly nodes: readonly RichNode[]
}

/** One block of a compared text, in the order of the later text, with what was taken out where it stood. */
export interface ChangedBlock {
  readonly node: RichNode // paragraph, heading …, without its content
  readonly path: readonly string[] // types of the containers it stands in, from the outside in
  readonly as: 'kept' | 'changed' | 'added' | 'removed' | 'movedAway'
  readonly moved: 'up' | 'down' | null // that it stood elsewhere before: further down, so it moved up, or the other way
  readonly parts: readonly ChangedPart[]
  readonly at: number // its first token in the later text; where it is gone, in the earlier
}

interface Open {
  node: RichNode
  path: string[]
  moved: 'up' | 'down' | null
  parts: Array<{ as: ChangeKind; tokens: Token[] }>
  at: number
  as?: 'removed' | 'movedAway'
}

/** Where two blocks became one, and nothing else shows it. */
const JOINED: Token = { kind: 'gap', id: -1, text: ' ¶ ', form: '' }

/** A comparison to be read: the later text with the earlier one's words in their places. */
export function changedText(a: PageText, b: PageText, comparison: Comparison): ChangedBlock[] {
  const { from, moved } = comparison
  const blocks: Open[] = []
  const movedAt = new Map(moved.map(m => [m.b[0], m]))
  const awayAt = new Map(moved.map(m => [m.a[0], m]))
  let current: Open | null = null

  const put = (as: ChangeKind, token: Token) => {
    const block = current ?? (current = open({ node: { type: 'paragraph' }, path: [] }, 0))
    const last = block.parts.at(-1)
    if (last && last.as === as && token.kind !== 'atom' && last.tokens[0]!.kind !== 'atom')
      last.tokens.push(token)
    else block.parts.push({ as, tokens: [token] })
  }
  walk(0, a.tokens.length, 0, b.tokens.length, true)
  return blocks.map(close)

  function open(
    { node, path }: { node: RichNode; path: readonly string[] },
    at: number,
    as?: 'removed' | 'movedAway',
  ): Open {
    const block: Open = { node, path: [...path], moved: null, parts: [], at, ...(as && { as }) }
    blocks.push(block)
    return block
  }
  function begin(token: Token, at: number, as?: 'removed' | 'movedAway'): Open {
    const { node, path } = shapeOf(token)
    return open({ node, path: path.map(p => p.type) }, at, as)
  }

  /** Walks over both texts along what is kept in order; moved blocks are met where they stand now. */
  function walk(a0: number, a1: number, b0: number, b1: number, whole: boolean) {
    let [i, j] = [a0, b0]
    while (i < a1 || j < b1) {
      // the next token kept in order
      let to = j
      while (to < b1 && (from[to]! < 0 || (whole && movedAt.has(to))))
        to = whole && movedAt.has(to) ? movedAt.get(to)!.b[1] : to + 1
      const upTo = to < b1 ? from[to]! : a1
      change(i, upTo, j, to, whole)
      if (to < b1) {
        if (b.tokens[to]!.kind === 'block') current = begin(b.tokens[to]!, to)
        else put('kept', b.tokens[to]!)
      }
      i = to < b1 ? upTo + 1 : a1
      j = to < b1 ? to + 1 : b1
    }
  }

  /** What was taken out at one place, and what was put in. */
  function change(i: number, i1: number, j: number, j1: number, whole: boolean) {
    // to the end of the block that is being read
    for (; i < i1 && a.tokens[i]!.kind !== 'block'; i++) put('removed', a.tokens[i]!)
    for (; j < j1 && b.tokens[j]!.kind !== 'block'; j++) put('added', b.tokens[j]!)
    // blocks that are gone as a whole
    let tail = i1
    while (i < i1) {
      const away = whole ? awayAt.get(i) : undefined
      let end = i + 1
      while (end < a.tokens.length && a.tokens[end]!.kind !== 'block') end++
      if (away) {
        const block = begin(a.tokens[i]!, i, 'movedAway')
        block.parts.push({ as: 'removed', tokens: a.tokens.slice(i + 1, end) as Token[] })
      } else if (end > i1) {
        tail = i
        break
      } // the rest of it stays
      else {
        const block = begin(a.tokens[i]!, i, 'removed')
        block.parts.push({ as: 'removed', tokens: a.tokens.slice(i + 1, end) as Token[] })
      }
      i = end
    }
    // blocks that are new, the last of them with what stood at the beginning of the one whose rest stays
    while (j < j1) {
      const to = whole ? movedAt.get(j) : undefined
      if (to) {
        const before = blocks.length
        walk(to.a[0], to.a[1], to.b[0], to.b[1], false)
        const block = blocks[before]
        if (block) block.moved = isBefore(to.b[0], to.a[0]) ? 'up' : 'down'
        current = null
        j = to.b[1]
        continue
      }
      current = begin(b.tokens[j]!, j)
      j++
      let end = j
      while (end < j1 && b.tokens[end]!.kind !== 'block') end++
      if (end === j1) for (let k = tail + 1; k < i1; k++) put('removed', a.tokens[k]!)
      for (; j < end; j++) put('added', b.tokens[j]!)
      if (end === j1) tail = i1
    }
    if (tail < i1) put('removed', JOINED)
    for (let k = tail + 1; k < i1; k++) put('removed', a.tokens[k]!)
  }

  /** Whether a place in the later text comes before one in the earlier, told by what is kept around it. */
  function isBefore(bAt: number, aAt: number): boolean {
    for (let j = bAt - 1; j >= 0; j--) {
      const i = from[j]!
      if (i >= 0 && !moved.some(m => j >= m.b[0] && j < m.b[1])) return i < aAt
    }
    return true
  }

  function close(block: Open): ChangedBlock {
    const kinds = new Set(block.parts.map(p => p.as))
    const isNew = from[block.at] === -1
    const changeKind = () => {
      if (kinds.size === 0) return isNew ? 'added' : 'kept'
      if (kinds.size === 1 && kinds.has('kept')) return 'kept'
      if (kinds.size === 1 && kinds.has('added') && (isNew || block.parts.length > 0)) return 'added'
      return 'changed'
    }
    const as = block.as ?? changeKind()
    return {
      node: block.node,
      path: block.path,
      as,
      moved: block.moved,
      at: block.at,
      parts: block.parts.map(p => ({
        as: p.as,
        nodes: p.tokens
          .flatMap(t => (t.kind === 'atom' ? [JSON.parse(t.form) as RichNode] : [...textNodes(t)]))
          .reduce<RichNode[]>(joinText, []),
      })),
    }
  }
}

/** Text nodes that look alike become one. */
export function joinText(nodes: RichNode[], node: RichNode): RichNode[] {
  const last = nodes.at(-1)
  if (
    last?.text !== undefined &&
    node.text !== undefined &&
    JSON.stringify(last.marks ?? []) === JSON.stringify(node.marks ?? [])
  )
    nodes[nodes.length - 1] = { ...last, text: last.text + node.text }
  else nodes.push(node)
  return nodes
}

/**
 * The changed blocks alone, each with the block before it, where it is not changed, for context; what is left out between
 * them is told by its number of blocks.
 */
export function onlyChanges(
  blocks: readonly ChangedBlock[],
): Array<ChangedBlock | { readonly leftOut: number }> {
  const keep = blocks.map(
    (b, i) =>
      b.as !== 'kept' ||
      b.moved !== null ||
      (blocks[i + 1] !== undefined && blocks[i + 1]!.as !== 'kept' && b.node.type === 'heading'),
  )
  const out: Array<ChangedBlock | { leftOut: number }> = []
  blocks.forEach((b, i) => {
    if (keep[i]) {
      out.push(b)
      return
    }
    const last = out.at(-1)
    if (last && 'leftOut' in last) last.leftOut++
    else out.push({ leftOut: 1 })
  })
  return out
}
