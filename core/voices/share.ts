/**
 * Gini coefficient of non-negative figures: 0 when all have the same, towards 1 when one has all.
 * G = 2 Σ i·xᵢ / (n Σ xᵢ) − (n + 1) / n for figures in rising order, i from 1.
 * Source: C. Gini, Variabilità e mutabilità (1912); in this form e.g. A. Sen, On Economic Inequality (1973), ch. 2.
 *
 * @returns null where there is nothing to share
 */
export function gini(figures: readonly number[]): number | null {
  const rising = [...figures].sort((a, b) => a - b)
  const [n, sum] = [rising.length, rising.reduce((s, x) => s + x, 0)]
  if (n === 0 || sum === 0) return null
  return (2 * rising.reduce((s, x, i) => s + (i + 1) * x, 0)) / (n * sum) - (n + 1) / n
}

/** Points of the Lorenz curve, from [0, 0] to [1, 1]: the share of all that the share of people who have least has. */
export function lorenz(figures: readonly number[]): Array<readonly [people: number, share: number]> {
  const rising = [...figures].sort((a, b) => a - b)
  const sum = rising.reduce((s, x) => s + x, 0)
  let so = 0
  return [
    [0, 0],
    ...rising.map((x, i): [number, number] => {
      so += x
      return [(i + 1) / rising.length, sum === 0 ? (i + 1) / rising.length : so / sum]
    }),
  ]
}

/** How many of those who have most have half of all together; 0 where there is nothing. */
export function haveHalf(figures: readonly number[]): number {
  const falling = [...figures].sort((a, b) => b - a)
  const half = falling.reduce((s, x) => s + x, 0) / 2
  if (half === 0) return 0
  let so = 0
  return (
    falling.findIndex(x => {
      so += x
      return so >= half
    }) + 1
  )
}

/** Middle of some figures, of an even number the mean of the two middle ones; null of none. */
export function median(figures: readonly number[]): number | null {
  if (figures.length === 0) return null
  const rising = Float64Array.from(figures).sort()
  const middle = rising.length >> 1
  return rising.length % 2 === 1 ? rising[middle]! : (rising[middle - 1]! + rising[middle]!) / 2
}
