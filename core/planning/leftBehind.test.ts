import { expect, it } from 'vitest'
import { leftBehind } from './leftBehind'

const plain = {
  audience: { kind: 'everyone' },
  jointSeminarIds: [],
  rests: [],
  review: { apartIn: null, sharesOf: null },
  categoryId: 'c',
  gradingScaleId: 's',
} as const

it('a copy leaves behind what is its seminar’s own, and a category or scale that is not there', () => {
  expect(leftBehind(plain)).toEqual([])
  expect(leftBehind(plain, { categoryId: 'd', gradingScaleId: 't' })).toEqual([])
  expect(leftBehind(plain, { categoryId: null, gradingScaleId: null })).toEqual(['category', 'scale'])
  expect(
    leftBehind(
      {
        ...plain,
        audience: { kind: 'groups' },
        jointSeminarIds: ['x'],
        rests: [3],
        review: { apartIn: 'p', sharesOf: 'a' },
        categoryId: null,
      },
      { categoryId: null, gradingScaleId: 't' },
    ),
  ).toEqual(['audience', 'joint', 'rests', 'apartIn', 'sharesOf'])
})
