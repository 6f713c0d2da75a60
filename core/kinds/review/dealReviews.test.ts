import { describe, expect, it } from 'vitest'
import { seededRandom, shuffled } from '#core/chance/seededRandom'
import { dealReviews } from './dealReviews'
import type { Pair, Work } from './pairing'
import { repairDeal, type HeldPair } from './repairDeal'

const people = (n: number) => Array.from({ length: n }, (_, i) => `p${i}`)
const essays = (ids: readonly string[]): Work[] => ids.map(id => ({ id: `w-${id}`, ownerIds: [id] }))
const counts = (pairs: readonly Pair[], of: (p: Pair) => string) =>
  pairs.reduce((map, p) => map.set(of(p), (map.get(of(p)) ?? 0) + 1), new Map<string, number>())
const key = (p: Pair) => `${p.reviewerId}>${p.workId}`
const mutualIn = (pairs: readonly Pair[]) => {
  const all = new Set(pairs.map(p => `${p.reviewerId}>${p.workId.slice(2)}`))
  return pairs.filter(p => all.has(`${p.workId.slice(2)}>${p.reviewerId}`)).length / 2
}

describe('dealing out', () => {
  it('gives and brings everyone the same, never one’s own, a groupmate’s or a barred one’s, the same for the same seed', () => {
    const random = seededRandom(6)
    for (let round = 0; round < 120; round++) {
      const ids = people(5 + Math.floor(random() * 30))
      const each = 1 + Math.floor(random() * 3)
      const groupOf =
        round % 2 ? new Map(ids.map((id, i) => [id, `g${i % Math.ceil(ids.length / 3)}`])) : undefined
      const barred = Array.from(
        { length: Math.floor(random() * 4) },
        () => shuffled(ids, random).slice(0, 2) as [string, string],
      )
      const rules = { each, seed: round, barred, ...(groupOf && { groupOf }) }
      const dealt = dealReviews(ids, essays(ids), rules)
      if (dealt.kind !== 'dealt') {
        expect(dealt.largest).toBeLessThan(each)
        continue
      }
      expect(new Set(dealt.pairs.map(key)).size).toBe(dealt.pairs.length)
      expect([...counts(dealt.pairs, p => p.reviewerId).values()]).toEqual(ids.map(() => each))
      expect([...counts(dealt.pairs, p => p.workId).values()]).toEqual(ids.map(() => each))
      for (const { reviewerId, workId } of dealt.pairs) {
        const owner = workId.slice(2)
        expect(reviewerId).not.toBe(owner)
        if (groupOf) expect(groupOf.get(reviewerId)).not.toBe(groupOf.get(owner))
        expect(barred.some(b => b.includes(reviewerId) && b.includes(owner))).toBe(false)
      }
      expect(dealt.mutual).toBe(mutualIn(dealt.pairs))
      expect(dealReviews(ids, essays(ids), rules)).toEqual(dealt)
    }
  })

  it('has nobody review each other while there are enough people, and no more than must where there are few', () => {
    for (let n = 3; n <= 24; n++) {
      for (let each = 1; each < Math.min(n, 6); each++) {
        const dealt = dealReviews(people(n), essays(people(n)), { each, seed: n * 10 + each })
        expect(dealt).toMatchObject({ kind: 'dealt', mutual: Math.max(0, n * each - (n * (n - 1)) / 2) })
      }
    }
  })

  it('finds the fewest mutual pairs that brute force finds, with people kept apart', () => {
    const random = seededRandom(11)
    for (let round = 0; round < 60; round++) {
      const ids = people(3 + Math.floor(random() * 3))
      const each = 1 + Math.floor(random() * 2)
      const barred = Array.from(
        { length: Math.floor(random() * 3) },
        () => shuffled(ids, random).slice(0, 2) as [string, string],
      )
      const fewest = bruteForce(ids, each, barred)
      const dealt = dealReviews(ids, essays(ids), { each, seed: round, barred })
      if (fewest === null) expect(dealt.kind).toBe('impossible')
      else expect(dealt).toMatchObject({ kind: 'dealt', mutual: fewest })
    }
  })

  it('is found whenever there is one, up to twelve people with groups and people kept apart', () => {
    const random = seededRandom(41)
    const seen = { dealt: 0, impossible: 0 }
    for (let round = 0; round < 200; round++) {
      const ids = people(4 + Math.floor(random() * 9))
      const each = 1 + Math.floor(random() * 4)
      const sizes = 2 + Math.floor(random() * 4)
      const groupOf = new Map(ids.map(id => [id, `g${Math.floor(random() * sizes)}`]))
      const barred = Array.from(
        { length: Math.floor(random() * 8) },
        () => shuffled(ids, random).slice(0, 2) as [string, string],
      )
      const permits = (a: string, b: string) =>
        groupOf.get(a) !== groupOf.get(b) && !barred.some(p => p.includes(a) && p.includes(b))
      const { kind } = dealReviews(ids, essays(ids), { each, seed: round, groupOf, barred })
      expect([round, kind]).toEqual([round, canAllRead(ids, each, permits) ? 'dealt' : 'impossible'])
      seen[kind]++
    }
    expect(Math.min(seen.dealt, seen.impossible)).toBeGreaterThan(30)
  })

  it('shares reviewers evenly over the work of groups', () => {
    const ids = people(14)
    const works: Work[] = [0, 1, 2, 3].map(g => ({
      id: `g${g}`,
      ownerIds: ids.filter((_, i) => i % 4 === g),
    }))
    const dealt = dealReviews(ids, works, { each: 2, seed: 3 })
    if (dealt.kind !== 'dealt') throw new Error('not dealt')
    expect([...counts(dealt.pairs, p => p.workId).values()].sort()).toEqual([7, 7, 7, 7])
    expect(dealt.pairs.every(p => !works.find(w => w.id === p.workId)!.ownerIds.includes(p.reviewerId))).toBe(
      true,
    )
  })

  it('deals the work of groups of unequal size for every seed, each as near to the same number as it can be', () => {
    const sizes = [7, 6, 6]
    const works: Work[] = sizes.map((size, g) => ({
      id: `g${g}`,
      ownerIds: Array.from({ length: size }, (_, i) => `p${g}-${i}`),
    }))
    const ids = works.flatMap(w => w.ownerIds)
    for (let seed = 0; seed < 100; seed++) {
      const dealt = dealReviews(ids, works, { each: 2, seed })
      if (dealt.kind !== 'dealt') throw new Error(`not dealt with seed ${seed}`)
      expect([...counts(dealt.pairs, p => p.reviewerId).values()]).toEqual(ids.map(() => 2))
      // everyone reads the two works that are not theirs: there is no other way
      expect(works.map(w => counts(dealt.pairs, p => p.workId).get(w.id))).toEqual([12, 13, 13])
    }
  })

  it('is found for groups whenever brute force finds one, as even as brute force, with people kept apart', () => {
    const random = seededRandom(29)
    for (let round = 0; round < 150; round++) {
      const ids = people(4 + Math.floor(random() * 4))
      const groups = 2 + Math.floor(random() * 2)
      const works: Work[] = Array.from({ length: groups }, (_, g) => ({
        id: `g${g}`,
        ownerIds: ids.filter((_, i) =>
          i < groups ? i === g : Math.floor(((i * 7919 + round) % 97) / 9) % groups === g,
        ),
      }))
      const barred = Array.from(
        { length: Math.floor(random() * 3) },
        () => shuffled(ids, random).slice(0, 2) as [string, string],
      )
      const each = 1 + Math.floor(random() * 2)
      const best = evenestByHand(ids, works, each, barred)
      const dealt = dealReviews(ids, works, { each, seed: round, barred })
      if (best === null) expect(dealt.kind).toBe('impossible')
      else {
        if (dealt.kind !== 'dealt') throw new Error(`not dealt in round ${round}`)
        expect(squares(works.map(w => counts(dealt.pairs, p => p.workId).get(w.id) ?? 0))).toBe(best)
        expect([...counts(dealt.pairs, p => p.reviewerId).values()]).toEqual(ids.map(() => each))
      }
    }
  })

  it('says the largest number that can be dealt, and who stands in the way', () => {
    expect(dealReviews(people(3), essays(people(3)), { each: 3, seed: 1 })).toMatchObject({
      kind: 'impossible',
      largest: 2,
      because: { code: 'reviewer', permitted: 2 },
    })
    // five who are kept apart from each other: only one is left to them
    const groupOf = new Map(people(6).map((id, i) => [id, i < 5 ? 'a' : 'b']))
    const apart = dealReviews(people(6), essays(people(6)), { each: 1, seed: 1, groupOf })
    expect(apart).toMatchObject({ kind: 'impossible', largest: 0, because: { code: 'together', works: 1 } })
  })
})

