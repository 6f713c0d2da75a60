import { describe, expect, it } from 'vitest'
import { seededRandom } from '../chance/seededRandom'
import { reportOutcomes, type Judgement } from './outcomes'

const judged = (studentId: string, points: number, more: Partial<Judgement> = {}): Judgement => ({
  studentId,
  sectionId: 'A',
  outcomeId: 'o1',
  activityId: 'x',
  criterion: 'Question',
  points,
  max: 500,
  weight: 1,
  ...more,
})

describe('the outcomes report', () => {
  it('adds up a student’s criteria by weight, and reaches the limit exactly', () => {
    const [report] = reportOutcomes(
      [
        judged('a', 300),
        judged('b', 299),
        judged('c', 500),
        judged('c', 0, { criterion: 'Form', weight: 3 }),
      ],
      ['o1'],
      60,
    )
    expect(report!.students.map(s => [s.studentId, s.above])).toEqual([
      ['a', true],
      ['b', false],
      ['c', false],
    ])
    expect(report).toMatchObject({ judged: 3, above: 1, below: 2 })
    expect(report!.criteria.map(c => [c.criterion, c.judged, c.above])).toEqual([
      ['Question', 3, 2],
      ['Form', 1, 0],
    ])
    expect(
      reportOutcomes([judged('a', 70, { max: 100 })], ['o1', 'o2'], 70).map(r => [r.judged, r.above, r.mean]),
    ).toEqual([
      [1, 1, 0.7],
      [0, 0, null],
    ])
  })
  it('is what counting anew finds, section by section', () => {
    for (let seed = 1; seed < 40; seed++) {
      const random = seededRandom(seed)
      const list = Array.from({ length: 80 }, () => {
        const n = Math.floor(random() * 12)
        const sectionOf = () => {
          if (n % 3 === 0) return null
          if (n % 2) return 'A'
          return 'B'
        }
        return judged(`s${n}`, Math.floor(random() * 6) * 100, {
          sectionId: sectionOf(),
          outcomeId: `o${Math.floor(random() * 3)}`,
          criterion: `c${Math.floor(random() * 3)}`,
          weight: 1 + Math.floor(random() * 3),
        })
      })
      const threshold = 1 + Math.floor(random() * 100)
      for (const report of reportOutcomes(list, ['o0', 'o1', 'o2'], threshold)) {
        const own = list.filter(j => j.outcomeId === report.outcomeId)
        const shares = [...new Set(own.map(j => j.studentId))].map(id => {
          const of = own.filter(j => j.studentId === id)
          return (
            of.reduce((n, j) => n + j.points * j.weight, 0) / of.reduce((n, j) => n + j.max * j.weight, 0)
          )
        })
        expect(report.judged).toBe(shares.length)
        expect(report.above).toBe(shares.filter(s => s * 100 >= threshold - 1e-9).length)
        expect(report.sections.reduce((n, s) => n + s.judged, 0)).toBe(report.judged)
        expect(report.sections.reduce((n, s) => n + s.above, 0)).toBe(report.above)
        if (shares.length > 0)
          expect(report.mean).toBeCloseTo(shares.reduce((a, b) => a + b, 0) / shares.length, 12)
      }
    }
  })
})
