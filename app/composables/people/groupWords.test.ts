import { expect, it } from 'vitest'
import { movedWords, unkeptWords } from './groupWords'

const work = [{ activity: 'City pages', contributions: 2 }]

it('a move says what becomes of what was written', () => {
  expect(movedWords({ name: 'Liv', to: 'Quay' }, [])).toBe('Liv is in Quay now.')
  expect(movedWords({ name: 'Liv', to: 'Quay' }, work)).toBe(
    'Liv is in Quay now. Two contributions in “City pages” stay theirs, where they are; from now on they work with the new group.',
  )
  expect(movedWords({ name: 'Liv', to: null }, [{ activity: 'City pages', contributions: 1 }])).toBe(
    'Liv is in no group now. One contribution in “City pages” stays theirs, where it is; they take no part in it until they are in a group again.',
  )
})

it('a rule that is not kept says who it is about', () => {
  const nameOf = (id: string) => id.toUpperCase()
  expect(unkeptWords({ kind: 'apart', index: 0, ids: ['a', 'b', 'c'] }, nameOf)).toBe(
    'A, B and C are to be kept apart, and are in one group.',
  )
  expect(unkeptWords({ kind: 'together', index: 0, ids: ['a', 'b'] }, nameOf)).toBe(
    'A and B are to be kept together, and are in different groups.',
  )
})
