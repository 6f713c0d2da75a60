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

/** Scores by position instead of by id. */
export interface ScoreTable {
  readonly authors: readonly string[]
  readonly reviewers: readonly string[]
  readonly author: Int32Array // by score
  readonly reviewer: Int32Array // by score
  readonly points: Float64Array // by score
  readonly readers: Float64Array // by author: how many scored the work
  readonly anchor: Float64Array // by author, NaN where the instructor gave none
  readonly anchored: number // works both readers and the instructor scored
}

export interface Severities {
  readonly own: Float64Array // by reviewer, against the mean of all; sums to 0
  readonly shared: number // what all readers run above (+) or below (−) the instructor; 0 without anchors
}

/** An instructor's mark says as much as so many reviews. */
export const ANCHOR_WEIGHT = 3
const MOST_ROUNDS = 400 // what is left after so many lies along severities that the pattern hardly tells apart
const STILL = 1e-16 // share of the first residual, squared, below which nothing is left to solve

/** @param scores shape [n], at most one for each reviewer and author; anchors of works nobody scored say nothing */
export function scoreTable(scores: readonly PeerScore[], anchors: readonly AnchorScore[] = []): ScoreTable {
  const authors = [...new Set(scores.map(s => s.authorId))]
  const reviewers = [...new Set(scores.map(s => s.reviewerId))]
  const atAuthor = new Map(authors.map((id, i) => [id, i]))
  const atReviewer = new Map(reviewers.map((id, i) => [id, i]))
  const author = Int32Array.from(scores, s => atAuthor.get(s.authorId)!)
  const readers = new Float64Array(authors.length)
  for (const a of author) readers[a]!++
  const anchor = new Float64Array(authors.length).fill(NaN)
  for (const { authorId, points } of anchors) {
    const at = atAuthor.get(authorId)
    if (at !== undefined) anchor[at] = points
  }
  return {
    ...{ authors, reviewers, author, readers, anchor },
    reviewer: Int32Array.from(scores, s => atReviewer.get(s.reviewerId)!),
    points: Float64Array.from(scores, s => s.points),
    anchored: anchor.filter(a => !Number.isNaN(a)).length,
  }
}

const weightOf = ({ anchor }: ScoreTable, a: number) => (Number.isNaN(anchor[a]!) ? 0 : ANCHOR_WEIGHT)

/** How much a reviewer's scores say of their severity, by reviewer: Σ over scores of 1 − 1 / weight of the work's scores. */
export function evidence(table: ScoreTable): Float64Array {
  const found = new Float64Array(table.reviewers.length)
  for (let i = 0; i < table.points.length; i++) {
    const a = table.author[i]!
    found[table.reviewer[i]!]! += 1 - 1 / (table.readers[a]! + weightOf(table, a))
  }
  return found
}

/**
 * Severities where Σ (points − qₐ − m − sᵣ)² + w Σ (anchorₐ − qₐ)² + Σ penaltyᵣ sᵣ² is least. Given the severities, a
 * work's quality qₐ is a weighted mean of what is left; put into the rest, that leaves linear equations for m and s,
 * solved by conjugate gradients. The mean severity m is free where the instructor scored a work that readers scored, and
 * 0 elsewhere, for without an anchor nothing tells it from the quality of all works.
 * Source: Hestenes and Stiefel (1952), "Methods of conjugate gradients for solving linear systems", preconditioned by the diagonal.
 *
 * @param penalty shape [reviewers]; Infinity holds a severity at 0
 * @param near where to begin: what nearly the same penalties gave
 */
