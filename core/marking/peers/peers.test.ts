import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { agreementWord, krippendorffAlpha } from './agreement'
import { consensusOf, type PeerReview } from './consensus'
import { shareOfGroup } from './ownShare'
import { reviewingShare } from './reviewingMark'
import { fitSeverity, type PeerScore } from './severity'

describe('agreement', () => {
  it('gives 0.849 for the twelve units by four observers of Krippendorff (2011)', () => {
    const rows = [
      [1, 2, 3, 3, 2, 1, 4, 1, 2, null, null, null],
      [1, 2, 3, 3, 2, 2, 4, 1, 2, 5, null, 3],
      [null, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, null],
      [1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, null],
    ]
    const units = rows[0]!.map((_, u) => rows.flatMap(r => r[u] ?? []))
    expect(krippendorffAlpha(units)).toBeCloseTo(0.849, 3)
  })

  it('equals the sum over all pairs of values, whatever is missing', () => {
    const random = seededRandom(3)
    for (let round = 0; round < 60; round++) {
      const units = Array.from({ length: 4 + Math.floor(random() * 8) }, () =>
        Array.from({ length: Math.floor(random() * 5) }, () => 1e4 + Math.floor(random() * 11) * 50),
      )
      const kept = units.filter(u => u.length > 1)
      const all = kept.flat()
      const pairs = (v: readonly number[]) =>
        v.reduce((sum, a, i) => sum + v.reduce((s, b, j) => (i === j ? s : s + (a - b) ** 2), 0), 0)
      const [observed, expected] = [
        kept.reduce((s, u) => s + pairs(u) / (u.length - 1), 0) / all.length,
        pairs(all) / (all.length * (all.length - 1)),
      ]
      const alpha = krippendorffAlpha(units)
      if (all.length === 0 || expected === 0) expect(alpha).toBeNull()
      else expect(alpha).toBeCloseTo(1 - observed / expected, 8)
    }
    expect([agreementWord(0.85), agreementWord(0.61), agreementWord(0.3), agreementWord(-0.2)]).toEqual([
      'close',
      'broad',
      'loose',
      'none',
    ])
  })
})

// six targets by four judges: Shrout and Fleiss (1979), "Intraclass correlations", table 2
const TARGETS = [
  [9, 2, 5, 8],
  [6, 1, 3, 2],
  [8, 4, 6, 8],
  [7, 1, 2, 6],
  [10, 5, 6, 9],
  [6, 2, 4, 7],
]
const published = TARGETS.flatMap((row, t) =>
  row.map((points, j): PeerScore => ({ authorId: `t${t}`, reviewerId: `j${j}`, points })),
)

