/** A rubric as it is written and exchanged: without ids of a database. */
export interface RubricDraft {
  readonly title: string
  readonly criteria: readonly CriterionDraft[]
}
export interface CriterionDraft {
  readonly title: string
  readonly scope: 'own' | 'group'
  readonly weight: number // relative, whole, ≥ 1
  readonly suggestFrom: 'timeliness' | null
  readonly outcomes: readonly string[] // identifiers of the learning outcomes it is evidence of
  readonly levels: readonly LevelDraft[] // lowest first
}
export interface LevelDraft {
  readonly title: string
  readonly points: number // hundredths; the top where the level is a range
  readonly pointsFrom: number | null // hundredths: bottom of a range
  readonly descriptor: string
}

export const MOST_CRITERIA = 20
export const MOST_LEVELS = 10
/** Learning outcomes one criterion is evidence of, at most. */
export const MOST_OUTCOMES = 12

/** Most points of a criterion: its highest level, in hundredths. */
export const maxOf = (criterion: Pick<CriterionDraft, 'levels'>): number =>
  Math.max(0, ...criterion.levels.map(level => level.points))

/** Points of the whole rubric in hundredths, weights counted. */
export const pointsOf = (rubric: Pick<RubricDraft, 'criteria'>): number =>
  rubric.criteria.reduce((sum, c) => sum + c.weight * maxOf(c), 0)

export type RubricFault =
  | { readonly code: 'noCriteria' | 'noTitle' }
  | { readonly code: 'criterionNoTitle' | 'noLevels' | 'noPoints'; readonly criterion: number }
  | {
      readonly code: 'levelOrder' | 'rangeOrder' | 'rangesMeet'
      readonly criterion: number
      readonly level: number
    }

/**
 * What keeps a rubric from being used, in reading order; empty when nothing does. Levels rise strictly; a range begins
 * below its top and above the top of the level under it.
 */
export function rubricFaults(rubric: RubricDraft): RubricFault[] {
  const faults: RubricFault[] = []
  if (rubric.title.trim() === '') faults.push({ code: 'noTitle' })
  if (rubric.criteria.length === 0) faults.push({ code: 'noCriteria' })
  rubric.criteria.forEach(({ title, levels }, criterion) => {
    if (title.trim() === '') faults.push({ code: 'criterionNoTitle', criterion })
    if (levels.length === 0) {
      faults.push({ code: 'noLevels', criterion })
      return
    }
    levels.forEach((l, level) => {
      const below = levels[level - 1]
      if (below && l.points <= below.points) faults.push({ code: 'levelOrder', criterion, level })
      if (l.pointsFrom !== null && l.pointsFrom >= l.points)
        faults.push({ code: 'rangeOrder', criterion, level })
      if (below && l.pointsFrom !== null && l.pointsFrom <= below.points && l.points > below.points)
        faults.push({ code: 'rangesMeet', criterion, level })
    })
    if (maxOf({ levels }) <= 0) faults.push({ code: 'noPoints', criterion })
  })
  return faults
}
