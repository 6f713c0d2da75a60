import { describe, expect, it } from 'vitest'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { reviewsAskedOf, withOneCount } from './reviewCount'

const asked = (need: number): { rule: ExpectationRule } => ({
  rule: { kind: 'reviews', need, minWords: 60, due: 'review' },
})
const draft: { rule: ExpectationRule } = { rule: { kind: 'entries', need: 1, minWords: 800, due: 'write' } }
const planned = (each: number, need: number, subject: 'work' | 'teammates' = 'work') => ({
  review: { subject, each, self: false },
  rules: [draft, asked(need)],
})

describe('how many reviews each gives', () => {
  it('is one number: what is assigned follows what is asked, and the other way round', () => {
    expect(withOneCount(planned(3, 3), planned(4, 3))).toEqual(planned(4, 4))
    expect(withOneCount(planned(3, 3), planned(3, 2))).toEqual(planned(2, 2))
    expect(withOneCount(planned(3, 3), planned(3, 3))).toEqual(planned(3, 3))
  })
  it('is what is assigned where nothing is asked', () => {
    const silent = { review: { subject: 'work' as const, each: 5 }, rules: [draft] }
    expect(withOneCount(planned(3, 3), silent)).toEqual(silent)
  })
  it('is everyone in the group, of teammates, and a number again afterwards', () => {
    const { rules } = withOneCount(planned(3, 3), planned(3, 3, 'teammates'))
    expect(rules[1]!.rule).toEqual({ ...asked(3).rule, everyone: true })
    const back = withOneCount({ ...planned(3, 3, 'teammates'), rules }, { ...planned(3, 3), rules })
    expect(back).toEqual(planned(3, 3))
  })
  it('is, for one person, what is assigned to them', () => {
    const rule = { kind: 'reviews', need: 3, minWords: 1, due: 'review' } as const
    expect([0, 2, 4].map(assigned => reviewsAskedOf(rule, assigned))).toEqual([3, 2, 4])
  })
})