describe('severity', () => {
  it('reproduces the published analysis of variance: error mean square 1.02, judges’ mean square 32.49', () => {
    const fit = fitSeverity(published)
    expect(fit.residualSd! ** 2).toBeCloseTo(1.02, 2)
    const penalty = fit.penalty.get('j0')!
    expect([...fit.penalty.values()].every(p => Math.abs(p - penalty) < 1e-9)).toBe(true)
    const judges = fit.residualSd! ** 2 / penalty
    expect(judges).toBeCloseTo((32.49 - 1.02) / 6, 2)
    // where everyone judges everything, a work's quality is its mean, and a severity the judge's mean less
    // the grand mean, shrunk by n / (n + penalty)
    expect(fit.quality.get('t0')).toBeCloseTo(6, 8)
    const grand = published.reduce((s, p) => s + p.points, 0) / published.length
    for (const [j, sum] of [46, 15, 26, 40].entries())
      expect(fit.severity.get(`j${j}`)).toBeCloseTo(((sum / 6 - grand) * 6) / (6 + penalty), 6)
  })

  it('is where the penalised squares are least, and severities sum to nothing', () => {
    const random = seededRandom(8)
    for (let round = 0; round < 25; round++) {
      const scores = sparse(random, 12 + Math.floor(random() * 10), 3, 1, 0.5)
      const fit = fitSeverity(scores)
      expect(Math.abs([...fit.severity.values()].reduce((a, b) => a + b, 0))).toBeLessThan(1e-6)
      const penaltyOf = (id: string) => fit.penalty.get(id)!
      const moving = new Set([...fit.severity.keys()].filter(id => penaltyOf(id) < Infinity))
      for (const [id, s] of fit.severity) if (!moving.has(id)) expect(Math.abs(s)).toBeLessThan(1e-9)
      const cost = (q: ReadonlyMap<string, number>, s: ReadonlyMap<string, number>) =>
        scores.reduce((sum, x) => sum + (x.points - q.get(x.authorId)! - s.get(x.reviewerId)!) ** 2, 0) +
        [...s].reduce((sum, [id, v]) => sum + (moving.has(id) ? penaltyOf(id) * v * v : 0), 0)
      const least = cost(fit.quality, fit.severity)
      for (let i = 0; i < 20; i++) {
        const nudge = (map: ReadonlyMap<string, number>) =>
          new Map(
            [...map].map(([k, v]) => [
              k,
              map === fit.severity && !moving.has(k) ? v : v + (random() - 0.5) * 0.02,
            ]),
          )
        expect(cost(nudge(fit.quality), nudge(fit.severity))).toBeGreaterThanOrEqual(least - 1e-7)
      }
    }
  })

  it('finds somebody who marks low throughout, and comes nearer to the true worth than the mean does', () => {
    const random = seededRandom(31)
    let [corrected, plain] = [0, 0]
    for (let round = 0; round < 30; round++) {
      const n = 21
      const truth = Array.from({ length: n }, () => 2 + random() * 2)
      const low = Array.from({ length: n }, (_, i) => (i === 7 ? -1.2 : (random() - 0.5) * 0.3))
      const scores = truth.flatMap((q, a) =>
        [1, 2, 3].map((d): PeerScore => {
          const r = (a + d) % n
          return { authorId: `a${a}`, reviewerId: `r${r}`, points: q + low[r]! + (random() - 0.5) * 0.5 }
        }),
      )
      const fit = fitSeverity(scores)
      const lowest = [...fit.severity].sort((x, y) => x[1] - y[1])[0]!
      expect(lowest[0]).toBe('r7')
      const mean = low.reduce((a, b) => a + b, 0) / n
      truth.forEach((q, a) => {
        corrected += (fit.quality.get(`a${a}`)! - q - mean) ** 2
        plain +=
          (scores.filter(s => s.authorId === `a${a}`).reduce((sum, s) => sum + s.points, 0) / 3 - q - mean) **
          2
      })
    }
    expect(corrected).toBeLessThan(plain * 0.6)
  })

  it('gives the same as straightforward elimination of the same equations, with anchors and without', () => {
    const random = seededRandom(77)
    for (let round = 0; round < 30; round++) {
      const scores = sparse(random, 9 + Math.floor(random() * 6), 3, 1, 0.4)
      const anchors =
        round % 2 === 0 ? [] : [0, 3, 5].map(a => ({ authorId: `a${a}`, points: 2.5 + random() }))
      const fit = fitSeverity(scores, anchors)
      const expected = byElimination(scores, anchors, fit.penalty)
      for (const [id, s] of expected.severity) expect(fit.severity.get(id)!).toBeCloseTo(s, 6)
      for (const [id, q] of expected.quality) expect(fit.quality.get(id)!).toBeCloseTo(q, 6)
      if (anchors.length > 0) expect(fit.shared!).toBeCloseTo(expected.shared, 6)
      else expect(fit.shared).toBeNull()
    }
  })

  it('takes out leniency all readers share where the instructor scored some of the works, and never otherwise', () => {
    const random = seededRandom(12)
    const truth = new Map(Array.from({ length: 20 }, (_, a) => [`a${a}`, 2 + random() * 2]))
    const scores = [...truth].flatMap(([authorId, q], a) =>
      [1, 2, 3].map(d => ({
        authorId,
        reviewerId: `r${(a + d) % 20}`,
        points: q + 0.8 + (random() - 0.5) * 0.4,
      })),
    )
    const anchors = ['a0', 'a4', 'a9', 'a13'].map(authorId => ({ authorId, points: truth.get(authorId)! }))
    const off = (of: ReadonlyMap<string, number>) =>
      [...truth].reduce((sum, [id, q]) => sum + of.get(id)! - q, 0) / truth.size
    expect(Math.abs(off(fitSeverity(scores, anchors).quality))).toBeLessThan(0.1)
    expect(fitSeverity(scores, anchors).shared!).toBeCloseTo(0.8, 0)
    expect(off(fitSeverity(scores).quality)).toBeCloseTo(0.8, 0)
  })

  it('corrects one reader two points too harsh among two hundred by most of it, and ordinary readers as before', () => {
    const random = seededRandom(19)
    const harsh: number[] = []
    for (let round = 0; round < 10; round++) {
      const scores = Array.from({ length: 200 }, (_, a) =>
        [1, 2, 5].map(d => ({
          authorId: `a${a}`,
          reviewerId: `r${(a + d) % 200}`,
          points: 5 + ((a + d) % 200 === 7 ? -2 : 0) + 0.5 * normal(random),
        })),
      ).flat()
      const fit = fitSeverity(scores)
      harsh.push(fit.severity.get('r7')!)
      const others = [...fit.severity].filter(([id]) => id !== 'r7').map(([, s]) => Math.abs(s))
      expect(others.filter(s => s > 0.5).length).toBeLessThan(4)
    }
    for (const s of harsh) expect(s).toBeLessThan(-1)
    expect(harsh.reduce((a, b) => a + b, 0) / harsh.length).toBeLessThan(-1.5)
  })

  it('leaves readers alone as what is corrected; an instructor’s mark is joined with it in a figure of its own', () => {
    const without = fitSeverity(published)
    const anchored = fitSeverity(published, [{ authorId: 't0', points: 9 }])
    // the instructor is 3 points above all readers of the one work both scored, so that all works go up alike
    for (const [id, q] of without.quality) expect(anchored.quality.get(id)!).toBeCloseTo(q + 3, 6)
    expect(anchored.withAnchor.get('t0')!).toBeCloseTo(9, 6)
    expect([...anchored.withAnchor.keys()]).toEqual(['t0'])
  })
})

