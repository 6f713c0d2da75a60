import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { combineMarks, type CombineRule, type ContributionMark } from './combineMarks'
import { driftOf, type JudgedRecord } from './drift'
import { hideNames } from './hideNames'
import { fillPhrase, findPhrases, type Phrase } from './phrases'
import { levelFor } from './stepPoints'

const given = (...points: Array<number | null>): ContributionMark[] =>
  points.map((p, i) => ({
    id: String(i),
    at: new Date(Date.UTC(2026, 0, i + 1)),
    points: p,
    done: p === null ? null : p > 0,
  }))

describe('marks per contribution', () => {
  it.each<[CombineRule, Array<number | null>, number | null, string[]]>([
    [{ by: 'mean', each: 400 }, [400, null, 200], 750, ['0', '2']],
    [{ by: 'sum', each: 400 }, [400, 400, 400], 1000, ['0', '1', '2']],
    [{ by: 'latest', each: 400 }, [400, 100, null], 250, ['1']],
    [{ by: 'best', each: 400, k: 2 }, [100, 400, 300], 875, ['1', '2']],
    [{ by: 'best', each: 400, k: 2 }, [400], 500, ['0']],
    [{ by: 'count', need: 2 }, [0, 400], 500, ['1']],
    [{ by: 'count', need: 2 }, [400, 400, 400], 1000, ['0', '1', '2']],
    [{ by: 'mean', each: 400 }, [null, null], null, []],
  ])('%j of %j makes %j', (rule, points, expected, used) => {
    expect(combineMarks(given(...points), rule, 1000)).toEqual({ points: expected, used })
  })
  it('lies within 0 and the maximum, whatever the order it is given in', () => {
    const anyRule = fc.oneof(
      fc.constantFrom<CombineRule>(
        { by: 'mean', each: 400 },
        { by: 'sum', each: 400 },
        { by: 'latest', each: 400 },
      ),
      fc.integer({ min: 1, max: 5 }).map((k): CombineRule => ({ by: 'best', each: 400, k })),
      fc.integer({ min: 1, max: 5 }).map((need): CombineRule => ({ by: 'count', need })),
    )
    fc.assert(
      fc.property(
        anyRule,
        fc.array(fc.option(fc.integer({ min: 0, max: 400 })), { maxLength: 8 }),
        (rule, points) => {
          const marks = given(...points)
          const { points: total } = combineMarks(marks, rule, 1000)
          if (points.every(p => p === null)) expect(total).toBeNull()
          else {
            expect(total).toBeGreaterThanOrEqual(0)
            expect(total).toBeLessThanOrEqual(1000)
          }
          expect(combineMarks([...marks].reverse(), rule, 1000).points).toBe(total)
        },
      ),
    )
  })
  it('refuses points outside what one can get', () => {
    expect(() => combineMarks(given(401), { by: 'mean', each: 400 }, 1000)).toThrow(RangeError)
    expect(() => combineMarks(given(1), { by: 'count', need: 0 }, 1000)).toThrow(RangeError)
  })
})

describe('a typed number', () => {
  const levels = [
    { id: 'lo', points: 300, pointsFrom: 0 },
    { id: 'mid', points: 600, pointsFrom: 300 },
    { id: 'top', points: 800, pointsFrom: null },
  ]
  it.each([
    [0, 'lo'],
    [299, 'lo'],
    [300, 'mid'],
    [600, 'mid'],
    [700, null],
    [800, 'top'],
    [801, null],
  ])('%i hundredths is %s', (points, id) => {
    expect(levelFor(levels, points)?.id ?? null).toBe(id)
  })
})

describe('names hidden', () => {
  const people = [
    { givenName: 'Anna', familyName: 'Ann', alias: 'Student 1' },
    { givenName: 'Jo', familyName: 'Estrada-Holm', alias: 'Student 2' },
    { givenName: 'Émile', familyName: 'O’Dea', alias: 'Student 3' },
  ]
  it('takes whole words only, in quotes and greetings, longer names first', () => {
    expect(
      hideNames(
        'Dear Anna, “Anna Ann wrote” and ANNA’s annals; Annabel; Joanna. Jo Estrada-Holm agreed with Émile O’Dea.',
        people,
      ),
    ).toBe(
      'Dear Student 1, “Student 1 wrote” and Student 1’s annals; Annabel; Joanna. Student 2 agreed with Student 3.',
    )
  })
  it('leaves nothing of a longer name behind and nothing else changed', () => {
    const name = fc.string({ unit: fc.constantFrom(...'abcdeéß'), minLength: 3, maxLength: 6 })
    fc.assert(
      fc.property(
        name,
        name,
        fc.array(fc.constantFrom('the', 'quay', ',', 'toll'), { maxLength: 6 }),
        (givenName, familyName, words) => {
          const hidden = hideNames([...words, `${givenName} ${familyName}`, ...words].join(' '), [
            { givenName, familyName, alias: 'S1' },
          ])
          expect(hidden).toBe([...words, 'S1', ...words].join(' '))
        },
      ),
    )
  })
})

