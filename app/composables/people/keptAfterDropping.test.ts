import { describe, expect, it } from 'vitest'
import { keptAfterDropping } from './keptAfterDropping'

describe('what remains of a category without its lowest marks', () => {
  it.each([
    [6, 5, 30, 'Six activities are marked in it: one alone makes 30 % of the final mark.'],
    [3, 20, 30, 'Three activities are marked in it: one alone makes 30 % of the final mark.'],
    [4, 2, 25, 'Four activities are marked in it: two remain, and each makes about 13 % of the final mark.'],
  ])('is said where it is little: %d activities without %d', (activities, drop, weight, words) => {
    expect(keptAfterDropping(activities, drop, weight)).toBe(words)
  })
  it.each([
    [6, 0],
    [6, 3],
    [0, 2],
    [1, 1],
  ])('is not said of %d activities without %d', (activities, drop) => {
    expect(keptAfterDropping(activities, drop, 30)).toBeNull()
  })
})
