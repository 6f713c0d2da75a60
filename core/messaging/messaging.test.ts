import { describe, expect, it } from 'vitest'
import { fill, firstDraft, missingSentence, wordsIn } from './draft'
import { isTimeFor, reminderAt } from './reminder'

const ada = {
  name: 'Ada',
  missing: 'two replies to go',
  activity: '“Tides”',
  due: 'Thursday 8 October, 23:59',
}

describe('a message', () => {
  it('has what is so for each student in its places, and leaves no hole where nothing is', () => {
    expect(fill('Dear {name},\n\n{activity}: {missing}, due {due}.', ada)).toBe(
      'Dear Ada,\n\n“Tides”: two replies to go, due Thursday 8 October, 23:59.',
    )
    expect(
      fill(
        'Dear {name},\n\nI read your page. Still missing is: {missing}. Well done {unknown}!\n\n{missing}\n\nInes',
        { ...ada, missing: '' },
      ),
    ).toBe('Dear Ada,\n\nI read your page. Well done {unknown}!\n\nInes')
    expect(fill('{name}', { ...ada, name: '{missing}' })).toBe('{missing}') // what is put in is not read again
  })
  it('begins as a draft that names what is missing and leaves a way to answer', () => {
    for (const closed of [true, false])
      expect(firstDraft({ activity: 'Tides', anyMissing: true, closed, from: 'Ines' }).text).toMatch(
        /\{name\}[\s\S]*\{missing\}[\s\S]*Answer here[\s\S]*Ines$/,
      )
    expect(
      missingSentence([
        { title: 'A', toGo: 'the entry', closed: false },
        { title: 'B', toGo: 'one reply to go', closed: true },
      ]),
    ).toBe('“A” (the entry) and “B” (one reply to go)')
    expect(missingSentence([])).toBe('')
    expect(wordsIn('It’s well-kept, 3.5 m.')).toBe(4)
  })
})

describe('a reminder', () => {
  const at = (iso: string) => new Date(iso)
  it('falls on a local time some days before, on both sides of a change of the clock', () => {
    const rule = { daysBefore: 1, atTime: '12:00' }
    expect(reminderAt(rule, at('2026-10-25T22:59:00Z'), 'Europe/Amsterdam').toISOString()).toBe(
      '2026-10-24T10:00:00.000Z',
    ) // still summer time
    expect(reminderAt(rule, at('2026-10-26T22:59:00Z'), 'Europe/Amsterdam').toISOString()).toBe(
      '2026-10-25T11:00:00.000Z',
    )
  })
  it('is sent from its moment on until what it says is no longer so, and never for a moment before it was switched on', () => {
    const [moment, due] = [at('2026-10-07T10:00:00Z'), at('2026-10-08T21:59:00Z')]
    const on = at('2026-10-01T00:00:00Z')
    expect(
      [at('2026-10-07T09:59:59Z'), moment, at('2026-10-08T21:00:00Z'), due].map(now =>
        isTimeFor(moment, due, on, now),
      ),
    ).toEqual([false, true, true, false])
    expect(isTimeFor(moment, due, at('2026-10-07T10:00:01Z'), at('2026-10-07T11:00:00Z'))).toBe(false)
  })
})
