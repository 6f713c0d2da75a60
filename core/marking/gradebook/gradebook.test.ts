import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dropLowest } from './dropLowest'
import {
  gradeOf,
  gradeLetterOf,
  percentOf,
  type WeightedCategory,
  type GradeEntry,
  type GradeItem,
} from './gradebook'
import { neededFor, whatIf } from './needed'

const scored = fc
  .integer({ min: 1, max: 3000 })
  .chain(max => fc.record({ max: fc.constant(max), points: fc.integer({ min: 0, max }) }))

/** Every way of leaving out n of the items, tried one by one. */
function bestRatio(items: ReadonlyArray<{ points: number; max: number }>, n: number): number {
  const out = Math.max(0, Math.min(n, items.length - 1))
  let best = -1
  for (let mask = 0; mask < 1 << items.length; mask++) {
    const kept = items.filter((_, i) => !((mask >> i) & 1))
    if (kept.length !== items.length - out) continue
    best = Math.max(best, kept.reduce((s, i) => s + i.points, 0) / kept.reduce((s, i) => s + i.max, 0))
  }
  return best
}

describe('dropping the lowest', () => {
  it('is exact, also when maxima differ: as good as the best of all ways', () => {
    fc.assert(
      fc.property(
        fc.array(scored, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 0, max: 10 }),
        (items, drop) => {
          const out = new Set(dropLowest(items, drop))
          const kept = items.filter((_, i) => !out.has(i))
          expect(kept.length).toBe(items.length - Math.max(0, Math.min(drop, items.length - 1)))
          expect(kept.reduce((s, i) => s + i.points, 0) / kept.reduce((s, i) => s + i.max, 0)).toBeCloseTo(
            bestRatio(items, drop),
            12,
          )
        },
      ),
      { numRuns: 400 },
    )
  })
  it('does not simply take the lowest share', () => {
    // shares 0.80, 0.70, 0.26, 0.24: without the lowest share it is 184/260; without the long paper it is better
    const items = [
      { points: 80, max: 100 },
      { points: 42, max: 60 },
      { points: 26, max: 100 },
      { points: 2, max: 8 },
    ]
    expect(dropLowest(items, 1)).toEqual([2])
  })
  it('keeps one item, and refuses a number that is none', () => {
    expect(dropLowest([{ points: 1, max: 2 }], 5)).toEqual([])
    expect(() => dropLowest([], -1)).toThrow(RangeError)
    expect(() => dropLowest([], 0.5)).toThrow(RangeError)
  })
})

const entry = (points: number | null, rest: Partial<GradeEntry> = {}): GradeEntry => ({
  points,
  excused: false,
  closed: true,
  any: points !== null,
  ...rest,
})
const item = (id: string, categoryId: string | null, max = 1000, practice = false): GradeItem => ({
  id,
  categoryId,
  max,
  practice,
})
const TALK: WeightedCategory = { id: 'talk', weight: 30, drop: 0 }
const WIKI: WeightedCategory = { id: 'wiki', weight: 70, drop: 0 }
const strict = { missingIsZero: true }

