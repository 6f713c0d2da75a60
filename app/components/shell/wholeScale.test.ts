import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wholeScale } from './wholeScale'

describe('a scale for what is counted', () => {
  it('has whole steps, few of them, and room for the largest figure', () => {
    expect([0, 1, 3, 5, 6, 24, 240, 1001].map(n => wholeScale(n))).toEqual([
      { max: 1, step: 1 },
      { max: 1, step: 1 },
      { max: 3, step: 1 },
      { max: 5, step: 1 },
      { max: 6, step: 2 },
      { max: 25, step: 5 },
      { max: 250, step: 50 },
      { max: 1500, step: 500 },
    ])
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1_000_000 }), most => {
        const { max, step } = wholeScale(most)
        expect([Number.isInteger(step), max % step, max >= most, max / step <= 5]).toEqual([
          true,
          0,
          true,
          true,
        ])
        expect(max - step).toBeLessThan(Math.max(1, most))
      }),
    )
  })
})
