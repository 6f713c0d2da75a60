import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { KINDS } from '#core/kinds'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { clockAt } from './localTime'
import { proposeSchedule, workToPlan } from './proposeSchedule'
import { isWorkingPhase, scheduleFaults } from './schedule'
import { dayAfter, localDay, localInstant, weekOf, type Term } from './week'

const term: Term = {
  firstDay: '2026-09-07',
  weeks: 12,
  timeZone: 'Europe/Amsterdam',
  breaks: [{ week: 8, title: 'Autumn break' }],
}
const SUNDAY = { weekday: 7, time: '23:59' }
const at = (day: string, time: string) => localInstant(day, time, term.timeZone)
const daysOf = (kind: (typeof ACTIVITY_KINDS)[number], week: number, now: Date, usual = SUNDAY) => {
  const proposed = proposeSchedule(workToPlan(kind), term, week, usual, now)
  return [proposed.opensAt, ...proposed.phases.map(p => p.endsAt)].map(d => localDay(d, term.timeZone))
}
const BEFORE = at('2026-08-20', '12:00')

describe('a proposed schedule', () => {
  it('opens on Monday, is due on the usual weekday, phase by phase, and leaves a week to mark', () => {
    expect(daysOf('discussion', 3, BEFORE)).toEqual(['2026-09-21', '2026-09-27', '2026-10-04', '2026-10-11'])
    expect(daysOf('wiki', 1, BEFORE)).toEqual([
      ...['2026-09-07', '2026-09-20', '2026-09-27', '2026-10-04'],
      '2026-10-11',
    ])
  })
  it('goes over a break, and begins after it', () => {
    expect(daysOf('discussion', 7, BEFORE)).toEqual(['2026-10-19', '2026-10-25', '2026-11-08', '2026-11-15'])
    expect(daysOf('exitNote', 8, BEFORE)).toEqual(['2026-11-02', '2026-11-08', '2026-11-15'])
  })
  it('opens now in a week that has begun, and leaves two days or more', () => {
    const wednesday = at('2026-10-14', '10:20')
    const proposed = proposeSchedule(workToPlan('exitNote'), term, 6, SUNDAY, wednesday)
    expect(proposed.opensAt).toEqual(wednesday)
    expect(proposed.phases[0]!.endsAt).toEqual(at('2026-10-18', '23:59'))
    expect(daysOf('exitNote', 6, at('2026-10-17', '10:20'))[1]).toBe('2026-10-25')
  })
  it('shortens what takes long, and never more than the end of the term asks for', () => {
    expect(daysOf('wiki', 9, BEFORE).slice(1)).toEqual([
      '2026-11-08',
      '2026-11-15',
      '2026-11-22',
      '2026-11-29',
    ])
    expect(daysOf('journal', 1, BEFORE).slice(1)).toEqual(['2026-11-22', '2026-11-29'])
  })
  it('spreads over the days that are left where there are fewer weeks than phases', () => {
    const ends = proposeSchedule(workToPlan('wiki'), term, 12, SUNDAY, BEFORE).phases
    expect(ends.map(p => localDay(p.endsAt, term.timeZone)).slice(0, 3)).toEqual([
      ...['2026-11-24', '2026-11-26', '2026-11-29'],
    ])
  })
  it('goes on after the term once it is over', () => {
    const late = at('2026-12-16', '09:00')
    expect(daysOf('discussion', 12, late)).toEqual(['2026-12-16', '2026-12-20', '2026-12-27', '2027-01-03'])
  })

  const zones = [
    'Europe/Amsterdam',
    'America/New_York',
    'Asia/Kolkata',
    'Pacific/Auckland',
    'America/Sao_Paulo',
    'UTC',
  ]
  const anyTerm = fc
    .record({
      monday: fc.integer({ min: 0, max: 300 }),
      weeks: fc.integer({ min: 1, max: 30 }),
      timeZone: fc.constantFrom(...zones),
      pauses: fc.uniqueArray(fc.integer({ min: 1, max: 30 }), { maxLength: 5 }),
    })
    .map(({ monday, weeks, timeZone, pauses }): Term => ({
      ...{ firstDay: dayAfter('2024-01-01', 7 * monday), weeks, timeZone },
      breaks: pauses.filter(w => w < weeks).map(week => ({ week, title: 'Break' })),
    }))
  it('contradicts nothing: never past, in a break or after the term, whatever the term, the week and today', () => {
    const usual = fc.record({
      weekday: fc.integer({ min: 1, max: 7 }),
      time: fc.constantFrom('23:59', '17:00', '00:00', '09:30'),
    })
    fc.assert(
      fc.property(
        anyTerm,
        usual,
        fc.integer({ min: -2, max: 33 }),
        fc.double({ min: -0.2, max: 1.2, noNaN: true }),
        fc.constantFrom(...ACTIVITY_KINDS),
        (any, due, week, part, kind) => {
          const start = localInstant(any.firstDay, '00:00', any.timeZone).getTime()
          const now = new Date(start + Math.round(part * any.weeks * 7 * 86_400_000))
          const work = workToPlan(kind)
          const proposed = proposeSchedule(work, any, Math.min(week, any.weeks), due, now)
          expect(scheduleFaults(proposed)).toEqual([])
          expect(proposed.phases.map(p => p.name)).toEqual([...KINDS[kind].workingPhases, 'mark'])
          expect(proposed.opensAt.getTime()).toBeGreaterThanOrEqual(now.getTime())
          const inBreak = (d: Date) => any.breaks!.some(b => b.week === weekOf(d, any))
          for (const moment of [proposed.opensAt, ...proposed.phases.map(p => p.endsAt)])
            expect(inBreak(moment)).toBe(false)
          for (const phase of proposed.phases) expect(clockAt(phase.endsAt, any.timeZone)).toBe(due.time)
          const last = proposed.phases.filter(p => isWorkingPhase(p.name)).at(-1)!.endsAt
          const daysLeft = Array.from({ length: 7 * any.weeks }, (_, i) =>
            localInstant(dayAfter(any.firstDay, i), due.time, any.timeZone),
          ).filter(d => d > proposed.opensAt && !inBreak(d))
          if (daysLeft.length >= work.phases.length) expect(weekOf(last, any)).toBeLessThanOrEqual(any.weeks)
        },
      ),
      { numRuns: 600 },
    )
  })
})
