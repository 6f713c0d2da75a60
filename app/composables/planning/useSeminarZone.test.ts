import { describe, expect, it } from 'vitest'
import { placeOf, showSameTime } from './useSeminarZone'

const OCTOBER = Date.parse('2026-10-14T08:00:00Z')

describe('the clock of a seminar', () => {
  it('is named by its place', () => {
    expect(['Europe/Lisbon', 'America/Argentina/Buenos_Aires', 'UTC'].map(placeOf)).toEqual([
      'Lisbon',
      'Buenos Aires',
      'UTC',
    ])
  })

  it.each([
    ['Europe/Oslo', 'Europe/Berlin', true],
    ['Europe/Oslo', 'Europe/Lisbon', false],
    // the same in one season and not in the other
    ['Europe/London', 'Africa/Abidjan', false],
    ['Asia/Kolkata', 'Asia/Colombo', true],
  ])('%s and %s show the same time all year: %s', (a, b, same) => {
    expect(showSameTime(a, b, OCTOBER)).toBe(same)
  })
})
