import { describe, expect, it } from 'vitest'
import { localInstant, type Term } from './week'
import { weeklySpans } from './weeklySpans'

const term: Term = {
  firstDay: '2026-10-05',
  weeks: 8,
  timeZone: 'Europe/Amsterdam',
  breaks: [{ week: 3, title: 'Break' }],
}
const at = (day: string, time: string) => localInstant(day, time, term.timeZone)
const journal = {
  name: 'write' as const,
  startsAt: at('2026-10-07', '08:00'),
  endsAt: at('2026-11-06', '17:00'),
}

describe('the weeks of a weekly expectation', () => {
  it('are due on the weekday and at the local time its phase ends, over a change of the clocks', () => {
    expect(weeklySpans(journal, term, []).map(s => s.dueAt)).toEqual([
      at('2026-10-09', '17:00'),
      at('2026-10-16', '17:00'),
      at('2026-10-30', '17:00'),
      at('2026-11-06', '17:00'),
    ])
  })
  it('join without a gap; what is written in a break counts for the week after it', () => {
    const spans = weeklySpans(journal, term, [])
    expect(spans.map(s => s.week)).toEqual([1, 2, 4, 5])
    for (const [i, s] of spans.entries()) if (i > 0) expect(s.startsAt).toEqual(spans[i - 1]!.endsAt)
    expect(spans[0]!.startsAt <= journal.startsAt).toBe(true)
  })
  it('leave out weeks of rest and what lies after the term', () => {
    expect(weeklySpans(journal, term, [2, 5]).map(s => s.week)).toEqual([1, 4])
    expect(weeklySpans({ ...journal, endsAt: at('2026-12-18', '17:00') }, term, []).at(-1)!.week).toBe(8)
  })
  it('are none where the phase holds no due time', () => {
    const short = { ...journal, startsAt: at('2026-10-19', '08:00'), endsAt: at('2026-10-23', '17:00') }
    expect(weeklySpans(short, term, [])).toEqual([])
  })
})
