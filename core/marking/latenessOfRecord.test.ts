import { expect, it } from 'vitest'
import type { ExpectationRule } from '../planning/expectations/rule'
import type { Check } from '../standing/judgeRecord'
import { latenessOfRecord } from './latenessOfRecord'

const at = (day: number, time = '23:59') => new Date(`2026-10-${String(day).padStart(2, '0')}T${time}:00Z`)
const entries: ExpectationRule = { kind: 'entries', need: 1, minWords: 200, due: 'write' }
const replies: ExpectationRule = { kind: 'replies', need: 2, minWords: 50, due: 'respond' }
const plan = {
  timeZone: 'UTC',
  phases: [
    { name: 'write' as const, startsAt: at(5), endsAt: at(8) },
    { name: 'respond' as const, startsAt: at(8), endsAt: at(11) },
  ],
  closesAt: at(11),
  extensions: new Map([['paz', { dueAt: at(10) }]]),
  expectations: [{ rule: entries }, { rule: replies }],
}
const perDay = { kind: 'perDay' as const, graceMinutes: 0, percentPerDay: 10, floorPercent: 0 }
const met = (when: Date | null): Check => ({
  ...{ expectationId: 'e', have: 1, need: 1, met: when !== null, late: false, toGoNow: 0, bestWords: 0 },
  metAt: when?.toISOString() ?? null,
})

it.each([
  ['all in time', 'liv', met(at(8)), met(at(11)), { minutes: 0, startedDays: 0 }],
  ['the work late', 'liv', met(at(9, '00:29')), met(at(11)), { minutes: 30, startedDays: 1 }],
  ['the answers later than the work', 'liv', met(at(9)), met(at(13)), { minutes: 2880, startedDays: 2 }],
  ['within an extension', 'paz', met(at(10)), met(at(11)), { minutes: 0, startedDays: 0 }],
  ['after an extension', 'paz', met(at(11)), met(at(11)), { minutes: 1440, startedDays: 1 }],
  ['answers missing: missing, not late', 'liv', met(at(9)), met(null), { minutes: 1440, startedDays: 1 }],
  ['the work missing: unknown', 'liv', met(null), met(at(13)), null],
] as const)('says how late a record is: %s', (_, who, first, second, lateness) => {
  expect(latenessOfRecord(plan, perDay, [first, second], who)).toEqual(lateness)
})
