/** Source of numbers in [0, 1). Everything in core that leaves something to chance takes one. */
export type Random = () => number

/**
 * A reproducible source: the same seed gives the same numbers on every machine.
 * Source: mulberry32, a 32-bit counter through a mixing function (public domain, T. Ettinger).
 *
 * @param seed any integer; only its lowest 32 bits count
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

/** A copy in random order: Fisher–Yates, each order equally likely. */
export function shuffled<T>(items: readonly T[], random: Random): T[] {
  const copy = [...items]
  for (let i = copy.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    const swap = copy[i]!
    copy[i] = copy[j]!
    copy[j] = swap
  }
  return copy
}
