import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { shiftInstant } from './shiftTerm'
import { dayAfter, localDay, localInstant, weeksOf, type Term } from './week'

const autumn: Term = {
  firstDay: '2026-09-07',
  weeks: 13,
  timeZone: 'Europe/Amsterdam',
  breaks: [{ week: 8, title: 'Reading week' }],
}
const spring: Term = {
  firstDay: '2027-02-01',
  weeks: 13,
  timeZone: 'Europe/Amsterdam',
  breaks: [{ week: 5, title: 'Spring break' }],
}
const wall = (at: Date, zone: string) =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).format(at)

describe('a term moved to another', () => {
  it('keeps teaching week, weekday and local time over breaks and over the change of the clocks', () => {
    // teaching week 8 is the ninth of the autumn (after its break) and the ninth of the spring (after an earlier one)
    const due = localInstant(dayAfter(autumn.firstDay, 7 * 8 + 6), '23:59', autumn.timeZone)
    const moved = shiftInstant(due, autumn, spring)
    expect(localDay(moved, spring.timeZone)).toBe(dayAfter(spring.firstDay, 7 * 8 + 6))
    expect(wall(moved, spring.timeZone)).toBe(wall(due, autumn.timeZone))
    // teaching week 5 comes before the autumn's break and after the spring's
    const early = localInstant(dayAfter(autumn.firstDay, 7 * 4 + 3), '23:59', autumn.timeZone)
    expect(localDay(shiftInstant(early, autumn, spring), spring.timeZone)).toBe(
      dayAfter(spring.firstDay, 7 * 5 + 3),
    )
  })

  it('lands on the same weekday, local time and teaching week for any terms, and comes back', () => {
    const term = fc
      .record({
        monday: fc.integer({ min: 0, max: 300 }),
        weeks: fc.integer({ min: 8, max: 20 }),
        pause: fc.integer({ min: 2, max: 7 }),
        zone: fc.constantFrom('Europe/Amsterdam', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata'),
      })
      .map(({ monday, weeks, pause, zone }): Term => ({
        firstDay: dayAfter('2024-01-01', 7 * monday),
        weeks,
        timeZone: zone,
        breaks: [{ week: pause, title: 'Break' }],
      }))
    fc.assert(
      fc.property(
        term,
        term,
        fc.integer({ min: 0, max: 6 }),
        fc.integer({ min: 0, max: 6 }),
        (from, to, nth, weekday) => {
          const week = weeksOf(from).filter(w => w.teaching !== null)[nth]!
          const at = localInstant(dayAfter(week.firstDay, weekday), '23:59', from.timeZone)
          const moved = shiftInstant(at, from, to)
          expect(wall(moved, to.timeZone)).toBe(wall(at, from.timeZone))
          const landed = weeksOf({ ...to, weeks: 40 }).find(w => w.startsAt <= moved && moved < w.endsAt)!
          expect(landed.teaching).toBe(week.teaching)
          expect(shiftInstant(moved, to, from).getTime()).toBe(at.getTime())
        },
      ),
      { numRuns: 200, seed: 3 },
    )
  })

  it('keeps what ends in a break before all that the next teaching week holds, where that is asked for', () => {
    const withBreak: Term = {
      firstDay: '2026-09-07',
      weeks: 12,
      timeZone: 'Europe/Amsterdam',
      breaks: [{ week: 7, title: 'Break' }],
    }
    const without: Term = { ...withBreak, breaks: [] }
    const inBreak = localInstant('2026-10-21', '12:00', withBreak.timeZone)
    const after = localInstant('2026-10-26', '09:00', withBreak.timeZone) // Monday of teaching week 7
    const words = (at: Date) => `${localDay(at, without.timeZone)} ${wall(at, without.timeZone)}`
    const there = (at: Date, breaks?: 'before') => words(shiftInstant(at, withBreak, without, breaks))
    expect(shiftInstant(inBreak, withBreak, without) > shiftInstant(after, withBreak, without)).toBe(true)
    expect(there(inBreak, 'before')).toMatch(/^2026-10-18 .*23:59/)
    expect(there(after, 'before')).toBe(there(after))
    // where the other term has that break, it stays in it
    expect(shiftInstant(inBreak, withBreak, withBreak, 'before')).toEqual(inBreak)
  })
})
