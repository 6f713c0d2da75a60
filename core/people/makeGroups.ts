import { seededRandom, shuffled, type Random } from '../chance/seededRandom'
import { numberOfGroups, sizesOf } from './groupSizes'
import { placeClusters, type Cluster } from './placeClusters'
import { smallestContradiction } from './smallestContradiction'

export interface GroupRules {
  readonly by: 'number' | 'size' | 'hand'
  readonly count: number // how many groups, or how many people in each
  readonly upTo?: number | null | undefined // by size: people in the largest, where groups may be of `count` to `upTo`
  readonly together: ReadonlyArray<readonly string[]> // each set in one group
  readonly apart: ReadonlyArray<readonly string[]> // of each set, no two in one group
  readonly mixSections: boolean
  readonly seed: number
}

export interface Groupable {
  readonly id: string
  readonly sectionId: string | null
}

/** One of the rules that cannot all be kept: its kind and its place in the rules. */
export interface BrokenRule {
  readonly kind: 'together' | 'apart'
  readonly index: number
}

export type GroupsResult =
  | { readonly kind: 'made'; readonly groups: ReadonlyArray<readonly string[]> }
  | { readonly kind: 'contradiction'; readonly rules: readonly BrokenRule[] } // the smallest set of rules that contradict each other
  | { readonly kind: 'tooTangled' } // neither a way nor a contradiction was found within the search's bound

/**
 * Puts people into groups of sizes that differ by one at most, keeping those together who belong together and those
 * apart who must not meet, with sections mixed as evenly as that allows. Deterministic for a seed.
 *
 * Rules are refused only when they cannot all be kept; then the smallest contradicting set is named.
 * Own method: what is ruled is placed by exact search, everyone else is dealt section by section, then exchanges of two
 * people are made while they even the sections out. Without rules the dealing alone is optimal: each section is
 * spread over consecutive groups, so no group has more than one of it above any other.
 *
 * @param people shape [n], n ≥ 0, ids distinct; rules may name ids that are not among them, which are passed over
 * @throws {RangeError} if a count is below one
 */
export function makeGroups(people: readonly Groupable[], rules: GroupRules): GroupsResult {
  const by = rules.by === 'size' ? 'size' : 'number'
  const count = numberOfGroups(people.length, by, rules.count, rules.upTo)
  const sizes = sizesOf(people.length, count)
  const random = seededRandom(rules.seed)
  const here = new Set(people.map(p => p.id))
  const known = {
    together: rules.together.map(set => [...new Set(set)].filter(id => here.has(id))),
    apart: rules.apart.map(set => [...new Set(set)].filter(id => here.has(id))),
  }
  const all: BrokenRule[] = [
    ...known.together.map((_, index) => ({ kind: 'together' as const, index })),
    ...known.apart.map((_, index) => ({ kind: 'apart' as const, index })),
  ]
  const solve = (chosen: readonly BrokenRule[], source: Random | null) =>
    placeClusters(clustersOf(known, chosen), sizes, source)
  const solved = solve(all, random)
  if (solved.kind === 'impossible')
    return {
      kind: 'contradiction',
      rules: smallestContradiction(all, subset => solve(subset, null).kind === 'impossible'),
    }
  if (solved.kind === 'undecided') return { kind: 'tooTangled' }
  return { kind: 'made', groups: deal(people, solved.groups, sizes, known, rules.mixSections, random) }
}

/** People bound together by the chosen rules, with whom each cluster must not meet; free people are left out. */
function clustersOf(
  known: Pick<GroupRules, 'together' | 'apart'>,
  chosen: readonly BrokenRule[],
): Cluster[] | null {
  const parent = new Map<string, string>()
  const find = (id: string): string => {
    const up = parent.get(id) ?? id
    if (up === id) return id
    const root = find(up)
    parent.set(id, root)
    return root
  }
  const named = new Set<string>()
  for (const { kind, index } of chosen) for (const id of known[kind][index]!) named.add(id)
  for (const { kind, index } of chosen) {
    if (kind !== 'together') continue
    const [first, ...rest] = known.together[index]!
    for (const id of rest) parent.set(find(id), find(first!))
  }
  const members = new Map<string, string[]>()
  for (const id of named) members.set(find(id), [...(members.get(find(id)) ?? []), id])
  const roots = [...members.keys()]
  const number = new Map(roots.map((root, i) => [root, i]))
  const enemies = roots.map(() => new Set<number>())
  for (const { kind, index } of chosen) {
    if (kind !== 'apart') continue
    const set = known.apart[index]!.map(id => number.get(find(id))!)
    if (new Set(set).size < set.length) return null // two who must be apart are bound together
    for (const a of set) for (const b of set) if (a !== b) enemies[a]!.add(b)
  }
  return roots.map((root, i) => ({ members: members.get(root)!, enemies: enemies[i]! }))
}

