import { describe, expect, it } from 'vitest'
import { dayAfter, localDay, localInstant, weekOf, weeksOf } from './week'

const term = { firstDay: '2026-09-07', weeks: 12, timeZone: 'Europe/Oslo' }

describe('weeks of a term', () => {
  it('keeps 23:59 local on both sides of the end of daylight saving', () => {
    expect(localInstant('2026-10-18', '23:59', 'Europe/Oslo').toISOString()).toBe('2026-10-18T21:59:00.000Z')
    expect(localInstant('2026-10-25', '23:59', 'Europe/Oslo').toISOString()).toBe('2026-10-25T22:59:00.000Z')
  })
  it('puts Sunday night in the week that ends and Monday midnight in the next', () => {
    expect(weekOf(localInstant('2026-10-11', '23:59', term.timeZone), term)).toBe(5)
    expect(weekOf(localInstant('2026-10-12', '00:00', term.timeZone), term)).toBe(6)
  })
  it('goes below one before the term and past the last after it', () => {
    expect(weekOf(localInstant('2026-09-06', '12:00', term.timeZone), term)).toBe(0)
    expect(weekOf(localInstant('2026-11-30', '12:00', term.timeZone), term)).toBe(13)
  })
  it('has weeks that touch, with one of 169 hours where the clock goes back', () => {
    const weeks = weeksOf(term)
    expect(weeks).toHaveLength(12)
    for (const [i, week] of weeks.slice(1).entries()) expect(week.startsAt).toEqual(weeks[i]!.endsAt)
    const hours = weeks.map(w => (w.endsAt.getTime() - w.startsAt.getTime()) / 3_600_000)
    expect(hours.filter(h => h === 169)).toHaveLength(1)
    expect(hours.filter(h => h === 168)).toHaveLength(11)
  })
  it('reads the local day, not the UTC day', () => {
    expect(localDay(new Date('2026-10-11T22:30:00Z'), 'Europe/Oslo')).toBe('2026-10-12')
    expect(dayAfter('2026-12-31', 1)).toBe('2027-01-01')
  })
  it('refuses a day that is not a date', () => {
    expect(() => localInstant('18 Oct', '23:59', 'UTC')).toThrow(RangeError)
    expect(() => localInstant('2026-10-18', '9', 'UTC')).toThrow(RangeError)
  })
})
