import { countReplies, type Threaded, type ThreadNode } from './buildThread'

/** One line of a talk laid out flat: what a list can show a window of. */
export type ThreadRow<T> =
  | {
      readonly kind: 'post'
      readonly key: string
      readonly item: T
      readonly depth: number
      readonly lines: readonly boolean[]
      readonly goesOn: boolean
      readonly stem: boolean
      readonly answers: number
    }
  | {
      readonly kind: 'fold'
      readonly key: string
      readonly parentId: string
      readonly depth: number
      readonly lines: readonly boolean[]
      readonly answers: number
      readonly fresh: number
    }
  | {
      readonly kind: 'write'
      readonly key: string
      readonly parentId: string
      readonly depth: number
      readonly lines: readonly boolean[]
    }

export interface RowOptions<T> {
  readonly folded: ReadonlySet<string> // threads folded by hand
  readonly unfolded: ReadonlySet<string> // long threads unfolded by hand
  readonly longThread: number // answers in all from which a thread stands folded until it is unfolded
  readonly replyTo: string | null // below which a reply is being written
  readonly isNew: (item: T) => boolean
}

/**
 * A talk as rows, top to bottom. `lines[l]` says whether the line of level l runs on below the row: the answers of an
 * ancestor at that level are not all told yet. `goesOn`: another answer to the same post follows; `stem`: answers, or a
 * reply being written, hang below.
 */
export function threadRows<T extends Threaded>(
  roots: readonly ThreadNode<T>[],
  options: RowOptions<T>,
): ThreadRow<T>[] {
  const rows: ThreadRow<T>[] = []
  for (const root of roots) add(root, 0, [], false)
  return rows

  function add(node: ThreadNode<T>, depth: number, lines: readonly boolean[], goesOn: boolean): void {
    const { id } = node.item
    const answers = countReplies(node)
    const folded = answers > 0 && isFolded(node, depth, answers)
    const writing = options.replyTo === id
    rows.push({
      kind: 'post',
      key: id,
      item: node.item,
      depth,
      lines,
      goesOn,
      stem: answers > 0 || writing,
      answers,
    })
    const below = depth === 0 ? [] : [...lines, goesOn]
    if (folded)
      rows.push({
        kind: 'fold',
        key: `${id}:fold`,
        parentId: id,
        depth: depth + 1,
        lines: below,
        answers,
        fresh: countNew(node, options.isNew),
      })
    else
      node.replies.forEach((reply, i) => add(reply, depth + 1, below, i < node.replies.length - 1 || writing))
    if (writing)
      rows.push({ kind: 'write', key: `${id}:write`, parentId: id, depth: depth + 1, lines: below })
  }

  function isFolded(node: ThreadNode<T>, depth: number, answers: number): boolean {
    if (options.folded.has(node.item.id)) return true
    return depth === 0 && answers >= options.longThread && !options.unfolded.has(node.item.id)
  }
}

const countNew = <T extends Threaded>(node: ThreadNode<T>, isNew: (item: T) => boolean): number =>
  node.replies.reduce((n, reply) => n + (isNew(reply.item) ? 1 : 0) + countNew(reply, isNew), 0)
