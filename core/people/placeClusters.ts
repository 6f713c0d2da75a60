import { shuffled, type Random } from '../chance/seededRandom'

/** People who go into one group as one, and the numbers of the clusters they must not meet. */
export interface Cluster {
  readonly members: readonly string[]
  readonly enemies: ReadonlySet<number>
}

export type Placing =
  | { readonly kind: 'placed'; readonly groups: ReadonlyArray<readonly string[]> }
  | { readonly kind: 'impossible' }
  | { readonly kind: 'undecided' } // the bound was reached first

const MOST_STEPS = 200_000

/**
 * Places clusters into groups by exact depth-first search: the cluster with the fewest groups left goes next (larger ones
 * first among equals), and of groups that hold nothing one is as good as another, so only the first is tried.
 *
 * @param clusters null stands for clusters that contradict themselves
 * @param sizes of the groups in descending order, differing by one at most; which group gets which is left open
 * @param random order in which groups are tried; null for the first that fits
 */
export function placeClusters(
  clusters: readonly Cluster[] | null,
  sizes: readonly number[],
  random: Random | null,
): Placing {
  if (clusters === null) return { kind: 'impossible' }
  const largest = sizes[0] ?? 0
  const largeGroups = sizes.filter(size => size === largest).length
  const load = sizes.map(() => 0)
  const inGroup = sizes.map(() => [] as number[])
  const groupOf = clusters.map(() => -1)
  const order = random
    ? shuffled(
        sizes.map((_, i) => i),
        random,
      )
    : sizes.map((_, i) => i)
  let steps = 0

  const groupsFor = (c: number): number[] => {
    const size = clusters[c]!.members.length
    const full = load.filter(l => l === largest).length
    let emptySeen = false
    return order.filter(g => {
      const after = load[g]! + size
      if (after > largest || (after === largest && largest > sizes.at(-1)! && full >= largeGroups))
        return false
      if (inGroup[g]!.some(other => clusters[c]!.enemies.has(other))) return false
      if (load[g] !== 0) return true
      const first = !emptySeen
      emptySeen = true
      return first
    })
  }
  const place = (left: ReadonlySet<number>): 'placed' | 'impossible' | 'undecided' => {
    if (left.size === 0) return 'placed'
    if (++steps > MOST_STEPS) return 'undecided'
    let next = -1
    let choices: number[] = []
    for (const c of left) {
      const groups = groupsFor(c)
      if (groups.length === 0) return 'impossible'
      if (
        next < 0 ||
        groups.length < choices.length ||
        (groups.length === choices.length && weight(c) > weight(next))
      ) {
        next = c
        choices = groups
      }
    }
    const rest = new Set(left)
    rest.delete(next)
    let open = false
    for (const g of choices) {
      load[g]! += clusters[next]!.members.length
      inGroup[g]!.push(next)
      groupOf[next] = g
      const result = place(rest)
      if (result === 'placed') return 'placed'
      load[g]! -= clusters[next]!.members.length
      inGroup[g]!.pop()
      if (result === 'undecided') {
        open = true
        break
      }
    }
    return open ? 'undecided' : 'impossible'
  }
  const weight = (c: number) => clusters[c]!.members.length * 1000 + clusters[c]!.enemies.size

  const result = place(new Set(clusters.keys()))
  if (result !== 'placed') return { kind: result }
  const groups = sizes.map(() => [] as string[])
  clusters.forEach((cluster, c) => groups[groupOf[c]!]!.push(...cluster.members))
  return { kind: 'placed', groups }
}
