export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

export type Timed = typeof timed

/** Does it once unmeasured, then so many times. @returns the median in milliseconds */
export async function timed(runs: number, act: () => Promise<unknown>): Promise<number> {
  await act()
  const took: number[] = []
  for (let i = 0; i < runs; i++) {
    const start = performance.now()
    await act()
    took.push(performance.now() - start)
  }
  return median(took)
}