describe('phrases', () => {
  const phrase = (id: string, text: string, rest: Partial<Phrase> = {}): Phrase => ({
    id,
    text,
    criterion: null,
    uses: 0,
    lastUsedAt: null,
    ...rest,
  })
  const now = new Date('2026-10-14T10:00:00Z')
  it('fills what is known and leaves the rest to be filled', () => {
    expect(
      fillPhrase('{First name}, {criterion}: {points}. {other}', {
        'first name': 'Liv',
        criterion: 'Evidence',
      }),
    ).toBe('Liv, Evidence: {points}. {other}')
  })
  it('finds all words whatever their accents, those for the criterion and lately used first', () => {
    const list = [
      phrase('a', 'Name the ledger.'),
      phrase('b', 'Which ledger?', { criterion: 'Use of evidence' }),
      phrase('c', 'A ledger, béside it', { uses: 9, lastUsedAt: new Date('2026-05-01') }),
      phrase('d', 'The ledger again', { uses: 2, lastUsedAt: now }),
      phrase('e', 'no', { criterion: 'Other' }),
    ]
    expect(findPhrases(list, 'LEDGER', 'use of evidence', now).map(p => p.id)).toEqual(['b', 'd', 'c', 'a'])
    expect(findPhrases(list, 'ledger beside', null, now).map(p => p.id)).toEqual(['c'])
  })
})

describe('drift', () => {
  const record = (i: number, step: number, evidence: number[], markerId = 'm'): JudgedRecord => ({
    studentId: String(i),
    markerId,
    at: new Date(Date.UTC(2026, 0, 1, i)),
    step,
    evidence,
  })
  it('sets the earlier half beside the later one, once there are enough', () => {
    const rows = [3, 3, 3, 1, 1, 1].map((step, i) => record(i, step, [i]))
    expect(driftOf([...rows].reverse()).markers).toEqual([{ markerId: 'm', marks: 6, first: 3, last: 1 }])
    expect(driftOf(rows.slice(1)).markers).toEqual([])
  })
  it('says the same whatever order marks come in, also of marks of one instant', () => {
    const anyRecord = fc.tuple(
      fc.integer({ min: 0, max: 4 }),
      fc.integer({ min: 0, max: 3 }),
      fc.integer({ min: 0, max: 6 }),
      fc.integer({ min: 0, max: 6 }),
    )
    fc.assert(
      fc.property(
        fc.array(anyRecord, { minLength: 6, maxLength: 14 }).chain(list =>
          fc.tuple(
            fc.constant(list),
            fc.shuffledSubarray(
              list.map((_, i) => i),
              { minLength: list.length },
            ),
          ),
        ),
        ([list, order]) => {
          const rows = list.map(([step, hour, ...evidence], i): JudgedRecord => ({
            ...record(i, step, evidence, `m${i % 2}`),
            at: new Date(Date.UTC(2026, 0, 1, hour)),
          }))
          expect(driftOf(order.map(i => rows[i]!))).toEqual(driftOf(rows))
        },
      ),
    )
  })
  it('names alike work marked unlike, against all pairs tried one by one', () => {
    const anyRecord = fc.tuple(
      fc.integer({ min: 0, max: 4 }),
      fc.integer({ min: 0, max: 12 }),
      fc.integer({ min: 0, max: 12 }),
    )
    fc.assert(
      fc.property(fc.array(anyRecord, { maxLength: 14 }), list => {
        const rows = list.map(([step, ...evidence], i) => record(i, step, evidence))
        const sd = [0, 1].map(k => {
          const v = rows.map(r => r.evidence[k]!)
          const m = v.reduce((a, b) => a + b, 0) / v.length
          return Math.sqrt(v.reduce((s, x) => s + (x - m) ** 2, 0) / v.length)
        })
        const telling = [0, 1].filter(k => sd[k]! > 0)
        const expected = rows.flatMap((a, i) =>
          rows
            .slice(i + 1)
            .filter(
              b =>
                telling.length > 0 &&
                Math.abs(a.step - b.step) >= 2 &&
                Math.sqrt(
                  telling.reduce((s, k) => s + ((a.evidence[k]! - b.evidence[k]!) / sd[k]!) ** 2, 0) /
                    telling.length,
                ) <= 0.35,
            )
            .map(b => [a.studentId, b.studentId].sort().join()),
        )
        expect(
          driftOf(rows, 1000)
            .pairs.map(p => [p.a, p.b].sort().join())
            .sort(),
        ).toEqual(expected.sort())
      }),
    )
  })
})
