const STEPS = [1, 2, 5] // of each power of ten
const MOST_STEPS = 5

/**
 * A scale for figures that are counted, from 0 in whole steps: half a person is never written on it.
 *
 * @param most the largest figure, 0 or more
 * @returns where it ends, at or above `most` and never below 1, and its step; shape { max, step }, both whole numbers
 */
export function wholeScale(most: number): { readonly max: number; readonly step: number } {
  const needed = Math.max(1, Math.ceil(most))
  for (let power = 1; ; power *= 10)
    for (const times of STEPS) {
      const step = times * power
      const steps = Math.ceil(needed / step)
      if (steps <= MOST_STEPS) return { max: steps * step, step }
    }
}
