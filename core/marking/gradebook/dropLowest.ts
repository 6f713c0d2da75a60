interface Scored {
  readonly points: number
  readonly max: number
}

/**
 * Which items to leave out so that Σ points / Σ max of the rest is as large as it can be, also where maxima differ: leaving
 * out the item with the lowest share is not always best. For a ratio q the best set to keep is the one with the largest
 * Σ (points − q·max); raising q to the ratio of that set until it stays gives the optimum (Dinkelbach, On nonlinear
 * fractional programming, 1967). Among equals the later item goes.
 *
 * @param items hundredths, max > 0
 * @param drop how many; one item is always kept
 * @returns their indices, ascending
 * @throws {RangeError} if `drop` is not a whole number ≥ 0
 */
export function dropLowest(items: readonly Scored[], drop: number): number[] {
  if (!Number.isInteger(drop) || drop < 0)
    throw new RangeError('dropLowest: drop must be a whole number, 0 or more')
  const n = Math.min(drop, items.length - 1)
  if (n <= 0) return []
  // the ratio is kept as a fraction: of whole hundredths up to 10 million in all, products and comparisons are exact
  let top = items.reduce((sum, i) => sum + i.points, 0)
  let bottom = items.reduce((sum, i) => sum + i.max, 0)
  for (;;) {
    const worth = items.map((item, index) => ({ index, worth: item.points * bottom - top * item.max }))
    worth.sort((a, b) => a.worth - b.worth || b.index - a.index)
    const out = new Set(worth.slice(0, n).map(w => w.index))
    const kept = items.filter((_, i) => !out.has(i))
    const nextTop = kept.reduce((sum, i) => sum + i.points, 0)
    const nextBottom = kept.reduce((sum, i) => sum + i.max, 0)
    if (nextTop * bottom <= top * nextBottom) return [...out].sort((a, b) => a - b)
    top = nextTop
    bottom = nextBottom
  }
}
