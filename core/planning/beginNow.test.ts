import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BEGIN_ACTS, phasesBegunNow } from './beginNow'
import type { Phase } from './schedule'

const at = (hours: number) => new Date(Date.UTC(2026, 9, 5) + hours * 3_600_000)
const phase = (name: Phase['name'], from: number, to: number): Phase => ({
  name,
  startsAt: at(from),
  endsAt: at(to),
})
const round = [phase('write', 0, 100), phase('review', 100, 200), phase('mark', 200, 300)]

describe('ending hand-in and beginning to review before the time', () => {
  it('ends hand-in now, and reviewing begins with it where it did before; no other end moves', () => {
    expect(phasesBegunNow(round, 'endHandIn', at(40))).toEqual({
      phases: [
        { ...round[0], endsAt: new Date(at(40).getTime() - 1) },
        { ...round[1], startsAt: new Date(at(40).getTime() - 1) },
        round[2],
      ],
    })
    const later = [round[0]!, phase('review', 120, 200)]
    expect(phasesBegunNow(later, 'endHandIn', at(40))).toMatchObject({
      phases: [{ endsAt: new Date(at(40).getTime() - 1) }, { startsAt: at(120) }],
    })
    expect(phasesBegunNow(later, 'beginReviewing', at(110))).toEqual({
      phases: [later[0], { ...later[1], startsAt: at(110) }],
    })
  })

  it('says why it cannot be done', () => {
    const fault = (phases: readonly Phase[], act: (typeof BEGIN_ACTS)[number], hours: number) =>
      phasesBegunNow(phases, act, at(hours))
    expect(fault(round, 'endHandIn', -1)).toEqual({ fault: 'notOpen' })
    expect(fault(round, 'endHandIn', 101)).toEqual({ fault: 'ended' })
    expect(fault(round, 'beginReviewing', 40)).toEqual({ fault: 'handInOpen' })
    expect(fault(round, 'beginReviewing', 150)).toEqual({ fault: 'begun' })
    expect(fault([round[0]!], 'endHandIn', 40)).toEqual({ fault: 'noReviewing' })
  })

  it('keeps phases in order and each with a length, and what it was asked for is then so', () => {
    fc.assert(
      fc.property(
        fc.tuple(...[1, 40, 40, 40].map(most => fc.integer({ min: 1, max: most * 24 }))),
        fc.integer({ min: 0, max: 30 * 24 }),
        fc.integer({ min: -10, max: 120 * 24 }),
        fc.constantFrom(...BEGIN_ACTS),
        ([open, write, review, mark], gap, moment, act) => {
          const ends = [open!, open! + write!, open! + write! + gap, open! + write! + gap + review!]
          const phases = [
            phase('write', open!, ends[1]!),
            phase('review', ends[2]!, ends[3]!),
            phase('mark', ends[3]!, ends[3]! + mark!),
          ]
          const now = at(moment + 0.5)
          const begun = phasesBegunNow(phases, act, now)
          if ('fault' in begun) return
          const [first, second, third] = begun.phases
          for (const p of begun.phases) expect(p.endsAt.getTime()).toBeGreaterThan(p.startsAt.getTime())
          expect(second!.startsAt.getTime()).toBeGreaterThanOrEqual(first!.endsAt.getTime())
          expect([second!.endsAt, third]).toEqual([phases[1]!.endsAt, phases[2]])
          if (act === 'endHandIn') expect(first!.endsAt < now).toBe(true)
          else expect(second!.startsAt <= now).toBe(true)
        },
      ),
    )
  })
})
