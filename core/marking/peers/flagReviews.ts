import { lookAlikes } from '#core/contributing/lookAlikes'
import type { Distance } from './consensus'

export interface FlaggedText {
  readonly reviewId: string
  readonly reviewerId: string
  readonly text: string
  readonly words: number
  readonly names: readonly string[] // people of the seminar named in it
  readonly namesReviewer: boolean // its own writer's name among them
}

/** Why somebody should look at a review before it counts. */
export type ReviewFlag =
  // hundredths from the others' consensus; how the reviewer runs on every work
  | { readonly code: 'apart'; readonly reviewId: string; readonly by: number; readonly runs: number }
  | {
      readonly code: 'sameWords'
      readonly reviewId: string
      readonly otherId: string
      readonly share: number
    } // 0..1 of its words
  | { readonly code: 'brief'; readonly reviewId: string; readonly words: number }
  | { readonly code: 'names'; readonly reviewId: string; readonly own: boolean; readonly exact: string }

const MUCH_ALIKE = 0.5
const BRIEF = 0.7 // of the median length

/**
 * Reviews to look at, the gravest first: scores apart from the others', words that stand in another review, far fewer
 * words than usual (less than seven tenths of the median), and names that give somebody away. A review can be flagged for several.
 */
export function flagReviews(
  texts: readonly FlaggedText[],
  apart: readonly Distance[],
  severity: ReadonlyMap<string, number>,
): ReviewFlag[] {
  const reviewerOf = new Map(texts.map(t => [t.reviewId, t.reviewerId]))
  const flags: ReviewFlag[] = [...apart]
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
    .map(d => ({
      code: 'apart',
      reviewId: d.reviewId,
      by: d.by,
      runs: severity.get(reviewerOf.get(d.reviewId) ?? '') ?? 0,
    }))
  flags.push(...alike(texts))
  const usual = median(texts.map(t => t.words))
  for (const t of texts)
    if (t.words < BRIEF * usual) flags.push({ code: 'brief', reviewId: t.reviewId, words: t.words })
  for (const t of texts)
    if (t.names.length > 0)
      flags.push({ code: 'names', reviewId: t.reviewId, own: t.namesReviewer, exact: t.names[0]! })
  return flags
}

/** Reviews whose words stand in another, each once: with the one most like it. */
function alike(texts: readonly FlaggedText[]): ReviewFlag[] {
  const closest = new Map<string, Extract<ReviewFlag, { code: 'sameWords' }>>()
  for (const pair of lookAlikes(
    texts.map(t => ({ id: t.reviewId, text: t.text })),
    { least: MUCH_ALIKE },
  )) {
    const share = Math.max(pair.ofFirst, pair.ofSecond)
    const known = closest.get(pair.second)
    if (!known || known.share < share)
      closest.set(pair.second, {
        code: 'sameWords',
        reviewId: pair.second,
        otherId: pair.first,
        share,
      })
  }
  return [...closest.values()]
}

function median(values: readonly number[]): number {
  if (values.length === 0) return 0
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length / 2
  return Number.isInteger(middle) ? (sorted[middle - 1]! + sorted[middle]!) / 2 : sorted[Math.floor(middle)]!
}
