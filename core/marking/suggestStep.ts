import type { Lateness } from './lateness'

/**
 * The step a record suggests for a criterion about timeliness: top when all was on time, the lowest when nothing is
 * there or more than two days were begun, otherwise the step in between. A suggestion only: the marker accepts it.
 *
 * @param levels points of the criterion's steps in hundredths, ascending, shape [n], n ≥ 1
 * @param lateness of the work that met the expectations; null while it is missing
 * @returns index into `levels`
 */
export function suggestTimelinessStep(levels: readonly number[], lateness: Lateness | null): number {
  if (levels.length === 0) throw new RangeError('suggestTimelinessStep needs at least one step')
  const top = levels.length - 1
  if (lateness === null) return 0
  if (lateness.minutes === 0) return top
  return lateness.startedDays > 2 ? 0 : Math.floor(top / 2) + (top % 2)
}
