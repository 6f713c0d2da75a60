import { shuffled, type Random } from '#core/chance/seededRandom'
import { Pairing, type Table } from './pairing'

/**
 * Deals `each` works to every reviewer so that the works come as near to the same number of readers as the rules let them:
 * the sum of the squares of what they receive is as small as can be. That is how works are dealt of which some have more
 * owners than others, who may not read them.
 *
 * Source: minimum-cost flow by successive shortest paths (Ahuja, Magnanti, Orlin, *Network Flows*, ch. 9 and 14): one more
 * reader of a work that has k costs 2k + 1, which is convex, so that each review goes where it costs least of all works a
 * path of exchanges leads to.
 *
 * @returns null where somebody may review fewer than `each` works, or where a work would have no reader although there are
 * as many reviews as works
 */
export function dealEvenly(table: Table, each: number, random: Random): Pairing | null {
  const { reviewers, works } = table
  if (reviewers.some((_, r) => table.permitted(r) < each)) return null
  const pairing = new Pairing(
    table,
    reviewers.map(() => each),
    works.map(() => 0),
  )
  const places = works.map((_, w) => w)
  for (let round = 0; round < each; round++)
    for (const r of shuffled([...reviewers.keys()], random))
      giveOneMore(pairing, table, r, shuffled(places, random))
  const isEnough = reviewers.length * each >= works.length
  return isEnough && pairing.received.includes(0) ? null : pairing
}

/** One more work for a reviewer, which others may hand on among them on its way. @param order in which equal works are looked at */
function giveOneMore(pairing: Pairing, table: Table, reviewer: number, order: readonly number[]): void {
  const cameFrom = new Map<number, { readonly by: number; readonly instead: number | null }>() // work → who takes it, and what they leave
  const queue: Array<{ readonly r: number; readonly leaves: number | null }> = [{ r: reviewer, leaves: null }]
  for (let next = queue.shift(); next; next = queue.shift())
    for (const w of order) {
      if (cameFrom.size === order.length) break
      if (cameFrom.has(w) || !pairing.isOpen(next.r, w)) continue
      cameFrom.set(w, { by: next.r, instead: next.leaves })
      for (const r of table.reviewers.keys()) if (pairing.has(r, w)) queue.push({ r, leaves: w })
    }
  const reached = order.filter(w => cameFrom.has(w))
  let least = reached[0]!
  for (const w of reached) if (pairing.received[w]! < pairing.received[least]!) least = w
  for (let w: number | null = least; w !== null;) {
    const { by, instead }: { by: number; instead: number | null } = cameFrom.get(w)!
    if (instead !== null) pairing.remove(by, instead)
    pairing.add(by, w)
    w = instead
  }
}
