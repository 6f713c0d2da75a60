import { describe, expect, it } from 'vitest'
import { rubricFromCsv, rubricToCsv } from '#core/marking/rubric/rubricCsv'
import { pointsOf, rubricFaults } from '#core/marking/rubric/rubricDraft'
import { STARTER_RUBRICS } from './starterRubrics'

describe('the starter rubrics', () => {
  it.each(STARTER_RUBRICS.map(r => [r.title, r] as const))(
    '%s is whole, says something at every level, and travels',
    (title, rubric) => {
      expect(rubricFaults(rubric)).toEqual([])
      for (const c of rubric.criteria)
        for (const l of c.levels) expect(l.descriptor.split(' ').length).toBeGreaterThan(3)
      expect(pointsOf(rubric)).toBe(
        {
          'Seminar contribution': 2500,
          'Reflective entry': 2000,
          'Notes in the margin': 2000,
          'Teammate share': 1600,
        }[title],
      )
      const back = rubricFromCsv(new TextEncoder().encode(rubricToCsv(rubric)), title)
      expect(back).toEqual({
        kind: 'read',
        rubric: { ...rubric, criteria: rubric.criteria.map(c => ({ ...c, suggestFrom: null })) },
      })
    },
  )
})