describe('repairing a deal', () => {
  const setting = (n: number, seed: number, each = 3) => {
    const ids = people(n)
    const dealt = dealReviews(ids, essays(ids), { each, seed })
    if (dealt.kind !== 'dealt') throw new Error('not dealt')
    return { ids, pairs: dealt.pairs }
  }

  it('takes somebody late in with as few moves as there are reviews of theirs, and everyone still has their number', () => {
    const { ids, pairs } = setting(20, 4)
    const all = [...ids, 'late']
    const repair = repairDeal(
      pairs.map(p => ({ ...p, begun: false })),
      all.map(id => ({ id, most: 3 })),
      essays(all).map(w => ({ ...w, need: 3 })),
      { seed: 1 },
    )
    expect(repair.short).toEqual([])
    expect(repair.remove).toHaveLength(3)
    expect(repair.add).toHaveLength(6)
    const after = [...pairs.filter(p => !repair.remove.some(x => key(x) === key(p))), ...repair.add]
    expect(new Set(counts(after, p => p.reviewerId).values())).toEqual(new Set([3]))
    expect(new Set(counts(after, p => p.workId).values())).toEqual(new Set([3]))
  })

  it('leaves a deal of groups of unequal size as it is, and gives a late group its readers', () => {
    const works = [7, 6, 6].map((size, g) => ({
      id: `g${g}`,
      ownerIds: Array.from({ length: size }, (_, i) => `p${g}-${i}`),
    }))
    const ids = works.flatMap(w => w.ownerIds)
    const dealt = dealReviews(ids, works, { each: 2, seed: 5 })
    if (dealt.kind !== 'dealt') throw new Error('not dealt')
    const held = dealt.pairs.map(p => ({ ...p, begun: false }))
    const wanted = works.map(w => ({ ...w, need: 12, most: Infinity }))
    const most = ids.map(id => ({ id, most: 2 }))
    expect(repairDeal(held, most, wanted, { seed: 1 })).toEqual({ add: [], remove: [], short: [] })
    const late = { id: 'late', ownerIds: ['l0', 'l1'] }
    const repair = repairDeal(
      held,
      [...most, { id: 'l0', most: 2 }, { id: 'l1', most: 2 }],
      [...works, late].map(w => ({ ...w, need: 10, most: Infinity })),
      { seed: 1 },
    )
    expect(repair.short).toEqual([])
    expect(repair.add.filter(p => p.workId === 'late')).toHaveLength(10)
    // two of the readers of late work come from nowhere but the works that have more than they need
    expect(repair.remove.length).toBeLessThanOrEqual(10)
  })

  it('never takes a review from somebody who has opened it, whatever becomes of either side, and keeps to the rules', () => {
    const random = seededRandom(17)
    for (let round = 0; round < 150; round++) {
      const { ids, pairs } = setting(8 + Math.floor(random() * 14), round)
      const held: HeldPair[] = pairs.map(p => ({ ...p, begun: random() < 0.4 }))
      const gone = new Set(shuffled(ids, random).slice(0, 1 + Math.floor(random() * 3)))
      const idle = new Set(shuffled(ids, random).slice(0, Math.floor(random() * 3)))
      const barred = [shuffled(ids, random).slice(0, 2) as [string, string]]
      const repair = repairDeal(
        held,
        ids.map(id => ({ id, most: gone.has(id) || idle.has(id) ? 0 : 4 })),
        essays(ids).map(w => ({ ...w, need: gone.has(w.ownerIds[0]!) ? 0 : 3 })),
        { seed: round, barred },
      )
      const begun = new Set(held.filter(h => h.begun).map(key))
      expect(repair.remove.filter(p => begun.has(key(p)))).toEqual([])
      const after = [...held.filter(p => !repair.remove.some(x => key(x) === key(p))), ...repair.add]
      expect(new Set(after.map(key)).size).toBe(after.length)
      for (const p of repair.add) {
        const owner = p.workId.slice(2)
        expect(p.reviewerId).not.toBe(owner)
        expect(gone.has(p.reviewerId) || idle.has(p.reviewerId) || gone.has(owner)).toBe(false)
        expect(barred[0]!.includes(p.reviewerId) && barred[0]!.includes(owner)).toBe(false)
      }
      const received = counts(after, p => p.workId)
      for (const id of ids)
        if (!gone.has(id))
          expect(
            (received.get(`w-${id}`) ?? 0) + (repair.short.find(s => s.workId === `w-${id}`)?.missing ?? 0),
          ).toBeGreaterThanOrEqual(3)
    }
  })

  it('touches as few pairs as brute force finds', () => {
    const random = seededRandom(23)
    for (let round = 0; round < 40; round++) {
      const { ids, pairs } = setting(4, round, 1)
      const all = [...ids, 'late']
      const held: HeldPair[] = pairs.map(p => ({ ...p, begun: random() < 0.4 }))
      const repair = repairDeal(
        held,
        all.map(id => ({ id, most: 1 })),
        essays(all).map(w => ({ ...w, need: 1 })),
        { seed: round },
      )
      const best = fewestMoves(all, held)
      expect([repair.short.length, repair.remove.length]).toEqual(best)
    }
  })
})

