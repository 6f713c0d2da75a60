import fc from 'fast-check'
import { expect, it } from 'vitest'
import { makeGroups } from './makeGroups'
import { unkeptRules } from './watchRules'

it('says who meets and who is scattered, and nothing of those in no group', () => {
  const groups = [
    ['a', 'b', 'c'],
    ['d', 'e', 'f'],
  ]
  const rules = {
    together: [
      ['a', 'b'],
      ['a', 'd', 'x'],
    ],
    apart: [
      ['a', 'b', 'd', 'e'],
      ['c', 'f'],
      ['a', 'x'],
    ],
  }
  expect(unkeptRules(groups, rules)).toEqual([
    { kind: 'together', index: 1, ids: ['a', 'd'] },
    { kind: 'apart', index: 0, ids: ['a', 'b'] },
    { kind: 'apart', index: 0, ids: ['d', 'e'] },
  ])
})

it('finds nothing in groups that were made by the rules', () => {
  const set = fc.uniqueArray(fc.nat(11), { minLength: 2, maxLength: 3 }).map(ids => ids.map(i => `p${i}`))
  const rule = fc.record({
    together: fc.array(set, { maxLength: 2 }),
    apart: fc.array(set, { maxLength: 2 }),
    seed: fc.nat(1000),
  })
  fc.assert(
    fc.property(rule, ({ together, apart, seed }) => {
      const people = Array.from({ length: 12 }, (_, i) => ({ id: `p${i}`, sectionId: null }))
      const made = makeGroups(people, { by: 'number', count: 3, mixSections: false, together, apart, seed })
      if (made.kind === 'made') expect(unkeptRules(made.groups, { together, apart })).toEqual([])
    }),
  )
})
