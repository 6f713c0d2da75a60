import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numberOfGroups, sizesOf } from './groupSizes'
import { makeGroups, type Groupable, type GroupRules } from './makeGroups'

const people = (n: number, sections = 2): Groupable[] =>
  Array.from({ length: n }, (_, i) => ({ id: `p${i}`, sectionId: `s${i % sections}` }))
const rules = (some: Partial<GroupRules>): GroupRules => ({
  by: 'number',
  count: 4,
  together: [],
  apart: [],
  mixSections: true,
  seed: 1,
  ...some,
})
const made = (result: ReturnType<typeof makeGroups>) => {
  if (result.kind !== 'made') throw new Error(result.kind)
  return result.groups
}

/** Whether any way of grouping keeps the rules: every assignment tried, the slow and obvious way. */
function anyWay(n: number, sizes: number[], r: GroupRules): boolean {
  const room = [...sizes]
  const of = new Map<string, number>()
  const ok = () =>
    r.together.every(s => new Set(s.map(id => of.get(id)).filter(g => g !== undefined)).size <= 1) &&
    r.apart.every(s => {
      const g = s.map(id => of.get(id)).filter(x => x !== undefined)
      return new Set(g).size === g.length
    })
  const go = (i: number): boolean => {
    if (i === n) return true
    for (let g = 0; g < room.length; g++) {
      if (room[g] === 0) continue
      room[g]!--
      of.set(`p${i}`, g)
      if (ok() && go(i + 1)) return true
      room[g]!++
      of.delete(`p${i}`)
    }
    return false
  }
  return go(0)
}

describe('how many groups', () => {
  it.each([
    [23, 4, 6],
    [24, 5, 5],
    [9, 4, 2],
    [11, 4, 3],
    [3, 8, 1],
    [0, 4, 1],
  ])('%i people in groups of %i make %i', (n, size, groups) => {
    expect(numberOfGroups(n, 'size', size)).toBe(groups)
  })
  it.each([
    [23, 3, 4, 6], // five of four and one of three
    [24, 3, 5, 5],
    [5, 3, 4, 1], // one of five is nearer than three and two
    [7, 3, 4, 2],
    [2, 3, 4, 1],
  ])('%i people in groups of %i to %i make %i', (n, least, most, groups) => {
    expect(numberOfGroups(n, 'size', least, most)).toBe(groups)
  })
  it('is within the sizes asked for whenever that can be', () => {
    fc.assert(
      fc.property(fc.nat(60), fc.integer({ min: 1, max: 8 }), fc.nat(4), (n, least, more) => {
        const most = least + more
        const fits = (g: number) => sizesOf(n, g).every(size => size >= least && size <= most)
        const can = n > 0 && Array.from({ length: n }, (_, i) => i + 1).some(fits)
        if (can) expect(fits(numberOfGroups(n, 'size', least, most))).toBe(true)
      }),
    )
  })
  it('never makes more groups than there are people, and refuses none', () => {
    expect(numberOfGroups(3, 'number', 10)).toBe(3)
    expect(() => numberOfGroups(3, 'number', 0)).toThrow(RangeError)
  })
})

describe('groups', () => {
  it('places everyone once, in sizes that differ by one at most, with sections as even as can be', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 80 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer(),
        (n, count, sections, seed) => {
          const everyone = people(n, sections)
          const groups = made(makeGroups(everyone, rules({ count, seed })))
          expect(groups.flat().sort()).toEqual(everyone.map(p => p.id).sort())
          const sizes = groups.map(g => g.length)
          expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1)
          for (const s of new Set(everyone.map(p => p.sectionId))) {
            const of = groups.map(
              g => g.filter(id => everyone.find(p => p.id === id)!.sectionId === s).length,
            )
            expect(Math.max(...of) - Math.min(...of)).toBeLessThanOrEqual(1)
          }
        },
      ),
      { numRuns: 150, seed: 7 },
    )
  })

  it('is the same for the same seed, and another for another', () => {
    expect(makeGroups(people(24), rules({ seed: 3 }))).toEqual(makeGroups(people(24), rules({ seed: 3 })))
    expect(makeGroups(people(24), rules({ seed: 3 }))).not.toEqual(makeGroups(people(24), rules({ seed: 4 })))
  })

  it('keeps every rule where a way exists, and refuses exactly where none does', () => {
    let refused = 0
    const sets = (n: number) =>
      fc.array(
        fc.uniqueArray(
          fc.integer({ min: 0, max: n - 1 }).map(i => `p${i}`),
          { minLength: 2, maxLength: 3 },
        ),
        { maxLength: 3 },
      )
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 7 }).chain(n =>
          fc.record({
            n: fc.constant(n),
            count: fc.integer({ min: 1, max: 3 }),
            together: sets(n),
            apart: sets(n),
          }),
        ),
        ({ n, count, together, apart }) => {
          const r = rules({ count, together, apart, mixSections: true })
          const sizes = Array.from(
            { length: count },
            (_, i) => Math.floor(n / count) + (i < n % count ? 1 : 0),
          )
          const result = makeGroups(people(n), r)
          expect(result.kind === 'made').toBe(anyWay(n, sizes, r))
          if (result.kind === 'made') {
            const of = new Map(result.groups.flatMap((g, i) => g.map(id => [id, i] as const)))
            for (const set of together) expect(new Set(set.map(id => of.get(id))).size).toBe(1)
            for (const set of apart) expect(new Set(set.map(id => of.get(id))).size).toBe(set.length)
            expect(result.groups.map(g => g.length).sort()).toEqual([...sizes].sort())
          }
          if (result.kind === 'contradiction') {
            refused++
            const chosen = (names: typeof result.rules) => ({
              ...r,
              together: names.filter(x => x.kind === 'together').map(x => together[x.index]!),
              apart: names.filter(x => x.kind === 'apart').map(x => apart[x.index]!),
            })
            // what is named contradicts, and nothing smaller does
            expect(anyWay(n, sizes, chosen(result.rules))).toBe(false)
            const all = [
              ...together.map((_, index) => ({ kind: 'together' as const, index })),
              ...apart.map((_, index) => ({ kind: 'apart' as const, index })),
            ]
            for (let bits = 0; bits < 2 ** all.length; bits++) {
              const subset = all.filter((_, i) => bits & (1 << i))
              if (subset.length < result.rules.length) expect(anyWay(n, sizes, chosen(subset))).toBe(true)
            }
          }
        },
      ),
      { numRuns: 250, seed: 11 },
    )
    expect(refused).toBeGreaterThan(20)
  })

  it('names the two rules that contradict among many that do not', () => {
    const result = makeGroups(
      people(24),
      rules({
        count: 6,
        together: [
          ['p1', 'p2'],
          ['p3', 'p4', 'p5'],
        ],
        apart: [
          ['p9', 'p10'],
          ['p2', 'p11', 'p1'],
          ['p12', 'p13'],
        ],
      }),
    )
    expect(result).toEqual({
      kind: 'contradiction',
      rules: [
        { kind: 'together', index: 0 },
        { kind: 'apart', index: 1 },
      ],
    })
  })

  it('finds thirteen to keep apart too many for twelve groups at once', () => {
    expect(
      makeGroups(people(500), rules({ count: 12, apart: [Array.from({ length: 13 }, (_, i) => `p${i}`)] }))
        .kind,
    ).toBe('contradiction')
  })

  it('passes over people named in a rule who have left', () => {
    expect(made(makeGroups(people(8), rules({ count: 2, together: [['p1', 'gone']] }))).flat()).toHaveLength(
      8,
    )
  })
})
