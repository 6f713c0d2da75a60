import { describe, expect, it } from 'vitest'
import { gradeCell, type CellSnapshot, type StoredGrade } from './gradeCell'

const cell = (stored: Partial<StoredGrade> | undefined, some: Partial<CellSnapshot> = {}) =>
  gradeCell({
    reader: 'staff',
    max: 1000,
    isMeant: true,
    hasWork: true,
    countHeld: false,
    stored: stored && { state: 'open', points: null, returned: null, ...stored },
    ...some,
  })

describe('a cell of the gradebook', () => {
  it('shows nothing of an activity that is not the student’s', () => {
    expect(cell({ state: 'held', points: 700 }, { isMeant: false })).toEqual({
      state: 'notMeant',
      points: null,
      counting: null,
      change: null,
    })
  })
  it('shows staff a held mark, and counts it only where held marks count; a student sees work', () => {
    const held = { state: 'held', points: 700 } as const
    expect(cell(held)).toEqual({ state: 'held', points: 700, counting: null, change: null })
    expect(cell(held, { countHeld: true })).toEqual({
      state: 'held',
      points: 700,
      counting: 700,
      change: null,
    })
    expect(cell(held, { reader: 'student', countHeld: true })).toEqual({
      state: 'work',
      points: null,
      counting: null,
      change: null,
    })
  })
  it('keeps what was returned, in proportion to what the activity is worth now', () => {
    const back = { state: 'returned', points: 400, returned: { points: 400, max: 500 } } as const
    expect(cell(back)).toEqual({ state: 'returned', points: 800, counting: 800, change: null })
    expect(cell(back, { reader: 'student' })).toEqual({
      state: 'returned',
      points: 800,
      counting: 800,
      change: null,
    })
    expect(cell({ ...back, returned: { points: 3, max: 0 } })).toMatchObject({ points: 3 })
  })
  it('counts a returned mark that is being changed as it was returned, and shows staff what it would be', () => {
    const changing = { state: 'held', points: 900, returned: { points: 700, max: 1000 } } as const
    for (const countHeld of [false, true])
      expect(cell(changing, { countHeld })).toEqual({
        state: 'returned',
        points: 700,
        counting: 700,
        change: { points: 900 },
      })
    expect(cell({ ...changing, state: 'open', points: null })).toMatchObject({
      points: 700,
      change: { points: null },
    })
    expect(cell(changing, { reader: 'student' })).toMatchObject({ points: 700, change: null })
  })
  it('never shows more than an activity is worth', () => {
    expect(cell({ points: 1400 })).toMatchObject({ state: 'open', points: 1000, counting: null })
  })
  it('tells work from nothing where there is no figure', () => {
    expect(cell(undefined).state).toBe('work')
    expect(cell({ state: 'open' }, { hasWork: false }).state).toBe('nothing')
  })
})
