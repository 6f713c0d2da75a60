/** One criterion as it was judged for one student: evidence of an outcome. */
export interface Judgement {
  readonly studentId: string
  readonly sectionId: string | null
  readonly outcomeId: string
  readonly activityId: string
  readonly criterion: string // title
  readonly points: number // hundredths
  readonly max: number // hundredths, above 0
  readonly weight: number
}
export interface Reached {
  readonly judged: number
  readonly above: number
  readonly below: number
  readonly mean: number | null
} // mean share of the points, 0 to 1
export interface OutcomeReport extends Reached {
  readonly outcomeId: string
  readonly sections: ReadonlyArray<Reached & { readonly sectionId: string | null }>
  readonly criteria: ReadonlyArray<
    Reached & {
      readonly activityId: string
      readonly criterion: string
      readonly sections: ReadonlyArray<Reached & { readonly sectionId: string | null }>
    }
  >
  readonly students: ReadonlyArray<{
    readonly studentId: string
    readonly share: number
    readonly above: boolean
    readonly judgements: number
  }>
}

/**
 * How far students have reached each outcome. A student's share of an outcome is their points over what could be had, of
 * all criteria aligned with it, each with its weight; from the threshold on they stand above. A criterion by itself is
 * read the same way.
 *
 * @param threshold percent of the points
 */
export function reportOutcomes(
  judgements: readonly Judgement[],
  outcomeIds: readonly string[],
  threshold: number,
): OutcomeReport[] {
  return outcomeIds.map(outcomeId => {
    const own = judgements.filter(j => j.outcomeId === outcomeId)
    const criteria = new Map<string, Judgement[]>()
    for (const j of own) {
      const key = JSON.stringify([j.activityId, j.criterion])
      criteria.set(key, [...(criteria.get(key) ?? []), j])
    }
    const whole = read(own, threshold)
    return {
      outcomeId,
      ...whole.reached,
      sections: bySection(own, threshold),
      students: whole.students,
      criteria: [...criteria.values()].map(list => ({
        activityId: list[0]!.activityId,
        criterion: list[0]!.criterion,
        ...read(list, threshold).reached,
        sections: bySection(list, threshold),
      })),
    }
  })
}

function bySection(list: readonly Judgement[], threshold: number) {
  return [...new Set(list.map(j => j.sectionId))].map(sectionId => ({
    sectionId,
    ...read(
      list.filter(j => j.sectionId === sectionId),
      threshold,
    ).reached,
  }))
}

function read(
  list: readonly Judgement[],
  threshold: number,
): { readonly reached: Reached; readonly students: OutcomeReport['students'] } {
  const sums = new Map<string, { got: number; of: number; n: number }>()
  for (const j of list) {
    const sum = sums.get(j.studentId) ?? { got: 0, of: 0, n: 0 }
    sums.set(j.studentId, { got: sum.got + j.points * j.weight, of: sum.of + j.max * j.weight, n: sum.n + 1 })
  }
  // whole numbers on both sides: the limit itself is reached, whatever a division would make of it
  const students = [...sums]
    .filter(([, s]) => s.of > 0)
    .map(([studentId, s]) => ({
      studentId,
      share: s.got / s.of,
      above: s.got * 100 >= threshold * s.of,
      judgements: s.n,
    }))
  // added from the smallest on, so that the mean is the same to the last digit in whatever order marks come
  const above = students.filter(s => s.above).length
  return {
    students,
    reached: {
      judged: students.length,
      above,
      below: students.length - above,
      mean:
        students.length === 0
          ? null
          : students
              .map(s => s.share)
              .sort((a, b) => a - b)
              .reduce((n, share) => n + share, 0) / students.length,
    },
  }
}
