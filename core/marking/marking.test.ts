import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { latenessOf, pointsAfterLateness, type LateRule, mostTaken } from './lateness'
import { scoreRubric, type CriterionMark } from './scoreRubric'
import { calculateMark, type MarkParts } from './calculateMark'
import type { MarkScale } from './markScale'

const claim: CriterionMark = { criterionId: 'claim', weight: 3, max: 400, points: 200 }
const anyMark = fc
  .tuple(
    fc.integer({ min: 1, max: 5 }),
    fc.integer({ min: 1, max: 2000 }),
    fc.integer({ min: 0, max: 2000 }),
    fc.boolean(),
  )
  .map(([weight, max, points, judged]): CriterionMark => ({
    criterionId: `${weight}-${max}-${points}`,
    weight,
    max,
    points: judged ? Math.min(points, max) : null,
  }))
const markOf = (criteria: readonly CriterionMark[], scale: MarkScale, late: MarkParts['late']) =>
  calculateMark({ criteria, combine: null, late, override: null }, scale)
const onTime = { lateness: null, rule: { kind: 'none' } as LateRule, waived: false }

describe('scoring a rubric', () => {
  it('weighs criteria', () => {
    expect(scoreRubric([claim, { criterionId: 'sources', weight: 1, max: 400, points: 400 }])).toEqual({
      kind: 'final',
      share: 0.625,
    })
  })
  it('names a criterion not judged instead of scoring it as zero', () => {
    expect(scoreRubric([claim, { ...claim, criterionId: 'sources', points: null }])).toEqual({
      kind: 'provisional',
      shareSoFar: 0.25,
      notJudged: ['sources'],
    })
  })
  it.each([
    [[]],
    [[{ ...claim, weight: 0 }]],
    [[{ ...claim, max: Number.NaN }]],
    [[{ ...claim, points: 500 }]],
    [[{ ...claim, points: -1 }]],
  ])('refuses %j', marks => {
    expect(() => scoreRubric(marks)).toThrow(RangeError)
  })
  it('never exceeds the maximum, keeps to the step, and does not depend on the order of criteria', () => {
    fc.assert(
      fc.property(
        fc.array(anyMark, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(1, 25, 50, 100),
        (marks, step) => {
          const scale = { max: 2500, step }
          const total = markOf(marks, scale, onTime)
          expect(total.points).toBeGreaterThanOrEqual(0)
          expect(total.points).toBeLessThanOrEqual(2500)
          expect(total.points! % step).toBe(0)
          expect(markOf([...marks].reverse(), scale, onTime).points).toBe(total.points)
          // recomputed with whole numbers only
          const earned = marks.reduce((n, m) => n + BigInt(m.weight) * BigInt(m.points ?? 0), 0n)
          const attainable = marks.reduce((n, m) => n + BigInt(m.weight) * BigInt(m.max), 0n)
          const exact =
            ((2n * earned * 2500n + attainable * BigInt(step)) / (2n * attainable * BigInt(step))) *
            BigInt(step)
          expect(BigInt(total.points!)).toBe(exact)
        },
      ),
    )
  })
  it('says 9 of 25 so far with two criteria left', () => {
    const marks = [
      [8, 6],
      [8, null],
      [6, null],
      [3, 3],
    ].map(([max, points], i) => ({
      criterionId: `c${i}`,
      weight: 1,
      max: max! * 100,
      points: points === null ? null : points! * 100,
    }))
    expect(markOf(marks, { max: 2500, step: 50 }, onTime)).toEqual({ points: 900, before: 900, left: 2 })
  })
})

describe('a mark from its parts', () => {
  const scale = { max: 1000, step: 50 }
  const whole = [{ ...claim, points: 400 }]
  const parts: MarkParts = { criteria: whole, combine: null, late: onTime, override: null }
  it('is what a marker has set, whatever else says, and keeps what was reckoned beside it', () => {
    expect(calculateMark({ ...parts, override: 325 }, scale)).toEqual({ points: 325, before: 1000, left: 0 })
    expect(
      calculateMark({ ...parts, criteria: [claim, { ...claim, points: null }], override: 0 }, scale),
    ).toEqual({ points: 0, before: 250, left: 0 })
    expect(() => calculateMark({ ...parts, override: 1001 }, scale)).toThrow(RangeError)
    expect(() => calculateMark({ ...parts, override: -1 }, scale)).toThrow(RangeError)
  })
  it('is unknown while there is nothing to reckon from, and never zero by itself', () => {
    expect(calculateMark({ ...parts, criteria: null }, scale)).toEqual({
      points: null,
      before: null,
      left: 1,
    })
    expect(
      calculateMark(
        { ...parts, criteria: null, combine: { rule: { by: 'mean', each: 100 }, marks: [] } },
        scale,
      ),
    ).toEqual({ points: null, before: null, left: 1 })
    expect(calculateMark({ ...parts, criteria: [] }, scale)).toEqual({ points: null, before: null, left: 0 })
  })
  it('is made of contributions’ marks where there is no rubric, and late like any', () => {
    const combine = {
      rule: { by: 'sum', each: 400 } as const,
      marks: [{ id: 'a', at: new Date(0), points: 390, done: null }],
    }
    const late: MarkParts['late'] = {
      lateness: { minutes: 90, startedDays: 1 },
      rule: { kind: 'perDay', graceMinutes: 0, percentPerDay: 10, floorPercent: 0 },
      waived: false,
    }
    expect(calculateMark({ ...parts, criteria: null, combine, late }, scale)).toEqual({
      points: 300,
      before: 400,
      left: 0,
    })
  })
})

describe('lateness', () => {
  const due = new Date('2026-10-11T21:59:00Z')
  const after = (minutes: number) => new Date(due.getTime() + minutes * 60_000)
  const perDay: LateRule = { kind: 'perDay', graceMinutes: 30, percentPerDay: 10, floorPercent: 50 }

  it('is none at the due instant, and counts a day as soon as it has begun', () => {
    expect(latenessOf(due, due, perDay, 'Europe/Amsterdam')).toEqual({ minutes: 0, startedDays: 0 })
    expect(latenessOf(after(30), due, perDay, 'Europe/Amsterdam')).toEqual({ minutes: 30, startedDays: 0 })
    expect(latenessOf(after(31), due, perDay, 'Europe/Amsterdam')).toEqual({ minutes: 31, startedDays: 1 })
    expect(latenessOf(after(30 + 1440), due, perDay, 'Europe/Amsterdam')?.startedDays).toBe(1)
    expect(latenessOf(after(31 + 1440), due, perDay, 'Europe/Amsterdam')?.startedDays).toBe(2)
    expect(latenessOf(null, due, perDay, 'Europe/Amsterdam')).toBeNull()
  })
  it('counts days of the calendar: a night with 25 hours costs nobody a day, one with 23 gives none away', () => {
    const none: LateRule = { ...perDay, graceMinutes: 0 }
    const days = (dueAt: string, at: string) =>
      latenessOf(new Date(at), new Date(dueAt), none, 'Europe/Amsterdam')!.startedDays
    // clocks go back on 25 October 2026: Saturday 23:59 to Sunday 23:59 are 25 hours
    expect(days('2026-10-24T21:59:00Z', '2026-10-25T22:59:00Z')).toBe(1)
    expect(days('2026-10-24T21:59:00Z', '2026-10-25T22:59:01Z')).toBe(2)
    // and forward on 29 March 2026: 23 hours
    expect(days('2026-03-28T22:59:00Z', '2026-03-29T21:59:00Z')).toBe(1)
    expect(days('2026-03-28T22:59:00Z', '2026-03-29T21:59:01Z')).toBe(2)
    expect(days('2026-09-01T10:00:00Z', '2026-12-10T10:00:00Z')).toBe(100) // an hour less by the clock of the wall
  })
  it('takes a share of the maximum per day, stops at the floor, and never lifts anyone', () => {
    expect(pointsAfterLateness(2000, 2500, { minutes: 1500, startedDays: 2 }, perDay)).toBe(1500)
    expect(pointsAfterLateness(2000, 2500, { minutes: 9000, startedDays: 7 }, perDay)).toBe(1250)
    expect(pointsAfterLateness(800, 2500, { minutes: 9000, startedDays: 7 }, perDay)).toBe(800)
    expect(
      pointsAfterLateness(
        2400,
        2500,
        { minutes: 60, startedDays: 1 },
        { kind: 'cap', graceMinutes: 0, capPercent: 70 },
      ),
    ).toBe(1750)
  })
  it('says what a rule takes at the most, before it is set', () => {
    const late = { minutes: 4000, startedDays: 3 }
    expect(mostTaken(late, perDay)).toBe(30)
    expect(mostTaken({ ...late, startedDays: 9 }, perDay)).toBe(50) // down to the floor
    expect(mostTaken(late, { kind: 'cap', graceMinutes: 0, capPercent: 70 })).toBe(30)
    expect([mostTaken({ minutes: 20, startedDays: 0 }, perDay), mostTaken(late, { kind: 'none' })]).toEqual([
      0, 0,
    ])
  })
  it("keeps the rule's figure visible when it is waived", () => {
    const marks = [{ criterionId: 'a', weight: 1, max: 2500, points: 2000 }]
    const lateness = { minutes: 1500, startedDays: 2 }
    expect(markOf(marks, { max: 2500, step: 50 }, { lateness, rule: perDay, waived: false })).toMatchObject({
      points: 1500,
      before: 2000,
    })
    expect(markOf(marks, { max: 2500, step: 50 }, { lateness, rule: perDay, waived: true })).toMatchObject({
      points: 2000,
      before: 2000,
    })
  })
  it('never raises a mark and never falls as days pass below the floor', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2500 }), fc.integer({ min: 0, max: 20 }), (points, days) => {
        const left = pointsAfterLateness(points, 2500, { minutes: days * 1440, startedDays: days }, perDay)
        expect(left).toBeLessThanOrEqual(points)
        expect(left).toBeGreaterThanOrEqual(Math.min(points, 1250))
      }),
    )
  })
})
