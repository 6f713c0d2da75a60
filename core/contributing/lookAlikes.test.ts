import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../chance/seededRandom'
import { lookAlikes } from './lookAlikes'

const WORDS =
  'silt stone tide toll quay mole barge last roll clerk rope lead bar pilot net strand mark board wall hull'.split(
    ' ',
  )
const prose = (seed: number, n: number) => {
  const r = seededRandom(seed)
  return Array.from({ length: n }, () => WORDS[Math.floor(r() * WORDS.length)]).join(' ')
}
/** The slow obvious way: all pairs, all shingles. */
function slow(a: string, b: string): number {
  const of = (t: string) => {
    const w = t.split(' ')
    return new Set(w.slice(0, Math.max(0, w.length - 4)).map((_, i) => w.slice(i, i + 5).join(' ')))
  }
  const [x, y] = [of(a), of(b)]
  return x.size === 0 ? 0 : [...x].filter(s => y.has(s)).length / x.size
}

describe('texts that look alike', () => {
  const passage = 'the bar has walked some sixty yards to the west since the spring'
  it('are none among none, one, and texts shorter than a shingle', () => {
    expect(lookAlikes([], { least: 0.1 })).toEqual([])
    expect(lookAlikes([{ id: 'a', text: passage }], { least: 0.1 })).toEqual([])
    expect(
      lookAlikes(
        [
          { id: 'a', text: 'four words are few' },
          { id: 'b', text: 'four words are few' },
        ],
        { least: 0.1 },
      ),
    ).toEqual([])
  })
  it('are found through case, accents and punctuation, with the passage as each wrote it', () => {
    const [pair, ...others] = lookAlikes(
      [
        { id: 'a', text: `I grant that. ${passage}, says he.` },
        { id: 'b', text: prose(1, 40) },
        { id: 'c', text: `As we know, The Bár has walked — some sixty yards to the WEST since the spring!` },
      ],
      { least: 0.3 },
    )
    expect(others).toEqual([])
    expect(pair).toMatchObject({
      first: 'a',
      second: 'c',
      passages: [{ text: passage, inFirst: 14, inSecond: 12 }],
    })
    expect(pair!.ofSecond).toBeCloseTo(9 / 12, 10)
  })
  it('leave out what stands in an assigned reading', () => {
    expect(
      lookAlikes(
        [
          { id: 'a', text: passage },
          { id: 'b', text: passage },
        ],
        { least: 0.1, readings: [`Item: ${passage}.`] },
      ),
    ).toEqual([])
  })
  it('tell containment both ways: a short text inside a long one is all of the one and little of the other', () => {
    const [pair] = lookAlikes(
      [
        { id: 'long', text: `${prose(2, 90)} ${passage} ${prose(3, 90)}` },
        { id: 'short', text: `${passage} ${prose(4, 6)}` },
      ],
      { least: 0.2 },
    )
    expect(pair!.ofFirst).toBeLessThan(0.08)
    expect(pair!.ofSecond).toBeGreaterThan(0.5)
  })
  it('agree with the slow obvious count, and miss no pair that shares a third', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000 }),
        fc.integer({ min: 30, max: 80 }),
        fc.integer({ min: 20, max: 60 }),
        (seed, n, copied) => {
          const a = prose(seed, n)
          const b = `${a.split(' ').slice(0, copied).join(' ')} ${prose(seed + 50_000, 20)}`
          const [pair] = lookAlikes(
            [
              { id: 'a', text: a },
              { id: 'b', text: b },
              { id: 'c', text: prose(seed + 90_000, n) },
            ],
            { least: 0 },
          ).filter(p => p.first === 'a' && p.second === 'b')
          if (slow(a, b) > 0.34 && slow(b, a) > 0.34) expect(pair).toBeDefined()
          if (pair) {
            expect(pair.ofFirst).toBeCloseTo(slow(a, b), 10)
            expect(pair.ofSecond).toBeCloseTo(slow(b, a), 10)
            for (const p of pair.passages) expect(b.replace(/\s+/g, ' ')).toContain(p.text)
          }
        },
      ),
    )
  })
  it('refuses a share that is none', () => expect(() => lookAlikes([], { least: 2 })).toThrow(RangeError))
})
