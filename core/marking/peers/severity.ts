export interface PeerScore { readonly reviewerId: string, readonly authorId: string, readonly points: number }
/** A mark the instructor gave, on the same scale. */
export interface AnchorScore { readonly authorId: string, readonly points: number }

export interface SeverityFit {
  readonly quality: ReadonlyMap<string, number> // by author: what the work is worth on the scale, severity taken out; not clamped
  readonly severity: ReadonlyMap<string, number> // by reviewer: how far they run above (+) or below (−) the others; sums to 0
  readonly residualSd: number | null // of a single score, in points; null where there is too little to tell
  readonly penalty: number // variance ratio error : severity; Infinity where severities cannot be told from chance
}

const MOST_ROUNDS = 3000
const STILL = 1e-10 // points below which nothing moves any more
const ANCHOR_WEIGHT = 3 // an instructor's mark says as much as so many reviews

/**
 * Additive model of peer scores: points of reviewer r for author a = qₐ + sᵣ + error, with the severities sᵣ shrunk
 * towards 0 by a ridge whose penalty is the variance ratio σ²(error) : σ²(severity), and Σ s = 0.
 *
 * Variances by Henderson's method of fitting constants, which is the analysis of variance where everyone reviews
 * everything and holds for any pattern of who reviewed whom; then alternating least squares until nothing moves.
 * Instructor marks enter as scores of a reviewer whose severity is 0, and so anchor the estimate.
 * Sources: Henderson (1953), "Estimation of variance and covariance components"; Searle, Casella, McCulloch, *Variance
 * Components*, ch. 5; with balanced data the figures of Shrout and Fleiss (1979), "Intraclass correlations", table 2.
 *
 * @param scores shape [n], at most one for each reviewer and author
 */
export function fitSeverity(scores: readonly PeerScore[], anchors: readonly AnchorScore[] = []): SeverityFit {
  const table = indexed(scores, anchors)
  const { error, severity } = variances(table)
  const penalty = severity > 0 ? (error ?? 0) / severity : Infinity
  const fit = alternate(table, penalty, true)
  return {
    quality: new Map(table.authors.map((id, a) => [id, fit.quality[a]!])),
    severity: new Map(table.reviewers.map((id, r) => [id, fit.severity[r]!])),
    residualSd: error === null ? null : Math.sqrt(error),
    penalty,
  }
}

interface Indexed {
  readonly authors: readonly string[]
  readonly reviewers: readonly string[]
  readonly author: Int32Array
  readonly reviewer: Int32Array
  readonly points: Float64Array
  readonly anchor: Float64Array // by author, NaN where there is none
}

function indexed(scores: readonly PeerScore[], anchors: readonly AnchorScore[]): Indexed {
  const authors = [...new Set([...scores.map(s => s.authorId), ...anchors.map(a => a.authorId)])]
  const reviewers = [...new Set(scores.map(s => s.reviewerId))]
  const [atAuthor, atReviewer] = [new Map(authors.map((id, i) => [id, i])), new Map(reviewers.map((id, i) => [id, i]))]
  const anchor = new Float64Array(authors.length).fill(NaN)
  for (const a of anchors) anchor[atAuthor.get(a.authorId)!] = a.points
  return {
    authors, reviewers, anchor,
    author: Int32Array.from(scores, s => atAuthor.get(s.authorId)!), reviewer: Int32Array.from(scores, s => atReviewer.get(s.reviewerId)!), points: Float64Array.from(scores, s => s.points),
  }
}

/** Least squares in turns: works given the severities, severities given the works, until neither moves. */
function alternate({ authors, reviewers, author, reviewer, points, anchor }: Indexed, penalty: number, anchored: boolean) {
  const quality = new Float64Array(authors.length)
  const severity = new Float64Array(reviewers.length)
  const [sumA, countA, sumR, countR] = [new Float64Array(authors.length), new Float64Array(authors.length), new Float64Array(reviewers.length), new Float64Array(reviewers.length)]
  for (const a of author) countA[a]!++
  for (const r of reviewer) countR[r]!++
  for (let round = 0; round < MOST_ROUNDS; round++) {
    sumA.fill(0)
    for (let i = 0; i < points.length; i++) sumA[author[i]!]! += points[i]! - severity[reviewer[i]!]!
    for (let a = 0; a < quality.length; a++) {
      const has = anchored && !Number.isNaN(anchor[a]!)
      quality[a] = (sumA[a]! + (has ? ANCHOR_WEIGHT * anchor[a]! : 0)) / Math.max(1, countA[a]! + (has ? ANCHOR_WEIGHT : 0))
    }
    if (penalty === Infinity) break
    sumR.fill(0)
    for (let i = 0; i < points.length; i++) sumR[reviewer[i]!]! += points[i]! - quality[author[i]!]!
    let moved = 0
    let mean = 0
    for (let r = 0; r < severity.length; r++) mean += sumR[r]! / (countR[r]! + penalty)
    mean /= Math.max(1, severity.length)
    for (let r = 0; r < severity.length; r++) {
      const next = sumR[r]! / (countR[r]! + penalty) - mean
      moved = Math.max(moved, Math.abs(next - severity[r]!))
      severity[r] = next
    }
    if (moved < STILL) {
      sumA.fill(0)
      for (let i = 0; i < points.length; i++) sumA[author[i]!]! += points[i]! - severity[reviewer[i]!]!
      for (let a = 0; a < quality.length; a++) {
        const has = anchored && !Number.isNaN(anchor[a]!)
        quality[a] = (sumA[a]! + (has ? ANCHOR_WEIGHT * anchor[a]! : 0)) / Math.max(1, countA[a]! + (has ? ANCHOR_WEIGHT : 0))
      }
      break
    }
  }
  return { quality, severity }
}

/** Error and severity variance by fitting constants; error null and severity 0 where too few scores are left over to tell. */
function variances(table: Indexed): { readonly error: number | null, readonly severity: number } {
  const { author, reviewer, points } = table
  const scored = new Set(author).size
  const rank = scored + new Set(reviewer).size - components(table)
  const free = points.length - rank
  if (free < 1 || points.length === scored) return { error: null, severity: 0 }
  const both = residual(table, alternate(table, 0, false))
  const works = residual(table, alternate(table, Infinity, false))
  const error = Math.max(0, both / free)
  const severity = Math.max(0, (works - both - (rank - scored) * error) / (points.length - scored))
  return { error, severity }
}

function residual({ author, reviewer, points }: Indexed, { quality, severity }: { readonly quality: Float64Array, readonly severity: Float64Array }): number {
  let sum = 0
  for (let i = 0; i < points.length; i++) sum += (points[i]! - quality[author[i]!]! - severity[reviewer[i]!]!) ** 2
  return sum
}

/** Parts of the pattern of who reviewed whom that hang together. */
function components({ authors, reviewers, author, reviewer }: Indexed): number {
  const leader = Int32Array.from({ length: authors.length + reviewers.length }, (_, i) => i)
  const find = (i: number): number => {
    while (leader[i] !== i) { leader[i] = leader[leader[i]!]!; i = leader[i]! }
    return i
  }
  for (let i = 0; i < author.length; i++) leader[find(author[i]!)] = find(authors.length + reviewer[i]!)
  const roots = new Set<number>()
  for (let i = 0; i < author.length; i++) roots.add(find(author[i]!))
  return roots.size
}
