import Graph from 'graphology'
import louvain from 'graphology-communities-louvain'
import betweennessCentrality from 'graphology-metrics/centrality/betweenness.js'
import { seededRandom } from '../chance/seededRandom'
import type { TalkEntry } from './talkEntry'

export interface Answered {
  readonly from: string
  readonly to: string
  readonly times: number
}
export interface Network {
  readonly edges: readonly Answered[] // who answered whom how often, most often first
  readonly betweenness: ReadonlyMap<string, number> // 0 … 1: share of shortest ways between others that lead over this person
  readonly communities: ReadonlyMap<string, number> // who talks among themselves, numbered by the first person in each
}

/** Who answered whom: a weighted directed graph of the people given. Answers to oneself are none. */
export function answersAmong(talkEntries: readonly TalkEntry[], people: ReadonlySet<string>): Answered[] {
  const times = new Map<string, Map<string, number>>()
  for (const { authorId, answersId } of talkEntries) {
    if (answersId === null || answersId === authorId || !people.has(authorId) || !people.has(answersId))
      continue
    const to = times.get(authorId) ?? new Map<string, number>()
    times.set(authorId, to.set(answersId, (to.get(answersId) ?? 0) + 1))
  }
  return [...times]
    .flatMap(([from, to]) => [...to].map(([id, n]) => ({ from, to: id, times: n })))
    .sort((a, b) => b.times - a.times || a.from.localeCompare(b.from) || a.to.localeCompare(b.to))
}

/**
 * The network of answers with who stands between others (Brandes 2001, unweighted, normalised) and who talks among
 * themselves (Louvain: Blondel et al. 2008, by the number of answers either way), both as graphology has them.
 *
 * @param seed of the order in which communities are tried; the same seed, the same communities
 */
export function readNetwork(talkEntries: readonly TalkEntry[], people: readonly string[], seed = 1): Network {
  const edges = answersAmong(talkEntries, new Set(people))
  const [directed, either] = [new Graph({ type: 'directed' }), new Graph({ type: 'undirected' })]
  // in one order, whichever they come in: sums of fractions differ in their last place with it
  for (const id of [...people].sort()) {
    directed.addNode(id)
    either.addNode(id)
  }
  for (const { from, to, times } of edges) {
    directed.addEdge(from, to, { weight: times })
    either.updateEdge(from, to, before => ({ weight: ((before.weight as number | undefined) ?? 0) + times }))
  }
  if (edges.length === 0)
    return {
      edges,
      betweenness: new Map(people.map(id => [id, 0])),
      communities: new Map(people.map((id, i) => [id, i])),
    }
  const found = louvain(either, { getEdgeWeight: 'weight', rng: seededRandom(seed) })
  const numbers = new Map<number, number>()
  return {
    edges,
    betweenness: new Map(Object.entries(betweennessCentrality(directed, { getEdgeWeight: null }))),
    communities: new Map(
      people.map(id => {
        const c = found[id]!
        if (!numbers.has(c)) numbers.set(c, numbers.size)
        return [id, numbers.get(c)!]
      }),
    ),
  }
}
