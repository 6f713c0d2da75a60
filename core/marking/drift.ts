/** One criterion of one student as one marker judged it. */
export interface JudgedRecord {
  readonly studentId: string
  readonly markerId: string
  readonly at: Date
  readonly step: number // place of the level, 0 the lowest
  readonly evidence: readonly number[] // measures of the record: words, replies, citations …, unscaled
}

export interface DriftByMarker {
  readonly markerId: string
  readonly marks: number
  readonly first: number // mean step of the earlier half
  readonly last: number // mean step of the later half
}
export interface AlikePair {
  readonly a: string
  readonly b: string
  readonly steps: number
  readonly distance: number
}
export interface Drift {
  readonly markers: readonly DriftByMarker[]
  readonly pairs: readonly AlikePair[]
}

const ENOUGH = 6 // marks of one marker before halves say anything
const NEAR = 0.35 // distance in standard deviations, root mean square over the measures, below which two records are alike

/**
 * Hints about one criterion, changing no mark: whether a marker's later marks lie apart from the earlier ones, and records
 * with nearly the same evidence whose steps are two or more apart. Evidence is compared after dividing every measure by its
 * standard deviation; a measure that is the same for all says nothing.
 *
 * @param most pairs returned at most, the most unlike steps first
 */
export function driftOf(given: readonly JudgedRecord[], most = 5): Drift {
  // marks of one instant stand by their students: hints do not hang on the order in which marks are handed over
  const judged = [...given].sort(
    (a, b) => a.at.getTime() - b.at.getTime() || (a.studentId < b.studentId ? -1 : 1),
  )
  const byMarker = new Map<string, JudgedRecord[]>()
  for (const j of judged) byMarker.set(j.markerId, [...(byMarker.get(j.markerId) ?? []), j])
  const mean = (list: readonly JudgedRecord[]) => list.reduce((sum, j) => sum + j.step, 0) / list.length
  const markers = [...byMarker]
    .filter(([, list]) => list.length >= ENOUGH)
    .map(([markerId, list]) => {
      const half = Math.floor(list.length / 2)
      return { markerId, marks: list.length, first: mean(list.slice(0, half)), last: mean(list.slice(-half)) }
    })
  return { markers, pairs: alike(judged, most) }
}

function alike(judged: readonly JudgedRecord[], most: number): AlikePair[] {
  const measures = judged[0]?.evidence.length ?? 0
  const spread = Array.from({ length: measures }, (_, k) => {
    const values = judged.map(j => j.evidence[k]!)
    const m = values.reduce((a, b) => a + b, 0) / values.length
    return Math.sqrt(values.reduce((sum, v) => sum + (v - m) ** 2, 0) / values.length)
  })
  const telling = spread.flatMap((s, k) => (s > 0 ? [k] : []))
  if (telling.length === 0) return []
  const pairs: AlikePair[] = []
  // sorted by one measure, only near neighbours in it need be compared
  const [lead] = telling as [number]
  const sorted = [...judged].sort((a, b) => a.evidence[lead]! - b.evidence[lead]!)
  const reach = NEAR * Math.sqrt(telling.length) * spread[lead]!
  for (const [i, a] of sorted.entries()) {
    for (let k = i + 1; k < sorted.length && sorted[k]!.evidence[lead]! - a.evidence[lead]! <= reach; k++) {
      const b = sorted[k]!
      const steps = Math.abs(a.step - b.step)
      if (steps < 2) continue
      const distance = Math.sqrt(
        telling.reduce((sum, m) => sum + ((a.evidence[m]! - b.evidence[m]!) / spread[m]!) ** 2, 0) /
          telling.length,
      )
      if (distance <= NEAR) pairs.push({ a: a.studentId, b: b.studentId, steps, distance })
    }
  }
  return pairs
    .sort((x, y) => y.steps - x.steps || x.distance - y.distance || (x.a + x.b < y.a + y.b ? -1 : 1))
    .slice(0, most)
}
