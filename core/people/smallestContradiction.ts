const MOST_TRIES = 20_000

/**
 * A smallest set of rules that cannot all be kept.
 *
 * First an irreducible set is found by leaving rules out one at a time while the rest still contradicts; then every
 * smaller set is tried, smallest first, until one contradicts or the bound of tries is reached (with up to some thirty
 * rules it never is for the small sets that matter).
 *
 * @param rules shape [n], n ≥ 1; all of them together contradict
 * @param contradicts whether these rules alone cannot all be kept; adding rules never makes a contradiction go away
 */
export function smallestContradiction<T>(
  rules: readonly T[],
  contradicts: (subset: readonly T[]) => boolean,
): T[] {
  let found = [...rules]
  for (const rule of rules) {
    const without = found.filter(r => r !== rule)
    if (without.length > 0 && contradicts(without)) found = without
  }
  let tries = 0
  for (let size = 1; size < found.length; size++) {
    for (const subset of subsetsOf(rules, size)) {
      if (++tries > MOST_TRIES) return found
      if (contradicts(subset)) return subset
    }
  }
  return found
}

function* subsetsOf<T>(
  items: readonly T[],
  size: number,
  from = 0,
  chosen: readonly T[] = [],
): Generator<T[]> {
  if (chosen.length === size) {
    yield [...chosen]
    return
  }
  for (let i = from; i <= items.length - (size - chosen.length); i++)
    yield* subsetsOf(items, size, i + 1, [...chosen, items[i]!])
}
