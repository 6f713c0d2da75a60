import { describe, expect, it } from 'vitest'
import type { RubricDraft } from '#core/marking/rubric/rubricDraft'
import { reviveRubric } from './reviveRubric'

const criterion = {
  title: 'Evidence',
  scope: 'own' as const,
  weight: 1,
  suggestFrom: null,
  levels: [],
}

describe('a rubric kept in the browser', () => {
  it('by an earlier release keeps the one outcome of a criterion; of today it is the very same', () => {
    // as JSON of an earlier form gives it
    const earlier = {
      criteria: [
        { ...criterion, outcome: 'hc-1' },
        { ...criterion, outcome: null },
      ],
    } as unknown as RubricDraft
    expect(reviveRubric(earlier).criteria).toEqual([
      { ...criterion, outcomes: ['hc-1'] },
      { ...criterion, outcomes: [] },
    ])
    const today = { criteria: [{ ...criterion, outcomes: ['hc-1', 'hc-2'] }] }
    expect(reviveRubric(today)).toEqual(today)
    expect(reviveRubric({ title: 'R' })).toEqual({ title: 'R' })
  })
})
