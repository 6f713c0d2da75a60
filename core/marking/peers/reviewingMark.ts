/** What somebody's own reviewing came to. */
export interface Reviewing {
  readonly owed: number
  readonly done: number // of those owed
  readonly onTime: number // of those done
  readonly helpful: readonly number[] // ratings by authors, 1 to 5
  readonly distances: readonly number[] // of each score from the consensus of the others, in levels, ≥ 0
}
/** Percent each part counts; a part that cannot be told yet leaves, and the others take its share. */
export interface ReviewingWeights {
  readonly done: number
  readonly onTime: number
  readonly helpful: number
  readonly close: number
}
export const USUAL_REVIEWING: ReviewingWeights = { done: 40, onTime: 20, helpful: 20, close: 20 }

export interface ReviewingParts {
  readonly done: number | null
  readonly onTime: number | null
  readonly helpful: number | null
  readonly close: number | null
}

/**
 * A mark for reviewing itself as a share of what it is worth, 0..1: reviews done of those owed, handed in on time,
 * found helpful (1 is none of it, 5 all of it), and close to the others (one level apart on average is none of it).
 * @returns the share with its parts, each 0..1; null where nothing was owed
 */
export function reviewingShare(
  r: Reviewing,
  weights: ReviewingWeights = USUAL_REVIEWING,
): { readonly share: number | null; readonly parts: ReviewingParts } {
  if (r.owed === 0) return { share: null, parts: { done: null, onTime: null, helpful: null, close: null } }
  const parts: ReviewingParts = {
    done: Math.min(1, r.done / r.owed),
    onTime: r.done > 0 ? r.onTime / r.owed : 0,
    helpful: r.helpful.length > 0 ? (mean(r.helpful) - 1) / 4 : null,
    close: r.distances.length > 0 ? Math.max(0, 1 - mean(r.distances)) : null,
  }
  const told = (Object.keys(parts) as Array<keyof ReviewingParts>).filter(key => parts[key] !== null)
  const all = told.reduce((sum, key) => sum + weights[key], 0)
  return {
    share: all > 0 ? told.reduce((sum, key) => sum + weights[key] * parts[key]!, 0) / all : null,
    parts,
  }
}

/** What a share was made of, as it is kept with a mark: counts, and means in whole figures. */
export interface ReviewingTold {
  readonly owed: number
  readonly done: number
  readonly onTime: number
  readonly helpful: number | null // mean rating, hundredths of 1 to 5
  readonly close: number | null // ten-thousandths: 10,000 is where the others are
}
export function toldOf(r: Reviewing): ReviewingTold {
  const { parts } = reviewingShare(r)
  return {
    owed: r.owed,
    done: r.done,
    onTime: r.onTime,
    helpful: r.helpful.length > 0 ? Math.round(mean(r.helpful) * 100) : null,
    close: parts.close === null ? null : Math.round(parts.close * 10_000),
  }
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
