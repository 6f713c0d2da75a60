import { seededRandom, shuffled, type Random } from '#core/chance/seededRandom'
import { dealEvenly } from './dealEvenly'
import { Pairing, tableOf, type Apart, type Pair, type Table, type Work } from './pairing'

export interface DealRules extends Apart {
  readonly each: number // reviews every reviewer gives, ≥ 1
  readonly seed: number
}

/** Why so many reviews cannot be dealt: somebody, or several people together, may not review enough. */
export type TooFew =
  | { readonly code: 'reviewer'; readonly reviewerId: string; readonly permitted: number }
  | { readonly code: 'work'; readonly workId: string; readonly permitted: number }
  | { readonly code: 'together'; readonly reviewerIds: readonly string[]; readonly works: number }

export type Dealt =
  | { readonly kind: 'dealt'; readonly pairs: readonly Pair[]; readonly mutual: number } // mutual: pairs of people who review each other
  | { readonly kind: 'impossible'; readonly largest: number; readonly because: TooFew }

const TRIES = 60
const WINDOW = 3000 // pairs among which an exchange is sought: what lies near in memory is quick to look at
const SMALL = 7 // people up to whom the fewest mutual pairs are found by trying everything

/**
 * Deals works out to reviewers: each gives `each` reviews, every work receives the same number, or one more where it
 * does not divide, and works of groups as near to that as their owners, who may not read them, let it be;
 * nobody reviews their own, a groupmate's, or that of somebody they are kept apart from. As few people
 * as possible review each other: none while `each` < half of the others, and never more than must where all stand alone.
 *
 * Everyone sits in a random circle and reviews those who follow; what the rules forbid is exchanged with other pairs, and
 * what cannot be exchanged is found by augmenting paths, so that a deal is found whenever there is one. If there is none,
 * the largest number that can be dealt is returned with the reason.
 *
 * @param reviewers shape [n], n ≥ 1, ids without repetition
 * @param works shape [m], m ≥ 1
 * @throws {RangeError} if `each` is less than one, or nobody or nothing is there
 */
export function dealReviews(reviewers: readonly string[], works: readonly Work[], rules: DealRules): Dealt {
  if (!Number.isInteger(rules.each) || rules.each < 1)
    throw new RangeError('dealReviews deals one review each or more')
  if (reviewers.length === 0 || works.length === 0)
    throw new RangeError('dealReviews needs somebody to review and something to be reviewed')
  const table = tableOf(reviewers, works, rules)
  const random = seededRandom(rules.seed)
  const own = ownWork(table)
  const found = tryDeal(table, own, rules.each, random)
  if (found) return { kind: 'dealt', pairs: found.pairs(), mutual: mutualOf(found, own) }
  let largest = rules.each - 1
  while (largest > 0 && !tryDeal(table, own, largest, random)) largest--
  return { kind: 'impossible', largest, because: reason(table, rules.each) }
}

/** The one work each reviewer made; null where works and people do not match one to one. */
function ownWork({ reviewers, works }: Table): number[] | null {
  if (works.length !== reviewers.length || works.some(w => w.ownerIds.length !== 1)) return null
  const at = new Map(works.map((w, i) => [w.ownerIds[0]!, i]))
  const own = reviewers.map(id => at.get(id) ?? -1)
  return own.includes(-1) ? null : own
}

/** Reviews each work is to receive: equal, the first ones of a random order one more where it does not divide. */
function needs(table: Table, each: number, random: Random): number[] {
  const all = each * table.reviewers.length
  const base = Math.floor(all / table.works.length)
  const need = table.works.map(() => base)
  for (const w of shuffled(
    need.map((_, i) => i),
    random,
  ).slice(0, all - base * table.works.length))
    need[w]!++
  return need
}

function tryDeal(table: Table, own: readonly number[] | null, each: number, random: Random): Pairing | null {
  if (table.reviewers.some((_, r) => table.permitted(r) < each)) return null
  const least = own ? leastMutual(table, each) : 0
  let best: Pairing | null = null
  let fewest = Infinity
  const tries = table.reviewers.length <= 300 ? 12 : 2
  for (let i = 0; i < tries && fewest > least; i++) {
    const pairing = own ? dealWithin(table, each, own, random) : dealOthers(table, each, random)
    if (!pairing) return null // paths of exchanges have shown that there is none
    const mutual = mutualOf(pairing, own)
    if (mutual < fewest) {
      best = pairing
      fewest = mutual
    }
  }
  if (own && best && fewest > least && table.reviewers.length <= SMALL)
    return exactDeal(table, each, own, fewest) ?? best
  return best
}

/** No deal has fewer: so many pairs there are, and each that is used twice is mutual. */
function leastMutual(table: Table, each: number): number {
  const n = table.reviewers.length
  const pairs = table.reviewers.reduce((sum, _, r) => sum + table.permitted(r), 0) / 2
  return Math.max(0, n * each - Math.floor(pairs))
}

