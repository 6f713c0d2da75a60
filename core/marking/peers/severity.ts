import {
  ANCHOR_WEIGHT,
  evidence,
  leftOver,
  qualities,
  scoreTable,
  solveSeverities,
  type AnchorScore,
  type PeerScore,
  type ScoreTable,
  type Severities,
} from './additiveModel'
import { variances, type Variances } from './severityVariance'

export type { AnchorScore, PeerScore } from './additiveModel'

export interface SeverityFit {
  readonly quality: ReadonlyMap<string, number> // by author: what readers alone make of the work, severities taken out; not clamped
  readonly withAnchor: ReadonlyMap<string, number> // by author with an anchor: readers and the instructor's mark together
  readonly severity: ReadonlyMap<string, number> // by reviewer: how far they run above (+) or below (−) the others; sums to 0
  readonly shared: number | null // how far all readers run above (+) or below (−) the instructor; null without an anchor
  readonly residualSd: number | null // of a single score, in points; null where there is too little to tell
  readonly spread: Variances
  // by reviewer: variance ratio error : severity; Infinity where a severity cannot be told from chance
  readonly penalty: ReadonlyMap<string, number>
}

const APART = 0.1 // share of readers expected to stand apart from the others
const WIDE = 5 // their spread, in standard deviations of the others
const ORDINARY = 2.5 // standard deviations within which a reader counts as one of the others
const MOST_ROUNDS = 30
const SETTLED = 1e-5 // change of a shrinkage factor

/**
 * Additive model of peer scores: points of reviewer r for author a = qₐ + m + sᵣ + error. Severities sᵣ are shrunk towards 0 by
 * a ridge whose penalty is the variance ratio σ²(error) : σ²(severity); a reader too far from the others to be one
 * of them is shrunk as one of a far wider spread, so that one reader two points too harsh among two hundred is corrected by
 * most of it. Instructor marks act on severities only: with one, the mean severity m is free, so that leniency all
 * readers share is taken out; without one, m is 0.
 *
 * Sources: two-way additive models with random rater effects (Searle, Casella, McCulloch, *Variance Components*,
 * ch. 5); a normal distribution contaminated by a wider one: Tukey (1960), "A survey of sampling from contaminated distributions".
 *
 * @param scores shape [n], at most one for each reviewer and author
 */
export function fitSeverity(scores: readonly PeerScore[], anchors: readonly AnchorScore[] = []): SeverityFit {
  const table = scoreTable(scores, anchors)
  const spread = variances(scoreTable(scores))
  const { penalty, fit } = shrunk(table, spread)
  const quality = qualities(table, fit)
  const byAuthor = table.authors.map((id, a) => [id, quality[a]!] as const)
  return {
    quality: new Map(byAuthor),
    withAnchor: new Map(
      byAuthor.flatMap(([id, q], a) => {
        const anchor = table.anchor[a]!
        const readers = table.readers[a]!
        return Number.isNaN(anchor)
          ? []
          : [[id, (readers * q + ANCHOR_WEIGHT * anchor) / (readers + ANCHOR_WEIGHT)] as const]
      }),
    ),
    severity: new Map(table.reviewers.map((id, r) => [id, fit.own[r]!])),
    shared: table.anchored > 0 ? fit.shared : null,
    residualSd: spread.error === null ? null : Math.sqrt(spread.error),
    spread,
    penalty: new Map(table.reviewers.map((id, r) => [id, penalty[r]!])),
  }
}

/** Penalties and the severities they lead to, in turns: how far a reader stands from the others depends on who of the others does. */
function shrunk(table: ScoreTable, { error, severity }: Variances) {
  const said = evidence(table)
  let fit: Severities | undefined
  let kept = said.map(e => (error === null ? 0 : keptOf(0, severity, error / e)))
  for (let round = 0; ; round++) {
    const penalty = said.map((e, r) => (kept[r]! > 0 ? e * (1 / kept[r]! - 1) : Infinity))
    fit = solveSeverities(table, penalty, fit)
    if (error === null || round === MOST_ROUNDS) return { penalty, fit }
    const left = leftOver(table, fit)
    const { own } = fit
    const next = said.map((e, r) => keptOf(own[r]! + left[r]! / e, severity, error / e))
    if (next.every((k, r) => Math.abs(k - kept[r]!) < SETTLED)) return { penalty, fit }
    kept = next
  }
}

/**
 * How much of a reader's distance from the others is severity and not chance, 0..1.
 *
 * @param distance what the reader's scores say of their severity by themselves
 * @param severity variance of the others' severities
 * @param noise variance of the distance by chance
 */
function keptOf(distance: number, severity: number, noise: number): number {
  const total = severity + noise
  if (!(total > 0) || !Number.isFinite(total)) return 0
  const one = severity / total
  const far = 1 - noise / (WIDE * WIDE * total)
  const chance = standsApart(Math.abs(distance) / Math.sqrt(total))
  return one + chance * (far - one)
}

/** Probability that a reader so many standard deviations off is one of the wider spread; 0 for ordinary readers, without a step. */
function standsApart(z: number): number {
  const least = wider(ORDINARY)
  return Math.max(0, (wider(z) - least) / (1 - least))
}
function wider(z: number): number {
  const odds = (APART / (1 - APART) / WIDE) * Math.exp((z * z * (1 - 1 / WIDE ** 2)) / 2)
  return odds === Infinity ? 1 : odds / (1 + odds)
}