/** Severities, their shared mean and qualities where the penalised squares are least, from the full set of equations. */
function byElimination(
  scores: readonly PeerScore[],
  anchors: ReadonlyArray<{ readonly authorId: string; readonly points: number }>,
  penalty: ReadonlyMap<string, number>,
) {
  const authors = [...new Set(scores.map(s => s.authorId))]
  const reviewers = [...penalty.keys()]
  const moving = reviewers.filter(r => penalty.get(r)! < Infinity)
  const unknowns = [...authors, ...moving, ...(anchors.length > 0 ? ['shared'] : [])]
  const at = (id: string) => unknowns.indexOf(id)
  const rows = unknowns.map(() => new Array<number>(unknowns.length + 1).fill(0))
  const equation = (ids: readonly string[], value: number, weight: number) => {
    const places = ids.map(at).filter(i => i >= 0)
    for (const i of places) {
      for (const j of places) rows[i]![j]! += weight
      rows[i]![unknowns.length]! += weight * value
    }
  }
  for (const s of scores) equation([s.authorId, s.reviewerId, 'shared'], s.points, 1)
  for (const a of anchors) equation([a.authorId], a.points, 3)
  for (const r of moving) equation([r], 0, penalty.get(r)!)
  for (let i = 0; i < rows.length; i++) {
    const pivot = rows.slice(i).reduce((best, row) => (Math.abs(row[i]!) > Math.abs(best[i]!) ? row : best))
    rows.splice(rows.indexOf(pivot), 1, rows[i]!)
    rows[i] = pivot
    for (const row of rows)
      if (row !== pivot && row[i] !== 0) {
        const by = row[i]! / pivot[i]!
        for (let j = i; j <= unknowns.length; j++) row[j]! -= by * pivot[j]!
      }
  }
  const of = (id: string) => (at(id) < 0 ? 0 : rows[at(id)]![unknowns.length]! / rows[at(id)]![at(id)]!)
  const mean = reviewers.reduce((sum, r) => sum + of(r), 0) / reviewers.length
  const severity = new Map(reviewers.map(r => [r, of(r) - mean]))
  const shared = anchors.length > 0 ? of('shared') + mean : 0
  return {
    severity,
    shared,
    quality: new Map(
      authors.map(a => {
        const own = scores.filter(s => s.authorId === a)
        return [
          a,
          own.reduce((sum, s) => sum + s.points - severity.get(s.reviewerId)! - shared, 0) / own.length,
        ] as const
      }),
    ),
  }
}
const normal = (random: () => number) =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

