import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tablesIn, type PlacedBlock } from './tablesIn'

interface Named extends PlacedBlock {
  readonly name: string
}
const plain = (name: string, join = 0): Named => ({ name, path: [], join })
const cell = (name: string, join: number, type = 'tableCell'): Named => ({
  name,
  path: ['table', 'tableRow', type],
  join,
})
const shapeOf = (blocks: readonly Named[]) =>
  tablesIn(blocks).map(part =>
    part.kind === 'block'
      ? part.block.name
      : part.rows.map(row => row.map(c => c.blocks.map(b => b.name).join(' '))),
  )

describe('blocks of a page', () => {
  it('stand in the rows and cells of their table, two tables apart, and what is no table by itself', () => {
    expect(
      shapeOf([
        plain('before'),
        cell('whom', 0, 'tableHeader'),
        cell('what', 2, 'tableHeader'),
        cell('the pilot', 1),
        cell('two', 2),
        cell('lines', 3),
        cell('another table', 0),
        plain('after'),
      ]),
    ).toEqual([
      'before',
      [
        ['whom', 'what'],
        ['the pilot', 'two lines'],
      ],
      [['another table']],
      'after',
    ])
  })

  it('know a heading cell, and keep a list within its cell', () => {
    const item: Named = {
      name: 'item',
      path: ['table', 'tableRow', 'tableCell', 'bulletList', 'listItem'],
      join: 3,
    }
    expect(tablesIn([cell('head', 0, 'tableHeader'), item])).toMatchObject([
      { rows: [[{ isHeader: true, blocks: [{ name: 'head' }, { name: 'item' }] }]] },
    ])
  })

  it('are all there, each once and in order, whatever stands around them', () => {
    const any = fc.array(
      fc.record({
        path: fc.constantFrom([], ['bulletList', 'listItem'], ['table', 'tableRow', 'tableCell'], ['table']),
        join: fc.integer({ min: 0, max: 4 }),
      }),
    )
    fc.assert(
      fc.property(any, blocks => {
        const parts = tablesIn(blocks)
        const flat = parts.flatMap(p =>
          p.kind === 'block' ? [p.block] : p.rows.flatMap(row => row.flatMap(c => c.blocks)),
        )
        expect(flat).toEqual(blocks)
      }),
    )
  })
})
