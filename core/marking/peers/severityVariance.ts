import { qualities, solveSeverities, type ScoreTable } from './additiveModel'

export interface Variances {
  readonly error: number | null // of one score; null where too little is left over to tell
  readonly free: number // degrees of freedom the error is estimated from
  readonly within: number | null // of scores about the mean of their work, severities not taken out; null where no work has two
  readonly freeWithin: number // degrees of freedom of it
  readonly severity: number // of reviewers, the few who stand apart from the others not counted; 0 where it cannot be told from chance
}

/** Degrees of freedom from which on the error is told by what is left over alone. */
export const ENOUGH_FREE = 10

const FURTHEST = 3 // standard deviations: who lies further counts as if they lay there
const HALVINGS = 80

/**
 * Error variance by fitting constants (works and reviewers as constants, what is left over by its degrees of freedom),
 * and severity variance from how far each reviewer lies from the others on the same works, so that a few who stand far
 * apart do not widen it. Where everyone scores everything and nobody stands apart it is the analysis of variance.
 * Of the ten degrees of freedom an error needs, those that are missing (two reviews each leave one) are taken from how
 * scores of the same work differ, which holds severities too: what cannot be told from chance counts as chance.
 *
 * Sources: Henderson (1953), "Estimation of variance and covariance components", method 3; Huber (1964), "Robust
 * estimation of a location parameter", proposal 2; with balanced data the figures of Shrout and Fleiss (1979),
 * "Intraclass correlations", table 2.
 *
 * @param scores without anchors
 */
export function variances(scores: ScoreTable): Variances {
  const works = scores.authors.length
  const rank = works + scores.reviewers.length - components(scores)
  const free = scores.points.length - rank
  const freeWithin = scores.points.length - works
  if (freeWithin === 0) return { error: null, free: 0, within: null, freeWithin, severity: 0 }
  const within = squaresLeft(scores, Infinity) / freeWithin
  if (free < 1) return { error: null, free: 0, within, freeWithin, severity: 0 }
  const missing = Math.max(0, ENOUGH_FREE - free)
  const error = (squaresLeft(scores, 0) + missing * within) / (free + missing)
  return { error, free, within, freeWithin, severity: spreadOfReviewers(scores, error) }
}

function squaresLeft(scores: ScoreTable, penalty: number): number {
  const fit = solveSeverities(scores, new Float64Array(scores.reviewers.length).fill(penalty))
  const quality = qualities(scores, fit)
  let sum = 0
  for (let i = 0; i < scores.points.length; i++)
    sum += (scores.points[i]! - quality[scores.author[i]!]! - fit.own[scores.reviewer[i]!]!) ** 2
  return sum
}

/**
 * The severity variance v where Σ min(d² / (A v + B error), FURTHEST²) is the number of reviewers; d: mean
 * distance from the others on the same works.
 */
function spreadOfReviewers(scores: ScoreTable, error: number): number {
  const found = distances(scores)
  const squares = (v: number) =>
    found.reduce((sum, { d, ofSeverity, ofError }) => {
      const expected = ofSeverity * v + ofError * error
      if (expected === 0) return sum + (d === 0 ? 0 : FURTHEST ** 2)
      return sum + Math.min((d * d) / expected, FURTHEST ** 2)
    }, 0)
  if (found.length === 0 || squares(0) <= found.length) return 0
  let [low, high] = [0, Math.max(...found.map(f => f.d * f.d)) * found.length]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2
    if (squares(middle) > found.length) low = middle
    else high = middle
  }
  return (low + high) / 2
}

interface DistanceOfReviewer {
  readonly d: number
  readonly ofSeverity: number // variance of d by unit of severity variance
  readonly ofError: number // variance of d by unit of error variance
}

function distances(scores: ScoreTable): DistanceOfReviewer[] {
  const totals = new Float64Array(scores.authors.length)
  const readersOf: number[][] = scores.authors.map(() => [])
  for (let i = 0; i < scores.points.length; i++) {
    totals[scores.author[i]!]! += scores.points[i]!
    readersOf[scores.author[i]!]!.push(scores.reviewer[i]!)
  }
  const scoresOf: number[][] = scores.reviewers.map(() => [])
  for (let i = 0; i < scores.points.length; i++)
    if (scores.readers[scores.author[i]!]! > 1) scoresOf[scores.reviewer[i]!]!.push(i)
  return scoresOf.flatMap((own, r) => {
    if (own.length === 0) return []
    let [sum, ofError] = [0, 1 / own.length]
    const others = new Map<number, number>()
    for (const i of own) {
      const a = scores.author[i]!
      const rest = scores.readers[a]! - 1
      sum += scores.points[i]! - (totals[a]! - scores.points[i]!) / rest
      ofError += 1 / rest / own.length ** 2
      for (const other of readersOf[a]!)
        if (other !== r) others.set(other, (others.get(other) ?? 0) + 1 / rest / own.length)
    }
    const ofSeverity = 1 + [...others.values()].reduce((s, c) => s + c * c, 0)
    return [{ d: sum / own.length, ofSeverity, ofError }]
  })
}

/** Parts of the pattern of who reviewed whom that hang together. */
function components({ authors, reviewers, author, reviewer }: ScoreTable): number {
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
