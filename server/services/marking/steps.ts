import { fitsLevel, rangeOf } from '#core/marking/stepPoints'
import { refusedField } from '#server/http/problem'
import type { RubricView } from '#shared/contributing/activity'
import type { Step } from '#shared/marking/desk'

/**
 * Steps with their points: a step that is not on the rubric, or points outside its range, are refused.
 * Beside peers' scores, which lie between the levels, any points of the criterion are taken.
 */
export function requireSteps(
  rubric: RubricView,
  steps: ReadonlyArray<{
    readonly criterionId: string
    readonly levelId: string
    readonly points?: number | undefined
  }>,
  between = false,
): Step[] {
  const seen = new Set<string>()
  return steps.map(step => {
    const criterion = rubric.criteria.find(c => c.id === step.criterionId)
    const level = criterion?.levels.find(l => l.id === step.levelId)
    if (!criterion || !level || seen.has(step.criterionId))
      throw refusedField(
        'steps',
        'notOnRubric',
        'That step is not on this rubric. Reload the page: the rubric may have been changed.',
      )
    seen.add(step.criterionId)
    const points = step.points ?? level.points
    if (between && (points < 0 || points > criterion.max))
      throw refusedField(
        'steps',
        'outOfRange',
        `“${criterion.title}” goes from 0 to ${criterion.max / 100} points; ${points / 100} is not among them.`,
      )
    if (!between && !fitsLevel(level, points)) {
      const [from, to] = rangeOf(level)
      throw refusedField(
        'steps',
        'outOfRange',
        `“${level.title}” stands for ${from === to ? to / 100 : `${from / 100} to ${to / 100}`} points; ${points / 100} is not among them.`,
      )
    }
    return { criterionId: step.criterionId, levelId: step.levelId, points }
  })
}
