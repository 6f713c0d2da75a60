import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { moveSchedule, setPhaseEnd, snapToUsual } from './moveSchedule'
import { scheduleFaults, type PhaseName, type Schedule } from './schedule'
import { localInstant } from './week'

const ZONE = 'Europe/Amsterdam'
const at = (day: string, time = '23:59') => localInstant(day, time, ZONE)
const talk: Schedule = {
  opensAt: at('2026-10-12', '08:00'),
  phases: [
    { name: 'write', startsAt: at('2026-10-12', '08:00'), endsAt: at('2026-10-15') },
    { name: 'respond', startsAt: at('2026-10-15'), endsAt: at('2026-10-18') },
    { name: 'mark', startsAt: at('2026-10-19', '00:00'), endsAt: at('2026-10-25') },
  ],
}
const clock = (d: Date) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: ZONE, hour: '2-digit', minute: '2-digit' }).format(d)
const moved = (r: ReturnType<typeof moveSchedule>): Schedule => {
  if (r.kind !== 'moved') throw new Error(r.fault.code)
  return r.schedule
}

describe('moving a schedule', () => {
  it('takes what depends on a phase with it, and leaves what came before', () => {
    const s = moved(moveSchedule(talk, { kind: 'end', phase: 'write' }, 2, ZONE))
    expect(s.phases.map(p => [p.startsAt, p.endsAt])).toEqual([
      [talk.opensAt, at('2026-10-17')],
      [at('2026-10-17'), at('2026-10-20')],
      [at('2026-10-21', '00:00'), at('2026-10-27')],
    ])
  })
  it('keeps 23:59 at 23:59 over the end of daylight saving (25 October)', () => {
    const s = moved(moveSchedule(talk, { kind: 'whole' }, 14, ZONE))
    expect(s.phases.map(p => clock(p.endsAt))).toEqual(['23:59', '23:59', '23:59'])
    expect(s.phases[0]!.endsAt.getTime() - talk.phases[0]!.endsAt.getTime()).toBe(14 * 86_400_000 + 3_600_000)
  })
  it('refuses an end before its start, and leaves the schedule as it was', () => {
    const before = structuredClone(talk)
    expect(moveSchedule(talk, { kind: 'end', phase: 'write' }, -5, ZONE)).toEqual({
      kind: 'refused',
      fault: { code: 'endsBeforeItStarts', phase: 'write' },
    })
    expect(talk).toEqual(before)
  })
  it('never lets reviewing begin before hand-in ends', () => {
    const essays: Schedule = {
      opensAt: at('2026-10-26', '08:00'),
      phases: [
        { name: 'write', startsAt: at('2026-10-26', '08:00'), endsAt: at('2026-11-01') },
        { name: 'review', startsAt: at('2026-11-02', '00:00'), endsAt: at('2026-11-08') },
      ],
    }
    fc.assert(
      fc.property(
        fc.constantFrom<'whole' | 'opens' | PhaseName>('whole', 'opens', 'write', 'review'),
        fc.integer({ min: -20, max: 20 }),
        (grip, days) => {
          const result = moveSchedule(
            essays,
            grip === 'whole' || grip === 'opens' ? { kind: grip } : { kind: 'end', phase: grip },
            days,
            ZONE,
          )
          if (result.kind === 'moved') expect(scheduleFaults(result.schedule)).toEqual([])
        },
      ),
      { numRuns: 200, seed: 1 },
    )
    const longer = moved(moveSchedule(essays, { kind: 'end', phase: 'write' }, 3, ZONE))
    expect(longer.phases[1]!.startsAt).toEqual(at('2026-11-05', '00:00'))
  })
  it('sets an end to a moment: what began there begins at the new one, the rest moves by whole days', () => {
    const s = moved(setPhaseEnd(talk, 'write', at('2026-10-16', '18:00'), ZONE))
    expect(s.phases.map(p => [p.startsAt, p.endsAt])).toEqual([
      [talk.opensAt, at('2026-10-16', '18:00')],
      [at('2026-10-16', '18:00'), at('2026-10-19')],
      [at('2026-10-20', '00:00'), at('2026-10-26')],
    ])
    expect(setPhaseEnd(talk, 'write', at('2026-10-11'), ZONE).kind).toBe('refused')
  })
  it('there and back again is where it was', () => {
    fc.assert(
      fc.property(fc.integer({ min: -60, max: 60 }), days => {
        expect(
          moved(
            moveSchedule(
              moved(moveSchedule(talk, { kind: 'whole' }, days, ZONE)),
              { kind: 'whole' },
              -days,
              ZONE,
            ),
          ),
        ).toEqual(talk)
      }),
      { numRuns: 60, seed: 2 },
    )
  })
  it('snaps to the usual due time of the day it falls on', () => {
    expect(snapToUsual(at('2026-10-25', '04:30'), '23:59', ZONE)).toEqual(at('2026-10-25'))
  })
})
