import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { outcomesFromCase, rubricsFromCase, rubricToCase } from './caseJson'
import { outcomesFromCsv, rubricFromCsv, rubricToCsv } from './rubricCsv'
import { pointsOf, rubricFaults, type RubricDraft } from './rubricDraft'

const level = (points: number, some = {}) => ({
  title: `L${points}`,
  points,
  pointsFrom: null,
  descriptor: '',
  ...some,
})
const criterion = (some = {}) => ({
  title: 'Evidence',
  scope: 'own' as const,
  weight: 1,
  suggestFrom: null,
  outcomes: [],
  levels: [level(200), level(400)],
  ...some,
})

const words = fc
  .array(
    fc.constantFrom(
      'quotes',
      'builds',
      'names',
      'a "toll", paid',
      'ström',
      '=SUM(A1)',
      '-2 steps',
      'two\nlines',
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map(w => w.join(' '))
const anyRubric: fc.Arbitrary<RubricDraft> = fc.record({
  title: words,
  criteria: fc.array(
    fc.record({
      title: words,
      scope: fc.constantFrom('own' as const, 'group' as const),
      weight: fc.integer({ min: 1, max: 9 }),
      suggestFrom: fc.constantFrom(null, 'timeliness' as const),
      outcomes: fc.subarray(['hc-1', 'sea 2', '-3']),
      levels: fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 6 }).chain(tops =>
        fc.tuple(
          ...[...tops]
            .sort((a, b) => a - b)
            .map((top, i, all) =>
              fc.record({
                title: words,
                points: fc.constant(top * 50),
                pointsFrom: fc
                  .boolean()
                  .map(range => (range && top > (all[i - 1] ?? 0) + 1 ? top * 50 - 25 : null)),
                descriptor: fc.oneof(words, fc.constant('')),
              }),
            ),
        ),
      ),
    }),
    { minLength: 1, maxLength: 6 },
  ),
})
const known = ['hc-1', 'sea 2', '-3'].map(identifier => ({ identifier, code: '', statement: 'Weighs.' }))
let n = 0
const nextId = () => `00000000-0000-7000-8000-${String(n++).padStart(12, '0')}`

describe('a rubric', () => {
  it('says what keeps it from being used', () => {
    expect(rubricFaults({ title: ' ', criteria: [] })).toEqual([{ code: 'noTitle' }, { code: 'noCriteria' }])
    expect(
      rubricFaults({
        title: 'R',
        criteria: [criterion({ levels: [] }), criterion({ title: '' }), criterion({ levels: [level(0)] })],
      }),
    ).toEqual([
      { code: 'noLevels', criterion: 0 },
      { code: 'criterionNoTitle', criterion: 1 },
      { code: 'noPoints', criterion: 2 },
    ])
    expect(
      rubricFaults({
        title: 'R',
        criteria: [
          criterion({
            levels: [
              level(400),
              level(400),
              level(600, { pointsFrom: 300 }),
              level(800, { pointsFrom: 900 }),
            ],
          }),
        ],
      }),
    ).toEqual([
      { code: 'levelOrder', criterion: 0, level: 1 },
      { code: 'rangesMeet', criterion: 0, level: 2 },
      { code: 'rangeOrder', criterion: 0, level: 3 },
    ])
    expect(rubricFaults({ title: 'R', criteria: [criterion()] })).toEqual([])
  })
  it('is worth its highest levels, by weight', () => {
    expect(
      pointsOf({ criteria: [criterion(), criterion({ weight: 2, levels: [level(0), level(300)] })] }),
    ).toBe(1000)
  })
  it('comes back from CASE JSON as it went', () => {
    fc.assert(
      fc.property(anyRubric, rubric => {
        const text = JSON.stringify({
          CFRubrics: [rubricToCase(rubric, nextId(), nextId, '2026-10-14T08:20:00Z', known)],
        })
        expect(rubricsFromCase(text)).toEqual({ kind: 'read', found: [rubric] })
      }),
      { numRuns: 80, seed: 1 },
    )
  })
  it('comes back from separated values as it went, formulas disarmed on the way', () => {
    fc.assert(
      fc.property(anyRubric, rubric => {
        const csv = rubricToCsv(rubric)
        expect(csv).not.toMatch(/(^|[,\n])"?[=@]/)
        expect(rubricFromCsv(new TextEncoder().encode(csv), rubric.title)).toEqual({
          kind: 'read',
          rubric: { ...rubric, criteria: rubric.criteria.map(c => ({ ...c, suggestFrom: null })) },
        })
      }),
      { numRuns: 80, seed: 2 },
    )
  })
  it('names its first outcome where the standard has a place for one, and the others beside it', () => {
    const rubric = { title: 'R', criteria: [criterion({ outcomes: ['sea 2', 'hc-1'] }), criterion()] }
    const [first, second] = rubricToCase(rubric, 'r', nextId, '2026-10-14T08:20:00Z', known).CFRubricCriteria
    expect(first!.CFItemURI).toEqual({ title: 'Weighs.', identifier: 'sea 2', uri: 'urn:uuid:sea 2' })
    expect(first!.extensions.furtherCFItemURIs).toMatchObject([{ identifier: 'hc-1' }])
    expect(second).not.toHaveProperty('CFItemURI')
    // of another program, which knows one
    const other = { title: 'R', CFRubricCriteria: [{ category: 'Evidence', CFItemURI: { identifier: 'x' } }] }
    expect(rubricsFromCase(JSON.stringify(other))).toMatchObject({
      found: [{ criteria: [{ outcomes: ['x'] }] }],
    })
  })
  it('names the line of a row it cannot read', () => {
    expect(
      rubricFromCsv(new TextEncoder().encode('criterion,level 1,points 1\nEvidence,Asserts,two\n'), 'R'),
    ).toEqual({ kind: 'refused', line: 2, code: 'badPoints', value: 'two' })
    expect(rubricFromCsv(new TextEncoder().encode('a,b\n1,2\n'), 'R')).toMatchObject({
      kind: 'refused',
      line: 1,
      code: 'noHeader',
    })
    expect(rubricsFromCase('{')).toEqual({ kind: 'refused', code: 'notJson' })
    expect(rubricsFromCase('{"title":"x"}')).toEqual({ kind: 'refused', code: 'nothingInIt' })
  })
})

describe('learning outcomes', () => {
  it('come from a CASE package and from separated values', () => {
    const text = JSON.stringify({
      CFDocument: { title: 'History' },
      CFItems: [
        { identifier: 'a1', humanCodingScheme: 'H1', fullStatement: 'Weighs sources.' },
        { identifier: 'a2' },
      ],
    })
    expect(outcomesFromCase(text)).toEqual({
      kind: 'read',
      found: [{ identifier: 'a1', code: 'H1', statement: 'Weighs sources.' }],
    })
    expect(outcomesFromCsv(new TextEncoder().encode('code;statement\nH1;Weighs sources.\nH2;\n'))).toEqual({
      found: [{ identifier: 'H1', code: 'H1', statement: 'Weighs sources.' }],
      badLines: [3],
    })
    expect(outcomesFromCsv(new TextEncoder().encode('a;b\n'))).toBeNull()
  })
})
