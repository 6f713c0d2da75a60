import { describe, expect, it } from 'vitest'
import { toldOf } from './reviewingMark'
import { reviewingSentence } from './reviewingWords'

describe('what one’s own reviewing came to', () => {
  it('is said with each part that can be told', () => {
    const parts = toldOf({ owed: 3, done: 3, onTime: 2, helpful: [4, 5, 4], distances: [0.1, 0.3] })
    expect(parts).toEqual({ owed: 3, done: 3, onTime: 2, helpful: 433, close: 8000 })
    expect(reviewingSentence({ share: 8640, percent: 20, parts })).toBe(
      '20 % of it is for your own reviewing, which came to 86 %: 3 of 3 reviews done, 2 of them in time, found helpful 4.3 of 5, close to the other readers 80 %.',
    )
  })
  it('leaves out what nothing is known of', () => {
    const parts = toldOf({ owed: 1, done: 1, onTime: 1, helpful: [], distances: [] })
    expect(reviewingSentence({ share: 10_000, percent: 10, parts })).toMatch(
      /: 1 of 1 review done, in time\.$/,
    )
    const none = toldOf({ owed: 2, done: 0, onTime: 0, helpful: [], distances: [] })
    expect(reviewingSentence({ share: 0, percent: 10, parts: none })).toMatch(/: 0 of 2 reviews done\.$/)
    expect(reviewingSentence({ share: 5000, percent: 10 })).toMatch(/came to 50 %\.$/)
  })
})
