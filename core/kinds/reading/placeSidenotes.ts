/**
 * Where sidenotes stand so that none covers another and together they are as near to their lines as can be: the least sum
 * of squared distances, by pooling neighbours that collide (isotonic regression, pool adjacent violators; Barlow et al. 1972).
 *
 * @param notes in the order of the text: where each wants to begin and how high it is, pixels
 * @param from nothing stands above it
 * @returns the top of each; never decreasing
 */
export function placeSidenotes(
  notes: ReadonlyArray<{ readonly wanted: number; readonly height: number }>,
  gap: number,
  from = 0,
): number[] {
  // taken off the heights before it, a note wants a place that must not fall below its neighbour's
  const pools: Array<{ sum: number; count: number }> = []
  let before = 0
  const above = notes.map(({ height }) => {
    const at = before
    before += height + gap
    return at
  })
  for (const [i, { wanted }] of notes.entries()) {
    pools.push({ sum: wanted - above[i]!, count: 1 })
    while (pools.length > 1 && mean(pools.at(-2)!) > mean(pools.at(-1)!)) {
      const last = pools.pop()!
      const into = pools.at(-1)!
      into.sum += last.sum
      into.count += last.count
    }
  }
  return pools
    .flatMap(pool => Array.from({ length: pool.count }, () => Math.max(from, mean(pool))))
    .map((at, i) => at + above[i]!)
}
const mean = ({ sum, count }: { readonly sum: number; readonly count: number }) => sum / count
