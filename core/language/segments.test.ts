import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { segmentsOf, sentenceSegments, wordSegments } from './segments'

const plain = (granularity: 'word' | 'sentence', text: string) =>
  [...new Intl.Segmenter('en', { granularity }).segment(text)].map(s => [s.index, s.segment])
const told = (segments: Iterable<{ index: number; segment: string }>) =>
  [...segments].map(s => [s.index, s.segment])

const piece = fc.oneof(
  fc.constantFrom(
    'word ',
    'isn’t',
    '3.14',
    ', ',
    '. ',
    '\n',
    '\r\n',
    'é',
    'e\u0301',
    '👩‍👩‍👧',
    '🇳🇴',
    'Dr. ',
    '字',
    'ไทย',
    '\u00ad',
    '"',
  ),
  fc.string({ unit: 'grapheme', maxLength: 6 }),
)
const longText = fc
  .tuple(fc.array(piece, { minLength: 1, maxLength: 30 }), fc.integer({ min: 1, max: 120 }))
  .map(([pieces, times]) => pieces.join('').repeat(times))

describe('segments of a text', () => {
  it('are those of the whole text, wherever windows end', () => {
    fc.assert(
      fc.property(longText, text => {
        expect(told(wordSegments(text))).toEqual(plain('word', text))
      }),
      { numRuns: 300 },
    )
  })
  it('are whole sentences, too', () => {
    const text =
      'The mole was built in 1686. Its stone came by barge, and Mr. Aune paid for it! Who else would? '
    expect(told(sentenceSegments(text.repeat(80)))).toEqual(plain('sentence', text.repeat(80)))
  })
  it('may be longer than a window', () => {
    const text = `${'a'.repeat(5000)} ${'b'.repeat(3000)}`
    expect([...wordSegments(text)].map(s => s.segment.length)).toEqual([5000, 1, 3000])
  })
  it('never have the whole text looked at again for each', () => {
    let given = 0
    const counting = new Intl.Segmenter('en', { granularity: 'word' })
    const watched = {
      segment: (text: string) => {
        given += text.length
        return counting.segment(text)
      },
      resolvedOptions: () => counting.resolvedOptions(),
    }
    const text = 'to and fro '.repeat(20_000)
    expect([...segmentsOf(watched, text)]).toHaveLength(6 * 20_000)
    expect(given).toBeGreaterThanOrEqual(text.length)
    expect(given).toBeLessThanOrEqual(1.5 * text.length)
  })
})
