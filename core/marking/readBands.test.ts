import { expect, it } from 'vitest'
import { readBands } from './readBands'

it.each([
  [
    'A 90, B 80, F 0',
    [
      ['A', 90],
      ['B', 80],
      ['F', 0],
    ],
  ],
  [
    'very good 87.5 %; good 60%;not yet 0',
    [
      ['very good', 87.5],
      ['good', 60],
      ['not yet', 0],
    ],
  ],
  [
    'A 87,5, B 50, C 0,',
    [
      ['A', 87.5],
      ['B', 50],
      ['C', 0],
    ],
  ],
] as const)('reads %j', (text, bands) => {
  const read = readBands(text)
  expect(read.kind === 'read' && read.bands.map(b => [b.letter, b.fromPercent])).toEqual(bands)
})

it.each([
  ['A 90, B 8O, F 0', { code: 'notABand', part: 'B 8O' }],
  ['A 190, F 0', { code: 'overHundred', part: 'A 190' }],
  ['A 90, A 80, F 0', { code: 'twice', part: 'A 80' }],
  ['A 80, B 90, F 0', { code: 'notDescending', part: 'B 90' }],
  ['A 90', { code: 'tooFew' }],
  ['', { code: 'tooFew' }],
  ['A 90, B 10', { code: 'noZero' }],
] as const)('says why %j cannot be taken', (text, because) => {
  expect(readBands(text)).toEqual({ kind: 'refused', because })
})