export function solveSeverities(table: ScoreTable, penalty: Float64Array, near?: Severities): Severities {
  const { reviewers, author, reviewer, points, readers } = table
  const shared = reviewers.length // place of m among the unknowns
  const size = reviewers.length + (table.anchored > 0 ? 1 : 0)
  const isHeld = (r: number) => r < shared && penalty[r] === Infinity
  const weights = readers.map((n, a) => n + weightOf(table, a))
  /**
   * Adds to each unknown what its scores lie above the weighted mean of their work. @param sum of each
   * work's scores, anchors among them where they belong
   */
  const spread = (scores: Float64Array, sum: Float64Array, out: Float64Array): Float64Array => {
    for (let a = 0; a < sum.length; a++) sum[a]! /= weights[a]!
    for (let i = 0; i < scores.length; i++) {
      const left = scores[i]! - sum[author[i]!]!
      out[reviewer[i]!]! += left
      if (size > shared) out[shared]! += left
    }
    for (let r = 0; r < shared; r++) if (isHeld(r)) out[r] = 0
    return out
  }
  const scored = new Float64Array(points.length)
  const sums = new Float64Array(readers.length)
  const times = (v: Float64Array): Float64Array => {
    const out = new Float64Array(size)
    for (let r = 0; r < shared; r++) if (!isHeld(r)) out[r] = penalty[r]! * v[r]!
    const all = size > shared ? v[shared]! : 0
    sums.fill(0)
    for (let i = 0; i < scored.length; i++) {
      scored[i] = v[reviewer[i]!]! + all
      sums[author[i]!]! += scored[i]!
    }
    return spread(scored, sums, out)
  }
  const diagonal = new Float64Array(size)
  for (const [r, e] of evidence(table).entries()) diagonal[r] = e + (isHeld(r) ? 0 : penalty[r]!)
  if (size > shared)
    diagonal[shared] = readers.reduce((s, n, a) => s + (n * weightOf(table, a)) / (n + weightOf(table, a)), 0)
  const condition = (v: Float64Array) => v.map((x, r) => (diagonal[r]! > 0 ? x / diagonal[r]! : 0))

  const found = new Float64Array(size)
  const totals = new Float64Array(readers.length)
  for (let i = 0; i < points.length; i++) totals[author[i]!]! += points[i]!
  for (let a = 0; a < totals.length; a++)
    if (weightOf(table, a) > 0) totals[a]! += weightOf(table, a) * table.anchor[a]!
  const rest = spread(points, totals, new Float64Array(size))
  const enough = Math.max(dot(rest, condition(rest)) * STILL, Number.MIN_VALUE)
  if (near) {
    for (let r = 0; r < shared; r++) found[r] = isHeld(r) ? 0 : near.own[r]!
    if (size > shared) found[shared] = near.shared
    const there = times(found)
    for (let r = 0; r < size; r++) rest[r]! -= there[r]!
  }
  let eased = condition(rest)
  const direction = Float64Array.from(eased)
  let left = dot(rest, eased)
  for (let round = 0; round < MOST_ROUNDS && left > enough; round++) {
    const moved = times(direction)
    const curve = dot(direction, moved)
    if (curve <= 0) break
    const step = left / curve
    for (let r = 0; r < size; r++) {
      found[r]! += step * direction[r]!
      rest[r]! -= step * moved[r]!
    }
    eased = condition(rest)
    const next = dot(rest, eased)
    const keep = next / left
    for (let r = 0; r < size; r++) direction[r] = eased[r]! + keep * direction[r]!
    left = next
  }
  const own = found.slice(0, shared)
  const mean = shared === 0 ? 0 : own.reduce((a, b) => a + b, 0) / shared
  return { own: own.map(s => s - mean), shared: size > shared ? found[shared]! + mean : 0 }
}

/** What each work is worth by its readers alone, by author: the mean of their scores, severities taken out; not clamped. */
export function qualities(table: ScoreTable, { own, shared }: Severities): Float64Array {
  const sum = new Float64Array(table.readers.length)
  for (let i = 0; i < table.points.length; i++)
    sum[table.author[i]!]! += table.points[i]! - own[table.reviewer[i]!]! - shared
  return sum.map((s, a) => s / table.readers[a]!)
}

/** What is left of each reviewer's scores once quality, anchors among its evidence, and severity are taken out, summed. */
export function leftOver(table: ScoreTable, { own, shared }: Severities): Float64Array {
  const byReaders = qualities(table, { own, shared })
  const out = new Float64Array(table.reviewers.length)
  for (let i = 0; i < table.points.length; i++) {
    const [a, r] = [table.author[i]!, table.reviewer[i]!]
    const weight = weightOf(table, a)
    const quality =
      weight === 0
        ? byReaders[a]!
        : (table.readers[a]! * byReaders[a]! + weight * table.anchor[a]!) / (table.readers[a]! + weight)
    out[r]! += table.points[i]! - quality - shared - own[r]!
  }
  return out
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}
