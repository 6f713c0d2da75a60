import { expect, it } from 'vitest'
import type { Event } from '#server/services/events'
import type { ActivityPlan } from '#server/services/planning'
import { changedWords } from './planWords'

type Changed = Extract<Event, { kind: 'planChanged' }>
const phases = [{ name: 'write', startsAt: '2026-10-12T06:00:00Z', endsAt: '2026-10-18T21:59:00Z' }]
const before = {
  ...{ kind: 'discussion', title: 'The toll', brief: { type: 'doc' }, practice: false, points: 2000 },
  ...{ opensAt: '2026-10-12T06:00:00Z', phases },
  lateRule: { kind: 'none' },
  rules: [
    { id: 'a', needed: true, rule: { kind: 'entries', need: 1, minWords: 200, due: 'write' } },
    { id: 'b', needed: true, rule: { kind: 'activeDays', need: 2, due: 'write' } },
  ],
}
/** What is told of a change, line by line. */
function told(change: object): string[] {
  const after = { ...before, ...change }
  const own = after.phases.map(p => ({ ...p, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) }))
  const event = {
    kind: 'planChanged',
    activity: after,
    seminar: { timeZone: 'Europe/Amsterdam' },
    before,
    after,
  }
  // no more of an event and a plan than is told of
  const plan = { phases: own, closesAt: own[0]!.endsAt } as unknown as ActivityPlan
  // the same
  return changedWords(event as unknown as Changed, plan).detail.split('\n')
}

it.each([
  [
    { phases: [{ ...phases[0], endsAt: '2026-10-25T22:59:00Z' }] },
    ['Writing now ends Sunday 25 October, 23:59; it was Sunday 18 October, 23:59.'],
  ],
  [
    { opensAt: '2026-10-13T06:00:00Z' },
    ['It opens Tuesday 13 October, 08:00; it was Monday 12 October, 08:00.'],
  ],
  [
    { rules: [{ ...before.rules[0], rule: { ...before.rules[0]!.rule, minWords: 300 } }] },
    [
      'Asked for now: opening post, 300+ words; it was: opening post, 200+ words.',
      'No longer asked for: here on 2 different days.',
    ],
  ],
  [{ points: 2500 }, ['It is out of 25 points now; it was out of 20.']],
  [{ points: null }, ['It is no longer marked.']],
  [
    { lateRule: { kind: 'perDay', graceMinutes: 720, percentPerDay: 10, floorPercent: 50 } },
    [
      'Late work now loses 10 % of the points a day after 12 hours of grace, down to 50 %; before, it counted in full.',
    ],
  ],
])('a change is told from what to what: %j', (change, lines) => {
  expect(told(change)).toEqual(lines)
})