/**
 * Whether everyone can read `each` works so that every work has as many readers: no cut between readers and works is
 * smaller than what is to flow (Ford and Fulkerson, *Maximal flow through a network*, 1956), looked at set by set.
 */
function canAllRead(
  ids: readonly string[],
  each: number,
  permits: (reader: string, author: string) => boolean,
): boolean {
  for (let set = 1; set < 2 ** ids.length; set++) {
    const readers = ids.filter((_, i) => set & (1 << i))
    // a work takes from these readers no more than it may have, and no reader twice
    const room = ids.reduce((sum, author) => {
      const may = readers.filter(r => r !== author && permits(r, author)).length
      return sum + Math.min(each, may)
    }, 0)
    if (room < readers.length * each) return false
  }
  return true
}

/** Fewest mutual pairs over all deals there are; null where there is none. */
function bruteForce(
  ids: readonly string[],
  each: number,
  barred: ReadonlyArray<readonly [string, string]>,
): number | null {
  let best: number | null = null
  const options = (r: string) =>
    subsets(
      ids.filter(o => o !== r && !barred.some(b => b.includes(r) && b.includes(o))),
      each,
    )
  const walk = (i: number, chosen: Pair[]): void => {
    if (i === ids.length) {
      if (ids.every(id => chosen.filter(p => p.workId === `w-${id}`).length === each))
        best = Math.min(best ?? Infinity, mutualIn(chosen))
      return
    }
    for (const set of options(ids[i]!))
      walk(i + 1, [...chosen, ...set.map(o => ({ reviewerId: ids[i]!, workId: `w-${o}` }))])
  }
  walk(0, [])
  return best
}