const CRITERIA = ['q', 's', 't', 'e'].map(id => ({ id, max: 500, weight: 1, level: 200 }))
const review = (reviewerId: string, authorId: string, ...points: number[]): PeerReview => ({
  id: `${reviewerId}-${authorId}`,
  reviewerId,
  authorId,
  points: new Map(points.map((p, i) => [CRITERIA[i]!.id, p * 100])),
})

describe('consensus', () => {
  const reviews = [
    review('I', 'G', 4, 4, 3.5, 4.5),
    review('T', 'G', 3.5, 2, 4, 3),
    review('V', 'G', 4.5, 4.5, 3.5, 3),
    review('T', 'H', 2, 2, 3, 2.5),
    review('I', 'H', 4, 3.5, 4, 4),
    review('V', 'K', 4, 4, 4, 4),
    review('T', 'K', 3, 2.5, 3, 2.5),
    review('I', 'K', 4, 4.5, 4, 4),
  ]

  it('has mean, median and trimmed mean by criterion, and totals that are their sums', () => {
    const { authors } = consensusOf(reviews, CRITERIA)
    const g = authors.get('G')!
    expect(g.criteria.get('q')).toMatchObject({ mean: 400, median: 400, trimmed: 400 })
    expect(g.criteria.get('s')!.mean).toBeCloseTo(350, 6)
    expect(g.mean).toBeCloseTo(
      [...g.criteria.values()].reduce((s, c) => s + c.mean!, 0),
      6,
    )
    expect(g.corrected).toBeCloseTo(
      [...g.criteria.values()].reduce((s, c) => s + c.corrected!, 0),
      6,
    )
  })

  it('takes what runs low out, says how far a review stands from the others, and lets go of it when it is set aside', () => {
    const { authors, severity, apart, distances } = consensusOf(reviews, CRITERIA)
    expect(severity.get('T')!).toBeLessThan(-150)
    expect(authors.get('H')!.corrected!).toBeGreaterThan(authors.get('H')!.mean!)
    expect(apart).toEqual([]) // too few reviews to tell anybody from chance
    expect(distances.get('T-G')!.by).toBeLessThan(0)
    const without = consensusOf(
      reviews.filter(r => r.id !== 'T-G'),
      CRITERIA,
    )
    expect(without.authors.get('G')!.mean).toBeCloseTo((1600 + 1550) / 2, 6)
    expect(without.distances.has('T-G')).toBe(false)
  })

  it('makes no figure of a review that has no rubric', () => {
    const { alpha, authors } = consensusOf(reviews, [])
    expect([alpha, authors.get('G')]).toMatchObject([null, { mean: null, corrected: null }])
  })

  it('says which review stands apart, and of reviews that are only noise flags less than one in a hundred', () => {
    const random = seededRandom(5)
    const fine = CRITERIA.map(c => ({ ...c, level: 50 }))
    const round = (n: number, each: number, shift: (a: number, d: number) => number) =>
      Array.from({ length: n }, (_, a) => {
        const worth = CRITERIA.map(() => 3 + 0.5 * normal(random))
        return Array.from({ length: each }, (_, d) => {
          const halo = 0.6 * normal(random) // the criteria of one review err together
          return review(
            `r${(a + d + 1) % n}`,
            `a${a}`,
            ...worth.map(w => w + halo + 0.6 * normal(random) + shift(a, d)),
          )
        })
      }).flat()
    for (const [n, each] of [
      [8, 2],
      [24, 3],
      [60, 2],
      [60, 3],
      [60, 5],
    ] as const) {
      let [all, apart] = [0, 0]
      for (let i = 0; i < 20; i++) {
        const reviews = round(n, each, () => 0)
        all += reviews.length
        apart += consensusOf(reviews, fine).apart.length
      }
      expect(apart / all, `${n} people, ${each} reviews each`).toBeLessThan(0.01)
    }
    const odd = consensusOf(
      round(24, 3, (a, d) => (a === 5 && d === 1 ? -3 : 0)),
      fine,
    )
    expect(odd.apart.map(d => d.reviewId)).toEqual(['r7-a5'])
  })

  it('keeps an instructor’s own points beside the consensus: it says both, and what readers gave is theirs alone', () => {
    const plain = consensusOf(reviews, CRITERIA)
    expect([plain.shared, plain.anchored, plain.authors.get('G')!.withYours]).toEqual([null, 0, null])
    const own = new Map([['G', new Map([['q', 500]])]])
    const { authors, shared, anchored } = consensusOf(reviews, CRITERIA, own)
    const q = authors.get('G')!.criteria.get('q')!
    expect(q.corrected).toBeCloseTo(plain.authors.get('G')!.criteria.get('q')!.corrected! - shared!, 6)
    expect(q.withYours).toBeCloseTo((3 * q.corrected! + 3 * 500) / 6, 6)
    expect([anchored, authors.get('H')!.withYours, authors.get('G')!.criteria.get('s')!.withYours]).toEqual([
      1,
      null,
      null,
    ])
  })

  it('stays on the scale, and knows nothing of a criterion nobody scored', () => {
    const { authors } = consensusOf(
      [
        review('I', 'G', 5, 5, 5),
        review('T', 'G', 5, 5, 5),
        review('T', 'H', 1, 1, 1),
        review('I', 'H', 5, 5, 5),
      ],
      CRITERIA,
    )
    for (const a of authors.values())
      for (const [id, c] of a.criteria) {
        if (id === 'e') {
          expect(c.corrected).toBeNull()
          continue
        }
        expect(c.corrected!).toBeLessThanOrEqual(500)
        expect(c.corrected!).toBeGreaterThanOrEqual(0)
      }
    expect(authors.get('G')!.corrected).toBeNull()
  })
})