/**
 * Everyone in a circle reviews those who follow, and pairs are then mixed: nobody twice, nobody oneself,
 * and mutual pairs only beyond half the ring.
 */
function dealWithin(table: Table, each: number, own: readonly number[], random: Random): Pairing | null {
  const n = table.reviewers.length
  const ring = shuffled(
    Array.from({ length: n }, (_, i) => i),
    random,
  )
  const pairing = new Pairing(
    table,
    table.reviewers.map(() => each),
    table.works.map(() => each),
  )
  const bad: Array<readonly [number, number]> = []
  ring.forEach((r, at) => {
    for (let d = 1; d <= each; d++) {
      const w = own[ring[(at + d) % n]!]!
      if (pairing.isOpen(r, w)) pairing.add(r, w)
      else bad.push([r, w])
    }
  })
  return mend(pairing, table, bad, own, random)
}

/** Works that are not each one reviewer's: the same number to each, or, where the rules do not let them, as near to it as can be. */
const dealOthers = (table: Table, each: number, random: Random): Pairing | null =>
  dealInTurn(table, each, random) ?? dealEvenly(table, each, random)

/** Works in a random round, dealt one after another as cards are. */
function dealInTurn(table: Table, each: number, random: Random): Pairing | null {
  const need = needs(table, each, random)
  const deck = shuffled(
    need.flatMap((n, w) => Array.from({ length: n }, (_, i) => ({ w, i }))),
    random,
  )
    .sort((a, b) => a.i - b.i)
    .map(c => c.w)
  const pairing = new Pairing(
    table,
    table.reviewers.map(() => each),
    need,
  )
  const bad: Array<readonly [number, number]> = []
  shuffled(
    table.reviewers.map((_, i) => i),
    random,
  ).forEach((r, at) => {
    for (const w of deck.slice(at * each, (at + 1) * each)) {
      if (pairing.isOpen(r, w)) pairing.add(r, w)
      else bad.push([r, w])
    }
  })
  return mend(pairing, table, bad, null, random)
}

/** Exchanges what the rules forbid for what they allow, then mutual pairs for others. */
function mend(
  pairing: Pairing,
  table: Table,
  bad: ReadonlyArray<readonly [number, number]>,
  own: readonly number[] | null,
  random: Random,
): Pairing | null {
  const list = bad.length === 0 ? [] : arcsOf(pairing, table)
  const ownerOf = own ? invert(own) : []
  const mutual = (r: number, w: number) => own !== null && pairing.has(ownerOf[w]!, own[r]!)
  for (const [r, w] of bad) {
    for (let i = 0; i < TRIES * 4 && list.length > 0; i++) {
      const at = Math.floor(random() * list.length)
      const [r2, w2] = list[at]!
      if (r2 === r || w2 === w || !pairing.isOpen(r, w2) || !pairing.isOpen(r2, w)) continue
      if (i < TRIES * 2 && (mutual(r, w2) || mutual(r2, w))) continue
      pairing.remove(r2, w2)
      pairing.add(r, w2)
      pairing.add(r2, w)
      list[at] = [r, w2]
      list.push([r2, w])
      break
    }
  }
  if (pairing.fill(shuffled(pairing.lacking(), random)).length > 0) return null
  mix(pairing, table, own, ownerOf, random)
  if (own) lessMutual(pairing, table, own, ownerOf, random)
  return pairing
}

/**
 * Exchanges pairs at random, as many as there are, where the rules allow it and nobody comes to review who reviews them. So
 * everyone is joined to everyone over few others, which is what tells severe readers from weak works.
 */
function mix(
  pairing: Pairing,
  table: Table,
  own: readonly number[] | null,
  ownerOf: readonly number[],
  random: Random,
): void {
  let all = 0
  for (let r = 0; r < table.reviewers.length; r++) all += pairing.load(r)
  const [from, to] = [new Int32Array(all), new Int32Array(all)]
  let n = 0
  for (let r = 0; r < table.reviewers.length; r++)
    for (const w of pairing.given(r)) {
      from[n] = r
      to[n++] = w
    }
  const back = (r: number, w: number) => own !== null && pairing.has(ownerOf[w]!, own[r]!)
  for (let i = 0; i < from.length; i++) {
    // with one not far off in the list, whose order has nothing to do with the circle
    const j = (i + 1 + Math.floor(random() * Math.min(WINDOW, from.length - 1))) % from.length
    const [r, w, r2, w2] = [from[i]!, to[i]!, from[j]!, to[j]!]
    if (
      r === r2 ||
      w === w2 ||
      !pairing.isOpen(r, w2) ||
      !pairing.isOpen(r2, w) ||
      back(r, w2) ||
      back(r2, w)
    )
      continue
    pairing.remove(r, w)
    pairing.remove(r2, w2)
    pairing.add(r, w2)
    pairing.add(r2, w)
    to[i] = w2
    to[j] = w
  }
}