function deal(
  people: readonly Groupable[],
  clusters: ReadonlyArray<readonly string[]>,
  sizes: readonly number[],
  known: Pick<GroupRules, 'together' | 'apart'>,
  mix: boolean,
  random: Random,
): string[][] {
  const groups = clusters.map(ids => [...ids])
  const taken = new Set(clusters.flat())
  const section = new Map(people.map(p => [p.id, mix ? (p.sectionId ?? '') : '']))
  const free = shuffled(
    people.filter(p => !taken.has(p.id)),
    random,
  )
  const bySection = new Map<string, string[]>()
  for (const p of free)
    bySection.set(section.get(p.id)!, [...(bySection.get(section.get(p.id)!) ?? []), p.id])
  // the placing may have filled up any group to the largest size: which ones are the larger ones is decided by need
  const room = roomOf(groups, sizes)
  const sections = [...bySection.entries()].sort(
    (a, b) => b[1].length - a[1].length || (a[0] < b[0] ? -1 : 1),
  )
  const counts = groups.map(ids => countBy(ids, section))
  for (const [name, ids] of sections) {
    for (const id of ids) {
      let best = -1
      for (let g = 0; g < groups.length; g++) {
        if (room[g]! === 0) continue
        if (
          best < 0 ||
          (counts[g]!.get(name) ?? 0) < (counts[best]!.get(name) ?? 0) ||
          ((counts[g]!.get(name) ?? 0) === (counts[best]!.get(name) ?? 0) && room[g]! > room[best]!)
        )
          best = g
      }
      groups[best]!.push(id)
      room[best]!--
      counts[best]!.set(name, (counts[best]!.get(name) ?? 0) + 1)
    }
  }
  if (mix && bySection.size > 0) evenOut(groups, counts, section, known)
  return groups.map(ids => shuffled(ids, random))
}

/** Places left in each group when the larger sizes go to the groups that hold most already. */
function roomOf(groups: ReadonlyArray<readonly string[]>, sizes: readonly number[]): number[] {
  const order = groups.map((_, i) => i).sort((a, b) => groups[b]!.length - groups[a]!.length || a - b)
  const room = groups.map(() => 0)
  order.forEach((g, rank) => {
    room[g] = sizes[rank]! - groups[g]!.length
  })
  return room
}

const countBy = (ids: readonly string[], section: ReadonlyMap<string, string>): Map<string, number> => {
  const counts = new Map<string, number>()
  for (const id of ids) counts.set(section.get(id)!, (counts.get(section.get(id)!) ?? 0) + 1)
  return counts
}

/** Exchanges two people of different sections between two groups while that lowers Σ count²; never breaks a rule. */
function evenOut(
  groups: string[][],
  counts: Map<string, number>[],
  section: ReadonlyMap<string, string>,
  known: Pick<GroupRules, 'together' | 'apart'>,
) {
  const bound = new Set(known.together.filter(set => set.length > 1).flat())
  const enemies = new Map<string, Set<string>>()
  for (const set of known.apart)
    for (const a of set) enemies.set(a, new Set([...(enemies.get(a) ?? []), ...set.filter(b => b !== a)]))
  const mayStand = (id: string, group: readonly string[], without: string) =>
    !group.some(other => other !== without && enemies.get(id)?.has(other))
  const count = (g: number, s: string) => counts[g]!.get(s) ?? 0
  for (let improved = true; improved;) {
    improved = false
    for (let a = 0; a < groups.length; a++) {
      for (let b = 0; b < groups.length; b++) {
        if (a === b) continue
        for (const s of counts[a]!.keys()) {
          for (const t of counts[b]!.keys()) {
            if (s === t) continue
            // giving one of s from a to b for one of t changes the sum of squares by this
            const change = count(b, s) - count(a, s) + 1 + (count(a, t) - count(b, t) + 1)
            if (change >= 0) continue
            const x = groups[a]!.find(id => section.get(id) === s && !bound.has(id))
            const pair = x === undefined ? undefined : findPair(groups, a, b, s, t)
            if (!pair) continue
            groups[a]!.splice(groups[a]!.indexOf(pair[0]), 1, pair[1])
            groups[b]!.splice(groups[b]!.indexOf(pair[1]), 1, pair[0])
            counts[a]!.set(s, count(a, s) - 1).set(t, count(a, t) + 1)
            counts[b]!.set(t, count(b, t) - 1).set(s, count(b, s) + 1)
            improved = true
          }
        }
      }
    }
  }

  function findPair(
    all: string[][],
    a: number,
    b: number,
    s: string,
    t: string,
  ): [string, string] | undefined {
    for (const x of all[a]!) {
      if (section.get(x) !== s || bound.has(x)) continue
      for (const y of all[b]!) {
        if (section.get(y) !== t || bound.has(y)) continue
        if (mayStand(x, all[b]!, y) && mayStand(y, all[a]!, x)) return [x, y]
      }
    }
    return undefined
  }
}
