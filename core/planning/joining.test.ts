import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mergeFields } from './mergeFields'

describe("joining two people's changes", () => {
  const value = fc.constantFrom<unknown>(1, 2, 'a', null, [1], { x: 1 }, { x: 1, y: 2 })
  const record = fc.record({ a: value, b: value, c: value })
  it('loses nothing: every field is one of the two sides, and where they differ from the base and from each other it is named', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const { merged, clashes, taken } = mergeFields(base, mine, theirs)
        for (const field of ['a', 'b', 'c'] as const) {
          const [b, m, t, got] = [base, mine, theirs, merged].map(r => JSON.stringify(r[field]))
          if (m === b) expect(got).toBe(t)
          else expect(got).toBe(m)
          expect(clashes.includes(field)).toBe(m !== b && t !== b && m !== t)
          expect(taken.includes(field)).toBe(m === b && t !== b)
        }
      }),
      { numRuns: 300, seed: 4 },
    )
  })
  it('is the same whoever saves first, where nobody clashes', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const one = mergeFields(base, mine, theirs)
        if (one.clashes.length === 0) expect(one.merged).toEqual(mergeFields(base, theirs, mine).merged)
      }),
      { numRuns: 300, seed: 5 },
    )
  })
})
