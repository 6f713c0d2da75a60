import { describe, expect, it } from 'vitest'
import { seededRandom } from '../chance/seededRandom'
import { counts, readPresence, type Act, type ActKind } from './presence'

const DAY = 86_400_000
const start = Date.parse('2026-09-07T00:00:00Z')
const weeks = Array.from({ length: 7 }, (_, i) => start + i * 7 * DAY)
const act = (
  studentId: string,
  day: number,
  kind: ActKind = 'comment',
  words: number | null = null,
): Act => ({ studentId, kind, at: start + day * DAY, words })

describe('presence', () => {
  it('counts replies from 25 words on, and everything else said to one student', () => {
    expect(
      [
        act('a', 1, 'reply', 24),
        act('a', 1, 'reply', 25),
        act('a', 1, 'answer', 3),
        act('a', 1, 'letter'),
      ].map(counts),
    ).toEqual([false, true, true, true])
  })
  it('begins, for somebody who joined later, on that day', () => {
    const joined = new Map([['a', start + 12 * DAY]])
    const [a, b] = readPresence([], ['a', 'b'], { weeks, now: start + 20 * DAY, joined })
    expect([a!.gapDays, a!.longestGapDays]).toEqual([8, 8])
    expect(b!.gapDays).toBe(20)
    const [spoken] = readPresence([act('a', 15)], ['a'], { weeks, now: start + 20 * DAY, joined })
    expect([spoken!.longestGapDays, spoken!.gapDays]).toEqual([5, 5])
  })
  it('knows the weeks, the last word, and the longest time without one, the running one among them', () => {
    const [a, b] = readPresence(
      [
        act('a', 1),
        act('a', 3, 'reply', 10),
        act('a', 16, 'letter'),
        act('a', 18),
        act('x', 2),
        act('a', 40),
      ],
      ['a', 'b'],
      { weeks, now: start + 24.5 * DAY },
    )
    expect(a).toEqual({
      studentId: 'a',
      acts: 3,
      lastAt: start + 18 * DAY,
      weeks: [1, 0, 2, 0, 0, 0],
      longestGapDays: 15,
      gapDays: 6,
    })
    expect(b).toEqual({
      studentId: 'b',
      acts: 0,
      lastAt: null,
      weeks: [0, 0, 0, 0, 0, 0],
      longestGapDays: 24,
      gapDays: 24,
    })
  })
  it('is what counting day by day finds', () => {
    for (let seed = 1; seed < 60; seed++) {
      const random = seededRandom(seed)
      const acts = Array.from({ length: Math.floor(random() * 12) }, () =>
        act('a', Math.floor(random() * 42), 'reply', Math.floor(random() * 50)),
      )
      const now = Math.floor(random() * 42)
      const [contact] = readPresence(acts, ['a'], { weeks, now: start + now * DAY })
      const days = new Set(
        acts
          .filter(a => a.words! >= 25)
          .map(a => (a.at - start) / DAY)
          .filter(d => d <= now),
      )
      let [gap, longest] = [0, 0]
      for (let d = 1; d <= now; d++) {
        gap++
        longest = Math.max(longest, gap)
        if (days.has(d)) gap = 0
      }
      expect(contact).toMatchObject({
        gapDays: gap,
        longestGapDays: longest,
        acts: acts.filter(a => a.words! >= 25 && (a.at - start) / DAY <= now).length,
      })
    }
  })
})