const squares = (received: readonly number[]) => received.reduce((sum, n) => sum + n * n, 0)

/** Over all ways to give each their number, so that every work is read: the smallest sum of squares; null where there is none. */
function evenestByHand(
  ids: readonly string[],
  works: readonly Work[],
  each: number,
  barred: ReadonlyArray<readonly [string, string]>,
): number | null {
  let best: number | null = null
  const isApart = (a: string, b: string) => a === b || barred.some(p => p.includes(a) && p.includes(b))
  const walk = (i: number, received: readonly number[]): void => {
    if (i === ids.length) {
      if (!received.includes(0) || ids.length * each < works.length)
        best = Math.min(best ?? Infinity, squares(received))
      return
    }
    const open = works.filter(w => !w.ownerIds.some(owner => isApart(owner, ids[i]!))).map(w => w.id)
    for (const set of subsets(open, each))
      walk(
        i + 1,
        works.map((w, at) => received[at]! + Number(set.includes(w.id))),
      )
  }
  walk(
    0,
    works.map(() => 0),
  )
  return best
}

function subsets(items: readonly string[], n: number): string[][] {
  if (n === 0) return [[]]
  return items.flatMap((item, i) => subsets(items.slice(i + 1), n - 1).map(rest => [item, ...rest]))
}

/** Over all ways to give each at most one: fewest works left short, then fewest earlier pairs taken away. */
function fewestMoves(ids: readonly string[], held: readonly HeldPair[]): [number, number] {
  let best: [number, number] = [Infinity, Infinity]
  const walk = (i: number, of: Array<string | null>): void => {
    if (i === ids.length) {
      const short = ids.filter(id => !of.includes(id)).length
      const moved = held.filter(h => of[ids.indexOf(h.reviewerId)] !== h.workId.slice(2)).length
      if (short < best[0] || (short === best[0] && moved < best[1])) best = [short, moved]
      return
    }
    const locked = held.find(h => h.begun && h.reviewerId === ids[i])
    for (const o of locked ? [locked.workId.slice(2)] : [null, ...ids])
      if (o !== ids[i] && (o === null || !of.includes(o))) walk(i + 1, [...of, o])
  }
  walk(0, [])
  return best
}
