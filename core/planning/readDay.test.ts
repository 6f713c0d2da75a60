import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readClock, readDay, weeksOfMonth } from './readDay'
import { dayAfter } from './week'

const NEAR = '2026-10-14'

describe('a day that is typed', () => {
  it.each([
    ['29 Nov', '2026-11-29'],
    ['Sun 29 Nov', '2026-11-29'],
    ['Sunday, 29 November 2026', '2026-11-29'],
    ['Nov 29', '2026-11-29'],
    ['29.11.', '2026-11-29'],
    ['29/11/26', '2026-11-29'],
    ['29. 11. 2027', '2027-11-29'],
    ['2026-11-29', '2026-11-29'],
    ['11 Jan', '2027-01-11'],
    ['29 Feb', '2028-02-29'],
  ])('%s', (typed, day) => {
    expect(readDay(typed, typed === '29 Feb' ? '2028-01-10' : NEAR)).toBe(day)
  })
  it.each([
    '',
    'soon',
    '31 Sep',
    '30/2',
    '29 Feb 2027',
    '11/29/2026',
    '29',
    'Nov',
    '2026-13-01',
    '0029-11-29',
  ])('refuses “%s”', typed => {
    expect(readDay(typed, NEAR)).toBeNull()
  })
  it('reads what pages write, in every month of the year around', () => {
    const written = new Intl.DateTimeFormat('en-GB', {
      timeZone: 'UTC',
      weekday: 'short',
      day: 'numeric',
      month: 'short',
    })
    fc.assert(
      fc.property(fc.integer({ min: -180, max: 180 }), days => {
        const day = dayAfter(NEAR, days)
        expect(readDay(written.format(new Date(day)), NEAR)).toBe(day)
      }),
    )
  })
})

describe('a time that is typed', () => {
  it.each([
    ['23:59', '23:59'],
    ['9', '09:00'],
    ['9.30', '09:30'],
    ['0930', '09:30'],
    ['9:30 pm', '21:30'],
    ['12am', '00:00'],
    ['12 pm', '12:00'],
    ['0:05', '00:05'],
  ])('%s', (typed, clock) => {
    expect(readClock(typed)).toBe(clock)
  })
  it.each(['', '24:00', '9:60', '13 pm', 'noon', '9:3'])('refuses “%s”', typed => {
    expect(readClock(typed)).toBeNull()
  })
})

describe('a month on a calendar', () => {
  it('has whole weeks from Monday, with each of its days once', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 900 }), days => {
        const day = dayAfter('2026-01-01', days)
        const weeks = weeksOfMonth(day)
        expect(weeks.every(w => w.length === 7 && new Date(w[0]!).getUTCDay() === 1)).toBe(true)
        const own = weeks.flat().filter(d => d.slice(0, 7) === day.slice(0, 7))
        expect(own).toContain(day)
        expect(own[0]!.slice(8)).toBe('01')
        expect(own.length).toBe(new Date(Date.UTC(+day.slice(0, 4), +day.slice(5, 7), 0)).getUTCDate())
      }),
    )
  })
})
