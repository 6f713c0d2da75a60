/**
 * How many groups: as asked for, or so many that the fewest people are away from the sizes asked for (Σ over groups of how
 * far each is from the range). Of two as near the fewer and larger groups.
 *
 * @param count groups, or people in each, ≥ 1
 * @param upTo people in the largest, where groups may be of `count` to `upTo`
 * @throws {RangeError} if the count is no whole number of one or more
 * @example numberOfGroups(23, 'size', 4) => 6; numberOfGroups(23, 'size', 3, 5) => 5
 */
export function numberOfGroups(
  people: number,
  by: 'number' | 'size',
  count: number,
  upTo?: number | null,
): number {
  if (!Number.isInteger(count) || count < 1)
    throw new RangeError('numberOfGroups needs a count of one or more')
  if (people === 0) return by === 'number' ? count : 1
  if (by === 'number') return Math.min(count, people)
  const most = Math.max(count, upTo ?? count)
  const [fewest, highest] = [Math.max(1, Math.floor(people / most)), Math.max(1, Math.ceil(people / count))]
  const away = (groups: number) =>
    sizesOf(people, groups).reduce((sum, size) => sum + Math.max(0, count - size, size - most), 0)
  const candidates = Array.from({ length: highest - fewest + 1 }, (_, i) => fewest + i)
  return candidates.reduce((best, groups) => (away(groups) < away(best) ? groups : best))
}

/** Sizes that differ by one at most, larger ones first. */
export function sizesOf(people: number, groups: number): number[] {
  return Array.from({ length: groups }, (_, i) => Math.floor(people / groups) + (i < people % groups ? 1 : 0))
}
