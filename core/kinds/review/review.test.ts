import { describe, expect, it } from 'vitest'
import { findNames, type KnownPerson } from './findNames'
import { reviewReach, type ReviewSnapshot } from './reviewReach'

const person = (id: string, givenName: string, familyName: string): KnownPerson => ({
  id,
  givenName,
  familyName,
  email: `${id}@northmere.example`,
  studentNumber: `N41${id.length}2`,
})
const PEOPLE = [
  person('solongo', 'Solongo', 'Gantulga'),
  person('mireille', 'Mireille', 'Estrada-Holm'),
  person('liv', 'Liv', 'Brandt'),
  person('rene', 'René', 'Ó'),
]

describe('names inside a text', () => {
  it('finds names, addresses and numbers, the longest once, and says whose are the writer’s own', () => {
    const text =
      'Report by Solongo Gantulga (N4172), solongo@northmere.example. Thanks to mireille and to Estrada-Holm; rene helped, Rene too.'
    expect(findNames(text, PEOPLE, 'solongo').map(f => [f.exact, f.kind, f.isOwn])).toEqual([
      ['Solongo Gantulga', 'name', true],
      ['N4172', 'number', true],
      ['solongo@northmere.example', 'email', true],
      ['Estrada-Holm', 'name', false],
      ['Rene', 'name', false],
    ])
    for (const f of findNames(text, PEOPLE, 'liv'))
      expect(text.slice(f.start, f.start + f.exact.length)).toBe(f.exact)
  })
  it('leaves words alone that only begin like a name, and texts without any', () => {
    expect(
      findNames('Living by the quay, he would live and be brandished. A silver tide.', PEOPLE, 'liv'),
    ).toEqual([])
    expect(findNames('', PEOPLE, 'liv')).toEqual([])
    expect(findNames('Liv’s plan', PEOPLE, 'solongo').map(f => f.exact)).toEqual(['Liv'])
  })
})

describe('what of a review reaches whom', () => {
  const all: ReviewSnapshot[] = []
  for (const role of ['staff', 'student', 'observer'] as const)
    for (const state of ['owed', 'begun', 'in'] as const)
      for (let bits = 0; bits < 64; bits++) {
        const bit = (i: number) => ((bits >> i) & 1) === 1
        all.push({
          role,
          state,
          isReviewer: bit(0),
          isSubject: bit(1),
          released: bit(2),
          setAside: bit(3),
          isPractice: bit(4),
          isSelf: bit(5),
        })
      }
  it('is a table: received only when in, released, kept, real, and of one’s own work', () => {
    for (const s of all) {
      const findExpected = () => {
        if (s.role === 'staff') return 'everything'
        if (s.isReviewer) return 'given'
        if (s.isSubject && s.state === 'in' && s.released && !s.setAside && !s.isPractice && !s.isSelf)
          return 'received'
        return 'nothing'
      }
      const expected = findExpected()
      expect(reviewReach(s)).toBe(expected)
    }
  })
})
