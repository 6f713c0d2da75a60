import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectedLoad, USUAL_PACE } from './load'
import { loadByWeek, type LoadOfActivity } from './loadByWeek'
import { mergeFields } from './mergeFields'
import { weekOf } from './week'

describe("joining two people's changes", () => {
  const value = fc.constantFrom<unknown>(1, 2, 'a', null, [1], { x: 1 }, { x: 1, y: 2 })
  const record = fc.record({ a: value, b: value, c: value })
  it('loses nothing: every field is one of the two sides, and where they differ from the base and from each other it is named', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const { merged, clashes, taken } = mergeFields(base, mine, theirs)
        for (const field of ['a', 'b', 'c'] as const) {
          const [b, m, t, got] = [base, mine, theirs, merged].map(r => JSON.stringify(r[field]))
          if (m === b) expect(got).toBe(t)
          else expect(got).toBe(m)
          expect(clashes.includes(field)).toBe(m !== b && t !== b && m !== t)
          expect(taken.includes(field)).toBe(m === b && t !== b)
        }
      }),
      { numRuns: 300, seed: 4 },
    )
  })
  it('is the same whoever saves first, where nobody clashes', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const one = mergeFields(base, mine, theirs)
        if (one.clashes.length === 0) expect(one.merged).toEqual(mergeFields(base, theirs, mine).merged)
      }),
      { numRuns: 300, seed: 5 },
    )
  })
})

describe('the load of any plan', () => {
  const term = {
    firstDay: '2026-09-07',
    weeks: 16,
    timeZone: 'Europe/Amsterdam',
    breaks: [{ week: 8, title: 'Break' }],
  }
  const day = fc.integer({ min: 0, max: 100 })
  const activity: fc.Arbitrary<LoadOfActivity> = fc
    .record({
      from: day,
      length: fc.integer({ min: 1, max: 30 }),
      need: fc.integer({ min: 1, max: 4 }),
      minWords: fc.integer({ min: 0, max: 500 }),
      people: fc.integer({ min: 0, max: 60 }),
      classReads: fc.boolean(),
      marked: fc.boolean(),
    })
    .map(({ from, length, need, minWords, people, classReads, marked }) => {
      const at = (d: number) => new Date(Date.UTC(2026, 8, 7 + d, 12))
      return {
        phases: [
          { name: 'write' as const, startsAt: at(from), endsAt: at(from + length) },
          { name: 'mark' as const, startsAt: at(from + length), endsAt: at(from + length + 9) },
        ],
        rules: [{ kind: 'entries' as const, need, minWords, due: 'write' as const }],
        people,
        classReads,
        marked,
      }
    })
  it('is the sum of its parts, each counted by hand in the weeks it touches', () => {
    fc.assert(
      fc.property(fc.array(activity, { maxLength: 12 }), plan => {
        const load = loadByWeek(plan, term, USUAL_PACE)
        for (const week of load) {
          let student = 0
          let marking = 0
          for (const a of plan) {
            const { writing, reading, marking: all } = expectedLoad(a.rules, a.people, a.classReads)
            if (weekOf(a.phases[0]!.endsAt, term) === week.week) student += writing + reading
            const [from, to] = [
              weekOf(a.phases[1]!.startsAt, term),
              weekOf(new Date(a.phases[1]!.endsAt.getTime() - 1), term),
            ]
            if (a.marked && from <= week.week && week.week <= to) marking += all / (to - from + 1)
          }
          expect(week.studentMinutes).toBeCloseTo(student, 6)
          expect(week.markingMinutes).toBeCloseTo(marking, 6)
        }
      }),
      { numRuns: 120, seed: 6 },
    )
  })
})
