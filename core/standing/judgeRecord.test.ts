import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { CountedContribution } from '../planning/expectations/rule'
import { judgementHolds, judgeRecord, type AskedFor } from './judgeRecord'

const day = (n: number) => new Date(Date.UTC(2026, 9, 5 + n))
const weeks = [0, 7, 14].map(n => ({ startsAt: day(n), endsAt: day(n + 7) }))
const asked: AskedFor = {
  phases: [{ name: 'write', startsAt: day(0), endsAt: day(21) }],
  closesAt: day(21),
  extensions: new Map([['paz', { dueAt: day(24) }]]),
  entryType: 'entry',
  answerType: null,
  timeZone: 'UTC',
  expectations: [
    { id: 'w', rule: { kind: 'weeklyEntries', need: 1, minWords: 10, due: 'write' }, needed: true },
    { id: 'p', rule: { kind: 'prompts', need: 1, minWords: 10, due: 'write' }, needed: false },
  ],
  weeks: [weeks, []],
  prompts: [
    { id: 'p1', releaseAt: day(2) },
    { id: 'p2', releaseAt: day(9) },
  ],
  questions: [],
}
const entry = (id: string, at: Date, prompt: string | null = null): CountedContribution => ({
  ...{ id, type: 'entry', shownAt: at, words: 40, prompt, sources: 0, figures: 0, answers: null },
})
const none = { drafts: 0, mark: 'none', reviewsAssigned: 0, joinedAt: new Date(0) } as const
const judge = (shown: readonly CountedContribution[], now: Date, who = 'liv', more = {}) =>
  judgeRecord(asked, { shown, ...none, ...more }, who, now)

describe('a record judged', () => {
  it('asks for prompts once they are out, and for weeks once they have begun', () => {
    const [weekly, prompts] = judge([], day(1)).checks
    expect(weekly).toMatchObject({ have: 0, need: 3, toGoNow: 1 })
    expect(prompts).toMatchObject({ have: 0, need: 1, met: false })
    const later = judge([entry('a', day(3), 'p1')], day(10))
    expect(later.checks[0]).toMatchObject({ have: 1, need: 3, toGoNow: 1, bestWords: 40 })
    expect(later.checks[1]).toMatchObject({ have: 1, need: 2, met: false })
  })

  it('asks nothing of weeks that were over before somebody joined', () => {
    const [weekly] = judge([entry('a', day(15))], day(16), 'liv', { joinedAt: day(8) }).checks
    expect(weekly).toMatchObject({ have: 1, need: 2, toGoNow: 1 })
  })

  it('asks for as many reviews as are assigned', () => {
    const rule = { kind: 'reviews', need: 3, minWords: 1, due: 'write' } as const
    const reviewing = { ...asked, expectations: [{ id: 'r', rule, needed: true }], weeks: [[]] }
    const needOf = (reviewsAssigned: number) =>
      judgeRecord(reviewing, { shown: [], ...none, reviewsAssigned }, 'liv', day(1)).checks[0]!.need
    expect([needOf(0), needOf(2)]).toEqual([3, 2])
  })

  it('stands as ready once time is up, for each at their own', () => {
    const shown = [entry('a', day(3))]
    expect(judge(shown, day(22)).standing).toBe('ready')
    expect(judge(shown, day(22), 'paz').standing).toBe('underWay')
  })
})

describe('how long a judgement holds', () => {
  it('ends where the next prompt comes out, a week begins, or it closes for this person', () => {
    expect(judgementHolds(asked, 'liv', day(1))).toEqual({ from: day(0), until: day(2) })
    expect(judgementHolds(asked, 'liv', day(9))).toEqual({ from: day(9), until: day(14) })
    expect(judgementHolds(asked, 'liv', day(21))).toEqual({ from: day(14), until: new Date(+day(21) + 1) })
    expect(judgementHolds(asked, 'liv', day(22))).toEqual({ from: new Date(+day(21) + 1), until: null })
    expect(judgementHolds(asked, 'paz', day(22))).toEqual({ from: day(14), until: new Date(+day(24) + 1) })
  })

  it('is a span in which the same is judged at every instant', () => {
    const instant = fc.integer({ min: +day(-3), max: +day(30) })
    fc.assert(
      fc.property(instant, instant, fc.array(instant, { maxLength: 6 }), (a, b, written) => {
        const shown = written.map((t, i) => entry(`c${i}`, new Date(t), `p${(i % 2) + 1}`))
        const { from, until } = judgementHolds(asked, 'liv', new Date(a))
        const within = Math.min(Math.max(b, +(from ?? b)), until ? +until - 1 : Infinity)
        expect(judge(shown, new Date(within))).toEqual(judge(shown, new Date(a)))
      }),
    )
  })
})
