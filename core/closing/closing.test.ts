import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fits, keptAnswers, putIn, type ClosingAnswers, type ClosingQuestion, type Urns } from './questions'
import { resultOf } from './results'
import { wordList } from './wordList'

const scale: ClosingQuestion = {
  id: 's',
  kind: 'scale',
  text: 'How much?',
  steps: 5,
  low: 'little',
  high: 'much',
}
const choice: ClosingQuestion = {
  id: 'c',
  kind: 'choice',
  text: 'Which?',
  options: ['a', 'b', 'c'],
  several: true,
}
const open: ClosingQuestion = { id: 'o', kind: 'open', text: 'What?' }
const questions = [scale, choice, open]
const answers = fc.record(
  {
    s: fc.integer({ min: 1, max: 5 }),
    c: fc.uniqueArray(fc.integer({ min: 0, max: 2 }), { minLength: 1 }),
    o: fc.string({ minLength: 1 }).filter(t => t.trim() !== ''),
  },
  { requiredKeys: [] },
)

describe('closing questions', () => {
  it('keep what answers them and nothing else', () => {
    expect(keptAnswers(questions, { s: 6, c: [3], o: '  ', x: 'elsewhere' })).toEqual({})
    expect(keptAnswers(questions, { s: 5, c: [2, 0, 2], o: ' Yes. ' })).toEqual({
      s: 5,
      c: [0, 2],
      o: 'Yes.',
    })
    expect([
      fits(scale, 2.5),
      fits(scale, '3'),
      fits({ ...choice, several: false }, [0, 1]),
      fits(choice, []),
      fits(open, undefined),
    ]).toEqual([null, null, null, null, null])
  })
  it('keep nothing of who came when: the same answers leave the same urns in whatever order they came', () => {
    fc.assert(
      fc.property(
        fc.array(answers, { maxLength: 12 }).chain(list =>
          fc.tuple(
            fc.constant(list),
            fc.shuffledSubarray(
              list.map((_, i) => i),
              { minLength: list.length },
            ),
          ),
        ),
        ([list, order]) => {
          const fill = (all: readonly ClosingAnswers[]): Urns =>
            all.reduce((urns: Urns, a) => putIn(urns, keptAnswers(questions, a)), {})
          expect(JSON.stringify(fill(order.map(i => list[i]!)))).toBe(JSON.stringify(fill(list)))
        },
      ),
    )
  })
  it('do not hang together: exchanging two people’s answers to one question leaves the same urns', () => {
    const of = (list: readonly ClosingAnswers[]) => list.reduce((urns: Urns, a) => putIn(urns, a), {})
    expect(
      of([
        { s: 1, o: 'mine' },
        { s: 5, o: 'yours' },
      ]),
    ).toEqual(
      of([
        { s: 5, o: 'mine' },
        { s: 1, o: 'yours' },
      ]),
    )
  })
  it('are summed up as a recount finds', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1 }), steps => {
        const r = resultOf(scale, steps)
        if (r.kind !== 'scale') throw new Error('a scale')
        const sorted = [...steps].sort((a, b) => a - b)
        expect(r.counts.reduce((a, b) => a + b, 0)).toBe(steps.length)
        expect(r.mean).toBeCloseTo(r.counts.reduce((sum, n, i) => sum + n * (i + 1), 0) / steps.length, 12)
        expect(sorted.filter(s => s <= r.median!).length * 2).toBeGreaterThanOrEqual(steps.length)
        expect(sorted.filter(s => s >= r.median!).length * 2).toBeGreaterThanOrEqual(steps.length)
      }),
    )
    expect(resultOf(scale, [])).toEqual({
      kind: 'scale',
      answered: 0,
      counts: [0, 0, 0, 0, 0],
      mean: null,
      median: null,
    })
    expect(resultOf(choice, [[0, 1], [1]])).toEqual({ kind: 'choice', answered: 2, counts: [1, 2, 0] })
  })
  it('count a word once for each answer, leave out what carries no meaning, and put plurals with their singular', () => {
    expect(
      wordList([
        'Harbours and the harbour, harbour!',
        'More harbours, weekly reading',
        'The reading was for everyone’s tides',
      ]),
    ).toEqual([
      { word: 'harbour', answers: 2 },
      { word: 'reading', answers: 2 },
      ...['everyone', 'tides', 'weekly'].map(word => ({ word, answers: 1 })),
    ])
    expect(wordList(['it was the and of'])).toEqual([])
  })
})