describe('shares and reviewing', () => {
  it('is own mean over the group’s, bounded, what one gives oneself left out', () => {
    const scores = [
      ['a', 'b', 8],
      ['a', 'c', 4],
      ['b', 'a', 12],
      ['c', 'a', 12],
      ['b', 'c', 4],
      ['c', 'b', 8],
      ['a', 'a', 16],
    ].map(([reviewerId, memberId, points]) => ({
      reviewerId: String(reviewerId),
      memberId: String(memberId),
      points: Number(points),
    }))
    expect(shareOfGroup(['a', 'b', 'c'], scores, { least: 0.6, most: 1.2 })).toEqual([
      { memberId: 'a', mean: 12, self: 16, factor: 1.2 },
      { memberId: 'b', mean: 8, self: null, factor: 1 },
      { memberId: 'c', mean: 4, self: null, factor: 0.6 },
    ])
    expect(
      shareOfGroup(
        ['a', 'b', 'd'],
        scores.filter(s => s.memberId !== 'd'),
        { least: 0, most: 2 },
      ).at(-1),
    ).toEqual({ memberId: 'd', mean: null, self: null, factor: null })
  })

  it('counts reviews done, on time, helpful and near the others; what is not known leaves its share to the rest', () => {
    expect(reviewingShare({ owed: 3, done: 3, onTime: 3, helpful: [5, 5], distances: [0, 0] }).share).toBe(1)
    expect(reviewingShare({ owed: 2, done: 1, onTime: 1, helpful: [], distances: [] })).toEqual({
      share: 0.5,
      parts: { done: 0.5, onTime: 0.5, helpful: null, close: null },
    })
    expect(
      reviewingShare({ owed: 4, done: 4, onTime: 2, helpful: [3], distances: [0.5, 2] }).share,
    ).toBeCloseTo(0.4 + 0.2 * 0.5 + 0.2 * 0.5 + 0, 10)
    expect(reviewingShare({ owed: 0, done: 0, onTime: 0, helpful: [], distances: [] }).share).toBeNull()
  })
})

function sparse(random: () => number, n: number, k: number, severity: number, error: number): PeerScore[] {
  const s = Array.from({ length: n }, () => (random() - 0.5) * 2 * severity)
  return Array.from({ length: n }, (_, a) =>
    Array.from({ length: k }, (_, d): PeerScore => ({
      authorId: `a${a}`,
      reviewerId: `r${(a + d + 1) % n}`,
      points: 3 + random() + s[(a + d + 1) % n]! + (random() - 0.5) * 2 * error,
    })),
  ).flat()
}
