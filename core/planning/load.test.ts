import { expect, it } from 'vitest'
import { expectedLoad, minutesToGo } from './load'

const opening = { kind: 'entries', need: 1, minWords: 240, due: 'write' } as const
const replies = { kind: 'replies', need: 3, minWords: 60, due: 'respond' } as const

it('reckons writing, reading and marking from the words asked for', () => {
  const load = expectedLoad([opening, replies], 23, true)
  expect(load.writing).toBe(35) // 420 words at 12 a minute
  expect(load.reading).toBe(24) // 22 entries of 240 words at 220 a minute
  expect(load.marking).toBeCloseTo(23 * (3 + 420 / 220))
})
it('asks nobody to read a journal', () => {
  expect(expectedLoad([opening], 23, false).reading).toBe(0)
  expect(expectedLoad([opening], 0, true)).toMatchObject({ reading: 0, marking: 0 })
})
it('says how long what is missing takes', () => {
  expect(minutesToGo(replies, 2)).toBe(10)
  expect(minutesToGo({ kind: 'activeDays', need: 2, due: 'respond' }, 1)).toBe(0)
})
