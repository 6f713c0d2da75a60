import { describe, expect, it } from 'vitest'
import { closesAt, ownDueAt, scheduleFaults, scheduleState, type Schedule } from './schedule'

const at = (day: number, hour = 12) => new Date(Date.UTC(2026, 9, day, hour))
const talk: Schedule = {
  opensAt: at(5),
  phases: [
    { name: 'write', startsAt: at(5), endsAt: at(8) },
    { name: 'respond', startsAt: at(8), endsAt: at(11) },
    { name: 'mark', startsAt: at(12), endsAt: at(18) },
  ],
}

describe('a schedule', () => {
  it('closes with its last working phase, not with marking', () => {
    expect(closesAt(talk)).toEqual(at(11))
  })
  it('is open at the due instant itself and closed right after', () => {
    expect(scheduleState(talk, at(11)).kind).toBe('working')
    expect(scheduleState(talk, new Date(at(11).getTime() + 1)).kind).toBe('closed')
  })
  it('is not open before its opening', () => {
    expect(scheduleState(talk, at(4))).toEqual({ kind: 'before', opensAt: at(5) })
  })
  it('names the phase of now, and the last one within an extension', () => {
    expect(scheduleState(talk, at(6))).toMatchObject({ kind: 'working', phase: { name: 'write' } })
    expect(scheduleState(talk, at(9))).toMatchObject({ kind: 'working', phase: { name: 'respond' } })
    expect(scheduleState(talk, at(13), { dueAt: at(15) })).toMatchObject({
      kind: 'working',
      phase: { name: 'respond' },
    })
  })
  it('never lets an extension shorten the time', () => {
    expect(ownDueAt(at(11), { dueAt: at(9) })).toEqual(at(11))
    expect(ownDueAt(at(11), { dueAt: at(14) })).toEqual(at(14))
  })
  it('finds what contradicts itself', () => {
    expect(scheduleFaults(talk)).toEqual([])
    expect(scheduleFaults({ opensAt: at(5), phases: [] })).toEqual([{ code: 'noWorkingPhase' }])
    expect(
      scheduleFaults({
        opensAt: at(5),
        phases: [
          { name: 'write', startsAt: at(4), endsAt: at(8) },
          { name: 'review', startsAt: at(7), endsAt: at(7) },
        ],
      }),
    ).toEqual([
      { code: 'beforeOpening', phase: 'write' },
      { code: 'endsBeforeItStarts', phase: 'review' },
      { code: 'reviewBeforeHandIn' },
    ])
  })
  it('needs a working phase to close', () => {
    expect(() => closesAt({ opensAt: at(1), phases: [] })).toThrow(RangeError)
  })
})
