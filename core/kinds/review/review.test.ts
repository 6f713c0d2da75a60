import fc from 'fast-check'
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

/** Every needle of everyone, looked for at every place of the text. */
function oneByOne(text: string, people: readonly KnownPerson[], ownId: string) {
  const bare = (words: string) => [...words].map(c => c.normalize('NFD')[0]!.toLowerCase()).join('')
  const isWord = (c: string | undefined) => c !== undefined && /[\p{L}\p{N}_]/u.test(c)
  const folded = bare(text)
  const hits = people.flatMap(p =>
    [
      { words: p.email, kind: 'email', capital: false },
      { words: p.studentNumber!, kind: 'number', capital: false },
      { words: `${p.givenName} ${p.familyName}`, kind: 'name', capital: false },
      { words: p.familyName, kind: 'name', capital: true },
      { words: p.givenName, kind: 'name', capital: true },
    ].flatMap(({ words, kind, capital }) =>
      [...folded].flatMap((_, start) => {
        const exact = text.slice(start, start + words.length)
        if (words.length < 3 || bare(exact) !== bare(words)) return []
        if (isWord(folded[start - 1]) || isWord(folded[start + words.length])) return []
        if (capital && exact[0] !== exact[0]!.toUpperCase()) return []
        return [{ exact, start, kind, isOwn: p.id === ownId }]
      }),
    ),
  )
  hits.sort(
    (a, b) => a.start - b.start || b.exact.length - a.exact.length || Number(b.isOwn) - Number(a.isOwn),
  )
  const kept: typeof hits = []
  for (const hit of hits) if (kept.every(k => k.start + k.exact.length <= hit.start)) kept.push(hit)
  return kept
}

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
  it('keeps places where letters change their length, and syllables apart that begin alike', () => {
    const text = 'İİ 𝒜 Solongo ﬁ René'
    for (const f of findNames(text, PEOPLE, 'liv'))
      expect(text.slice(f.start, f.start + f.exact.length)).toBe(f.exact)
    expect(findNames(text, PEOPLE, 'liv').map(f => f.exact)).toEqual(['Solongo', 'René'])
    const minsu = person('minsu', '김민수', '박')
    expect(findNames('김민수 왔다', [minsu], 'liv').map(f => f.exact)).toEqual(['김민수'])
    expect(findNames('감미실 왔다', [minsu], 'liv')).toEqual([])
  })
  it('finds what looking for one person after another finds', () => {
    const names = ['Ana', 'ana-Lu', 'Lu', 'Ånå', 'Ana Lu', 'O’Ana', 'annA', 'Lu_', '’t Lu']
    const words = fc.constantFrom(...names, 'and', 'banana', '-', '.', '_', 'N4172', 'é')
    const texts = fc.array(fc.tuple(words, fc.constantFrom(' ', '', '-', '\n', '’s ')), { maxLength: 14 })
    const people = fc.array(fc.tuple(fc.constantFrom(...names), fc.constantFrom(...names)), { maxLength: 5 })
    fc.assert(
      fc.property(texts, people, (parts, called) => {
        const text = parts.flat().join('')
        const all = called.map(([given, family], i) => person(`p${i}`, given, family))
        expect(findNames(text, all, 'p0')).toEqual(oneByOne(text, all, 'p0'))
      }),
    )
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