const arcsOf = (pairing: Pairing, table: Table): Array<[number, number]> =>
  table.reviewers.flatMap((_, r) => [...pairing.given(r)].map(w => [r, w] as [number, number]))

function invert(own: readonly number[]): number[] {
  const owner = new Array<number>(own.length)
  own.forEach((w, r) => {
    owner[w] = r
  })
  return owner
}

function lessMutual(
  pairing: Pairing,
  table: Table,
  own: readonly number[],
  ownerOf: readonly number[],
  random: Random,
): void {
  const back = (r: number, w: number) => pairing.has(ownerOf[w]!, own[r]!)
  if (mutualOf(pairing, own) === 0) return
  const arcs = arcsOf(pairing, table)
  for (const arc of arcs) {
    for (let i = 0; i < TRIES && back(arc[0], arc[1]); i++) {
      const other = arcs[Math.floor(random() * arcs.length)]!
      const [r, w] = arc
      const [r2, w2] = other
      if (r === r2 || w === w2 || !pairing.isOpen(r, w2) || !pairing.isOpen(r2, w)) continue
      const before = Number(back(r, w)) + Number(back(r2, w2))
      pairing.remove(r, w)
      pairing.remove(r2, w2)
      pairing.add(r, w2)
      pairing.add(r2, w)
      if (Number(back(r, w2)) + Number(back(r2, w)) < before) {
        arc[1] = w2
        other[1] = w
        continue
      }
      pairing.remove(r, w2)
      pairing.remove(r2, w)
      pairing.add(r, w)
      pairing.add(r2, w2)
    }
  }
}

/** People who review each other, each two of them once; 0 where works are not each one person's. */
function mutualOf(pairing: Pairing, own: readonly number[] | null): number {
  if (!own) return 0
  const ownerOf = invert(own)
  let twice = 0
  for (let r = 0; r < own.length; r++)
    for (const w of pairing.given(r)) if (pairing.has(ownerOf[w]!, own[r]!)) twice++
  return twice / 2
}

/** The deal with the fewest mutual pairs, for a handful of people, by trying everything that could still be better. */
function exactDeal(table: Table, each: number, own: readonly number[], bound: number): Pairing | null {
  const n = table.reviewers.length
  const ownerOf = invert(own)
  const choice: number[][] = []
  const received = new Array<number>(n).fill(0)
  let best: number[][] | null = null
  let fewest = bound
  const subsets = (r: number): number[][] =>
    choose(
      table.works.map((_, w) => w).filter(w => table.permits(r, w)),
      each,
    )
  const walk = (r: number, mutual: number): void => {
    if (mutual >= fewest) return
    if (r === n) {
      best = choice.map(c => [...c])
      fewest = mutual
      return
    }
    for (const set of subsets(r)) {
      if (set.some(w => received[w]! >= each)) continue
      choice[r] = set
      for (const w of set) received[w]!++
      walk(r + 1, mutual + set.filter(w => ownerOf[w]! < r && choice[ownerOf[w]!]!.includes(own[r]!)).length)
      for (const w of set) received[w]!--
    }
    choice.length = r
  }
  walk(0, 0)
  if (!best) return null
  const pairing = new Pairing(
    table,
    table.reviewers.map(() => each),
    table.works.map(() => each),
  )
  ;(best as number[][]).forEach((set, r) => set.forEach(w => pairing.add(r, w)))
  return pairing
}

function choose(items: readonly number[], n: number): number[][] {
  if (n === 0) return [[]]
  return items.flatMap((item, i) => choose(items.slice(i + 1), n - 1).map(rest => [item, ...rest]))
}

/** Who stands in the way of so many reviews each: one person, one work, or the smallest circle of people found. */
function reason(table: Table, each: number): TooFew {
  const few = table.reviewers
    .map((id, r) => ({ reviewerId: id, permitted: table.permitted(r) }))
    .sort((a, b) => a.permitted - b.permitted)[0]!
  if (few.permitted < each) return { code: 'reviewer', ...few }
  const per = Math.floor((each * table.reviewers.length) / table.works.length)
  const scarce = table.works
    .map((work, w) => ({
      workId: work.id,
      permitted: table.reviewers.filter((_, r) => table.permits(r, w)).length,
    }))
    .sort((a, b) => a.permitted - b.permitted)[0]!
  if (scarce.permitted < per) return { code: 'work', ...scarce }
  // people with the same choice, who together need more of it than there is
  const alike = new Map<string, number[]>()
  table.reviewers.forEach((_, r) => {
    const key = table.works.map((_, w) => (table.permits(r, w) ? '1' : '0')).join('')
    alike.set(key, [...(alike.get(key) ?? []), r])
  })
  const crowd = [...alike.values()].sort((a, b) => b.length - a.length)[0]!
  return {
    code: 'together',
    reviewerIds: crowd.map(r => table.reviewers[r]!),
    works: table.permitted(crowd[0]!),
  }
}
