export const THREAD_ORDERS = ['talk', 'newest', 'answers', 'unanswered', 'onlyNew'] as const
export type ThreadOrder = (typeof THREAD_ORDERS)[number]

export interface Threaded {
  readonly id: string
  readonly parentId: string | null
  readonly shownAt: string
  readonly onTop?: boolean
}

export interface ThreadNode<T extends Threaded> {
  readonly item: T
  readonly replies: readonly ThreadNode<T>[]
}

/**
 * The tree of a talk. Input in the order of being shown; siblings keep it. An answer whose parent is not there for this
 * reader stands at the top, so that nothing one may read is lost.
 */
export function buildThread<T extends Threaded>(items: readonly T[]): ThreadNode<T>[] {
  const nodes = new Map<string, { item: T; replies: ThreadNode<T>[] }>(
    items.map(item => [item.id, { item, replies: [] }]),
  )
  const roots: ThreadNode<T>[] = []
  for (const node of nodes.values()) {
    const parent = node.item.parentId === null ? undefined : nodes.get(node.item.parentId)
    if (parent) parent.replies.push(node)
    else roots.push(node)
  }
  return roots
}

/** How many contributions hang below a node. */
export const countReplies = <T extends Threaded>(node: ThreadNode<T>): number =>
  node.replies.reduce((sum, reply) => sum + 1 + countReplies(reply), 0)

/**
 * Threads in the order a reader asked for, those kept on top before the others. Newest first goes by the latest word
 * anywhere in a thread; most answers first counts answers at any depth, equals in the talk's order; unanswered first
 * keeps the talk's order within both halves; only new keeps threads with something new in them.
 */
export function orderThreads<T extends Threaded>(
  roots: readonly ThreadNode<T>[],
  order: ThreadOrder,
  isNew: (item: T) => boolean,
): ThreadNode<T>[] {
  const ordered = inOrder(roots, order, isNew)
  return [...ordered.filter(r => r.item.onTop), ...ordered.filter(r => !r.item.onTop)]
}

function inOrder<T extends Threaded>(
  roots: readonly ThreadNode<T>[],
  order: ThreadOrder,
  isNew: (item: T) => boolean,
): ThreadNode<T>[] {
  switch (order) {
    case 'talk':
      return [...roots]
    case 'newest':
      return [...roots].sort((a, b) => latest(b).localeCompare(latest(a)))
    case 'answers': {
      const counts = new Map(roots.map(r => [r, countReplies(r)]))
      return [...roots].sort((a, b) => counts.get(b)! - counts.get(a)!)
    }
    case 'unanswered':
      return [...roots.filter(r => r.replies.length === 0), ...roots.filter(r => r.replies.length > 0)]
    case 'onlyNew':
      return roots.filter(r => some(r, isNew))
  }
}

const latest = <T extends Threaded>(node: ThreadNode<T>): string =>
  node.replies.reduce((last, reply) => {
    const at = latest(reply)
    return at > last ? at : last
  }, node.item.shownAt)

const some = <T extends Threaded>(node: ThreadNode<T>, holds: (item: T) => boolean): boolean =>
  holds(node.item) || node.replies.some(reply => some(reply, holds))
