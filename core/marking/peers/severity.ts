export interface PeerScore {
  readonly reviewerId: string
  readonly authorId: string
  readonly points: number
}
/** A mark the instructor gave, on the same scale. */
export interface AnchorScore {
  readonly authorId: string
  readonly points: number
}

export interface SeverityFit {
  readonly quality: ReadonlyMap<string, number> // by author: what the work is worth on the scale, severity taken out; not clamped
  readonly severity: ReadonlyMap<string, number> // by reviewer: how far they run above (+) or below (−) the others; sums to 0
  readonly residualSd: number | null // of a single score, in points; null where there is too little to tell
  readonly penalty: number // variance ratio error : severity; Infinity where severities cannot be told from chance
}

const MOST_ROUNDS = 400 // what is left after so many lies along severities that the pattern hardly tells apart, and makes no difference to what is left over
const STILL = 1e-16 // share of the first residual, squared, below which nothing is left to solve
const ANCHOR_WEIGHT = 3 // an instructor's mark says as much as so many reviews

/**
 * Additive model of peer scores: points of reviewer r for author a = qₐ + sᵣ + error, with the severities sᵣ shrunk
 * towards 0 by a ridge whose penalty is the variance ratio σ²(error) : σ²(severity), and Σ s = 0.
 *
 * Variances by Henderson's method of fitting constants, which is the analysis of variance where everyone reviews
 * everything and holds for any pattern of who reviewed whom; then penalised least squares.
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
  const fit = leastSquares(table, penalty, true)
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
  const [atAuthor, atReviewer] = [
    new Map(authors.map((id, i) => [id, i])),
    new Map(reviewers.map((id, i) => [id, i])),
  ]
  const anchor = new Float64Array(authors.length).fill(NaN)
  for (const a of anchors) anchor[atAuthor.get(a.authorId)!] = a.points
  return {
    authors,
    reviewers,
    anchor,
    author: Int32Array.from(scores, s => atAuthor.get(s.authorId)!),
    reviewer: Int32Array.from(scores, s => atReviewer.get(s.reviewerId)!),
    points: Float64Array.from(scores, s => s.points),
  }
}

/**
 * Where the penalised squares are least, with Σ s = 0. Given the severities, a work's quality is the mean of what is left of
 * its scores; put into the rest, that leaves linear equations for the severities, solved by conjugate gradients. It is
 * the point that least squares in turns (works, then reviewers) creep up to, reached in far fewer rounds.
 * Source: Hestenes and Stiefel (1952), "Methods of conjugate gradients for solving linear systems".
 */
function leastSquares(table: Indexed, penalty: number, anchored: boolean) {
  const { authors, reviewers, author, reviewer, points, anchor } = table
  const count = new Float64Array(authors.length)
  for (const a of author) count[a]!++
  if (anchored)
    for (let a = 0; a < count.length; a++) if (!Number.isNaN(anchor[a]!)) count[a]! += ANCHOR_WEIGHT
  /** Means by work of some value of each score; anchors come with the points only. */
  const meansOf = (value: (i: number) => number, withAnchors: boolean): Float64Array => {
    const sum = new Float64Array(authors.length)
    for (let i = 0; i < points.length; i++) sum[author[i]!]! += value(i)
    for (let a = 0; a < sum.length; a++)
      sum[a] =
        (sum[a]! + (withAnchors && anchored && !Number.isNaN(anchor[a]!) ? ANCHOR_WEIGHT * anchor[a]! : 0)) /
        Math.max(1, count[a]!)
    return sum
  }
  const severity = new Float64Array(reviewers.length)
  if (penalty !== Infinity && reviewers.length > 0) {
    const times = (v: Float64Array): Float64Array => {
      const means = meansOf(i => v[reviewer[i]!]!, false)
      const out = Float64Array.from(v, x => penalty * x)
      for (let i = 0; i < points.length; i++) out[reviewer[i]!]! += v[reviewer[i]!]! - means[author[i]!]!
      return centred(out)
    }
    const means = meansOf(i => points[i]!, true)
    const rest = new Float64Array(reviewers.length)
    for (let i = 0; i < points.length; i++) rest[reviewer[i]!]! += points[i]! - means[author[i]!]!
    centred(rest)
    let direction = Float64Array.from(rest)
    let size = dot(rest, rest)
    const enough = Math.max(size * STILL, Number.MIN_VALUE)
    for (let round = 0; round < MOST_ROUNDS && size > enough; round++) {
      const moved = times(direction)
      const curve = dot(direction, moved)
      if (curve <= 0) break
      const step = size / curve
      for (let r = 0; r < severity.length; r++) {
        severity[r]! += step * direction[r]!
        rest[r]! -= step * moved[r]!
      }
      const next = dot(rest, rest)
      const keep = next / size
      direction = direction.map((d, r) => rest[r]! + keep * d)
      size = next
    }
  }
  return { quality: meansOf(i => points[i]! - severity[reviewer[i]!]!, true), severity }
}

function centred(v: Float64Array): Float64Array {
  let mean = 0
  for (const x of v) mean += x
  mean /= Math.max(1, v.length)
  for (let i = 0; i < v.length; i++) v[i]! -= mean
  return v
}
function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/** Error and severity variance by fitting constants; error null and severity 0 where too few scores are left over to tell. */
function variances(table: Indexed): { readonly error: number | null; readonly severity: number } {
  const { author, reviewer, points } = table
  const scored = new Set(author).size
  const rank = scored + new Set(reviewer).size - components(table)
  const free = points.length - rank
  if (free < 1 || points.length === scored) return { error: null, severity: 0 }
  const both = residual(table, leastSquares(table, 0, false))
  const works = residual(table, leastSquares(table, Infinity, false))
  const error = Math.max(0, both / free)
  const severity = Math.max(0, (works - both - (rank - scored) * error) / (points.length - scored))
  return { error, severity }
}

function residual(
  { author, reviewer, points }: Indexed,
  { quality, severity }: { readonly quality: Float64Array; readonly severity: Float64Array },
): number {
  let sum = 0
  for (let i = 0; i < points.length; i++)
    sum += (points[i]! - quality[author[i]!]! - severity[reviewer[i]!]!) ** 2
  return sum
}

/** Parts of the pattern of who reviewed whom that hang together. */
function components({ authors, reviewers, author, reviewer }: Indexed): number {
  const leader = Int32Array.from({ length: authors.length + reviewers.length }, (_, i) => i)
  const find = (i: number): number => {
    while (leader[i] !== i) {
      leader[i] = leader[leader[i]!]!
      i = leader[i]!
    }
    return i
  }
  for (let i = 0; i < author.length; i++) leader[find(author[i]!)] = find(authors.length + reviewer[i]!)
  const roots = new Set<number>()
  for (let i = 0; i < author.length; i++) roots.add(find(author[i]!))
  return roots.size
}
