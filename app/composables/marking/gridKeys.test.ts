import { describe, expect, it } from 'vitest'
import { gridKey } from './gridKeys'

const ORDER = [-1, 4, 0, 2] // as the reader has laid the columns out
const press = (key: string, row: number, column: number) => gridKey(key, { row, column }, ORDER, 40)

describe('keys in a grid', () => {
  it.each([
    ['ArrowRight', 3, -1, { row: 3, column: 4 }],
    ['ArrowRight', 3, 2, { row: 3, column: 2 }],
    ['ArrowLeft', 3, 0, { row: 3, column: 4 }],
    ['ArrowUp', 0, 0, { row: 0, column: 0 }],
    ['ArrowDown', 39, 0, { row: 39, column: 0 }],
    ['PageDown', 30, 0, { row: 39, column: 0 }],
    ['PageUp', 20, 0, { row: 5, column: 0 }],
    ['Home', 5, 2, { row: 5, column: -1 }],
    ['End', 5, -1, { row: 5, column: 2 }],
  ])('%s from row %d, column %d', (key, row, column, to) => {
    expect(press(key, row, column)).toEqual({ kind: 'go', to })
  })

  it('begins to change a cell, with the digit that was typed', () => {
    expect(press('7', 1, 0)).toEqual({ kind: 'edit', typed: '7' })
    expect(press('Enter', 1, 0)).toEqual({ kind: 'edit', typed: null })
    expect(press('x', 1, 0)).toBeNull()
  })
})
