import { expect, it } from 'vitest'
import { suggestTimelinessStep } from './suggestStep'

it.each([
  [[0, 200, 300], { minutes: 0, startedDays: 0 }, 2],
  [[0, 200, 300], { minutes: 540, startedDays: 1 }, 1],
  [[0, 200, 300], { minutes: 4000, startedDays: 3 }, 0],
  [[0, 200, 300], null, 0],
  [[300], { minutes: 90, startedDays: 1 }, 0],
])('of %j with %j suggests step %i', (levels, lateness, step) => {
  expect(suggestTimelinessStep(levels, lateness)).toBe(step)
})
it('needs a step to suggest', () => {
  expect(() => suggestTimelinessStep([], null)).toThrow(RangeError)
})