describe('a grade', () => {
  it('weighs the categories that have anything, weights renormalised', () => {
    const items = [item('a', 'talk'), item('b', 'talk', 500), item('w', 'wiki')]
    const both = gradeOf(
      items,
      new Map([
        ['a', entry(800)],
        ['b', entry(400)],
        ['w', entry(500)],
      ]),
      [TALK, WIKI],
      strict,
    )
    expect(both.share).toBeCloseTo((0.3 * 1200) / 1500 + 0.7 * 0.5, 12)
    const one = gradeOf(items, new Map([['a', entry(800)]]), [TALK, WIKI], { missingIsZero: false })
    expect(one).toMatchObject({ share: 0.8, weightCounted: 30 })
  })
  it('holds nothing against somebody that closed before they joined, unless points were given', () => {
    const items = [item('a', 'talk'), item('b', 'talk'), item('c', 'talk')]
    const before = { joinedLater: true }
    const grade = gradeOf(
      items,
      new Map([
        ['a', entry(800)],
        ['b', entry(null, before)],
        ['c', entry(0, before)],
      ]),
      [TALK],
      strict,
    )
    expect(grade.categories[0]!.parts.map(p => p.counted)).toEqual(['counted', 'joinedLater', 'counted'])
    expect(grade.share).toBe(0.4)
  })
  it('says of a missing mark that is dropped that it is missing', () => {
    const entries = new Map([
      ['a', entry(800)],
      ['b', entry(null)],
      ['c', entry(600)],
    ])
    const items = [item('a', 'talk'), item('b', 'talk'), item('c', 'talk')]
    const parts = (drop: number) =>
      gradeOf(items, entries, [{ ...TALK, drop }], strict).categories[0]!.parts.map(p => p.counted)
    expect(parts(1)).toEqual(['counted', 'droppedMissing', 'counted'])
    expect(parts(2)).toEqual(['counted', 'droppedMissing', 'dropped'])
  })
  it('counts what is missing at its close as zero only if the seminar says so, and never what is merely not marked', () => {
    const items = [item('a', 'talk'), item('b', 'talk'), item('c', 'talk'), item('d', 'talk')]
    const entries = new Map([
      ['a', entry(1000)],
      ['b', entry(null)],
      ['c', entry(null, { any: true })],
      ['d', entry(null, { closed: false })],
    ])
    expect(gradeOf(items, entries, [TALK], strict)).toMatchObject({ share: 0.5 })
    expect(gradeOf(items, entries, [TALK], strict).categories[0]!.parts.map(p => p.counted)).toEqual([
      'counted',
      'missing',
      'notYet',
      'notYet',
    ])
    expect(gradeOf(items, entries, [TALK], { missingIsZero: false }).share).toBe(1)
  })
  it('leaves out practice, excused work, what is worth nothing and what is in no category, and says so', () => {
    const items = [
      item('p', 'talk', 1000, true),
      item('x', 'talk'),
      item('z', 'talk', 0),
      item('n', null),
      item('gone', 'removed'),
      item('a', 'talk'),
    ]
    const grade = gradeOf(
      items,
      new Map([
        ['p', entry(0)],
        ['x', entry(0, { excused: true })],
        ['z', entry(0)],
        ['n', entry(0)],
        ['gone', entry(0)],
        ['a', entry(700)],
      ]),
      [TALK],
      strict,
    )
    expect(grade.share).toBe(0.7)
    expect(grade.categories[0]!.parts.map(p => p.counted)).toEqual([
      'practice',
      'excused',
      'worthNothing',
      'counted',
    ])
    expect(grade.outside.map(p => p.counted)).toEqual(['noCategory', 'noCategory'])
  })
  it('has no figure where nothing counts: an empty category, everything excused, no categories', () => {
    expect(gradeOf([], new Map(), [TALK], strict).share).toBeNull()
    expect(
      gradeOf([item('a', 'talk')], new Map([['a', entry(5, { excused: true })]]), [TALK, WIKI], strict),
    ).toMatchObject({ share: null, weightCounted: 0 })
    expect(gradeOf([item('a', 'talk')], new Map([['a', entry(5)]]), [], strict).share).toBeNull()
  })
  it('counts by points where nothing has a weight', () => {
    expect(
      gradeOf(
        [item('a', 'talk'), item('w', 'wiki', 3000)],
        new Map([
          ['a', entry(1000)],
          ['w', entry(0)],
        ]),
        [
          { ...TALK, weight: 0 },
          { ...WIKI, weight: 0 },
        ],
        strict,
      ).share,
    ).toBe(0.25)
  })
  it('refuses points outside what there is to get', () => {
    for (const points of [-1, 1001, Number.NaN])
      expect(() => gradeOf([item('a', 'talk')], new Map([['a', entry(points)]]), [TALK], strict)).toThrow(
        RangeError,
      )
    expect(() => gradeOf([], new Map(), [{ ...TALK, weight: -1 }], strict)).toThrow(RangeError)
  })
  it('shows per cent half up and reads the letter off what is shown', () => {
    const bands = [
      { letter: 'A', fromPercent: 93 },
      { letter: 'B', fromPercent: 80 },
      { letter: 'F', fromPercent: 0 },
    ]
    expect([0.93, 0.9295, 0.92949, 0.29, 1].map(percentOf)).toEqual([93, 93, 92.9, 29, 100])
    expect([0.9296, 0.92949, 0].map(s => gradeLetterOf(s, bands))).toEqual(['A', 'B', 'F'])
    expect(gradeLetterOf(0.5, [])).toBeNull()
  })
})

const seminar = fc
  .record({
    drops: fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 2 })),
    weights: fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 60 })),
    items: fc.array(
      fc.record({
        first: fc.boolean(),
        max: fc.integer({ min: 1, max: 30 }).map(n => n * 100),
        share: fc.option(fc.double({ min: 0, max: 1, noNaN: true })),
      }),
      { minLength: 1, maxLength: 12 },
    ),
  })
  .map(({ drops, weights, items }) => ({
    categories: [
      { id: 'talk', weight: weights[0], drop: drops[0] },
      { id: 'wiki', weight: weights[1], drop: drops[1] },
    ],
    items: items.map((i, n) => item(String(n), i.first ? 'talk' : 'wiki', i.max)),
    entries: new Map(
      items.map((i, n) => [
        String(n),
        entry(i.share === null ? null : Math.round(i.share * i.max), { closed: false }),
      ]),
    ),
  }))

describe('what is still needed', () => {
  it('meets the target exactly, or says that it is reached already or out of reach', () => {
    fc.assert(
      fc.property(
        seminar,
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        ({ items, entries, categories }, target) => {
          const all = (share: number) =>
            whatIf(
              new Map(items.filter(i => entries.get(i.id)!.points === null).map(i => [i.id, share * i.max])),
              items,
              entries,
              categories,
              strict,
            ).share!
          const needed = neededFor(target, items, entries, categories, strict, 50)
          switch (needed.kind) {
            case 'nothingOpen':
              expect([...entries.values()].every(e => e.points !== null)).toBe(true)
              break
            case 'already':
              expect(all(0)).toBeGreaterThanOrEqual(target - 1e-9)
              break
            case 'outOfReach':
              expect(all(1)).toBeLessThan(target)
              expect(needed.most).toBeCloseTo(all(1), 12)
              break
            case 'needed':
              expect(all(needed.share)).toBeCloseTo(target, 9)
              if (needed.share > 1e-6) expect(all(needed.share - 1e-6)).toBeLessThan(target)
              // the points said, rounded up, are enough
              expect(
                whatIf(
                  new Map(needed.items.map(i => [i.itemId, i.points])),
                  items,
                  entries,
                  categories,
                  strict,
                ).share!,
              ).toBeGreaterThanOrEqual(target - 1e-7)
          }
        },
      ),
      { numRuns: 300 },
    )
  })
  it('changes only what is tried', () => {
    const items = [item('a', 'talk'), item('b', 'talk')]
    const entries = new Map([['a', entry(500)]])
    expect(whatIf(new Map([['b', 1000]]), items, entries, [TALK], strict).share).toBe(0.75)
    expect(gradeOf(items, entries, [TALK], strict).share).toBe(0.5)
    expect(whatIf(new Map([['a', null]]), items, entries, [TALK], strict).share).toBeNull()
  })
})
