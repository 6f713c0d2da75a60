import { seededRandom, shuffled } from '#core/chance/seededRandom'
import { Pairing, tableOf, type Apart, type Pair, type Work } from './pairing'

export interface HeldPair extends Pair {
  readonly begun: boolean
} // opened by its reviewer, or further
export interface Capacity {
  readonly id: string
  readonly most: number
} // reviews somebody may have in all; 0: gives none any more
export interface Wanted extends Work {
  readonly need: number // reviews it is to have; 0: needs none any more
  readonly most?: number // reviews it may keep; without it no more than it needs
}

export interface Repair {
  readonly add: readonly Pair[]
  readonly remove: readonly Pair[]
  readonly short: ReadonlyArray<{ readonly workId: string; readonly missing: number }> // works that cannot get what they need
}

/**
 * Puts a deal right after people came late, went away or did not review: every work gets what it needs as far as people
 * have room, and as few pairs as possible are touched. A pair already begun always stays, whatever became of either side.
 *
 * Pairs of somebody who gives none any more, to a work that needs none, or that the rules forbid are taken away unless
 * begun; what is then missing is filled along cheapest paths (see `Pairing.fill`).
 *
 * @param held shape [h], without repetition; reviewers and works not named elsewhere are left alone if begun, else taken away
 */
export function repairDeal(
  held: readonly HeldPair[],
  reviewers: readonly Capacity[],
  works: readonly Wanted[],
  apart: Apart & { readonly seed: number },
): Repair {
  const table = tableOf(
    reviewers.map(r => r.id),
    works,
    apart,
  )
  const indexOf = new Map(reviewers.map((r, i) => [r.id, i]))
  const workOf = new Map(works.map((w, i) => [w.id, i]))
  const pairing = new Pairing(
    table,
    reviewers.map(r => r.most),
    works.map(w => w.need),
  )
  const remove: Pair[] = []
  const kept = new Set<string>()
  // what is begun first: it holds its place
  for (const pair of [...held].sort((a, b) => Number(b.begun) - Number(a.begun))) {
    const [r, w] = [indexOf.get(pair.reviewerId), workOf.get(pair.workId)]
    if (r === undefined || w === undefined) {
      if (!pair.begun) remove.push(pairOf(pair))
      continue
    }
    const stays =
      pair.begun ||
      (table.permits(r, w) &&
        pairing.load(r) < reviewers[r]!.most &&
        pairing.received[w]! < (works[w]!.most ?? works[w]!.need))
    if (!stays) {
      remove.push(pairOf(pair))
      continue
    }
    pairing.keep(r, w, pair.begun)
    kept.add(keyOf(pair))
  }
  const order = shuffled(
    works.map((_, i) => i),
    seededRandom(apart.seed),
  )
  const short = pairing.fill(order).map(({ work, missing }) => ({ workId: works[work]!.id, missing }))
  const after = new Set(pairing.pairs().map(keyOf))
  return {
    add: pairing.pairs().filter(p => !kept.has(keyOf(p)) && !remove.some(x => keyOf(x) === keyOf(p))),
    remove: [
      ...remove.filter(p => !after.has(keyOf(p))),
      ...held.filter(p => kept.has(keyOf(p)) && !after.has(keyOf(p))).map(pairOf),
    ],
    short,
  }
}

const keyOf = ({ reviewerId, workId }: Pair) => `${reviewerId}\n${workId}`
const pairOf = ({ reviewerId, workId }: Pair): Pair => ({ reviewerId, workId })
