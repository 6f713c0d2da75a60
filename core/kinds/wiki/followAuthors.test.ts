import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { paragraphs, type RichNode } from '#core/contributing/richText'
import { asGone, followAuthors, GoneWords, spread, standingWords, type Runs } from './followAuthors'
import { PageReader, wordsIn, type PageText } from './pageText'
import { reworked, somePage } from './pages.testing'
import { shares } from './shares'

/** Origins over a whole history, as the server follows them version by version. */
function history(docs: readonly RichNode[]) {
  const reader = new PageReader()
  const gone = new GoneWords(reader)
  let before: { text: PageText; runs: Runs } | null = null
  return docs.map((doc, v) => {
    const text = reader.read(doc)
    const credited = followAuthors(before, text, gone, `v${v + 1}`)
    gone.add(credited.gone)
    before = { text, runs: credited.runs }
    return { text, ...credited, standing: standingWords(text, credited.runs) }
  })
}
const told = (docs: string[]) => history(docs.map(paragraphs)).map(v => Object.fromEntries(v.standing))

describe('following who wrote what', () => {
  it('gives every token one origin, words written and standing balance, whatever was done', () => {
    fc.assert(
      fc.property(fc.integer(), seed => {
        const random = seededRandom(seed)
        const docs = [somePage(random)]
        for (let n = 0; n < 8; n++)
          docs.push(
            random() < 0.15 ? docs[Math.floor(random() * docs.length)]! : reworked(random, docs.at(-1)!),
          )
        const versions = history(docs)
        for (const [v, { text, runs, standing, written }] of versions.entries()) {
          expect(spread(runs, text.tokens.length)).toHaveLength(text.tokens.length)
          expect([...standing.values()].reduce((s, n) => s + n, 0)).toBe(wordsIn(text.tokens))
          expect(standing.get(`v${v + 1}`) ?? 0).toBe(written)
          for (const origin of standing.keys()) expect(Number(origin.slice(1))).toBeLessThanOrEqual(v + 1)
        }
      }),
      { numRuns: 150 },
    )
  })
  it('keeps origins through a move and through a restored version', () => {
    const [one, two] = [
      'The guild had eleven barges of nineteen lasts each.',
      'The toll began at twenty lasts and not before.',
    ]
    expect(told([one, `${one}\n${two}`, `${two}\n${one}`, '', `${one}\n${two}`])).toEqual([
      { v1: 9 },
      { v1: 9, v2: 9 },
      { v1: 9, v2: 9 },
      {},
      { v1: 9, v2: 9 },
    ])
  })
  it('knows a sentence again that was cut and comes back inside another paragraph', () => {
    const sentence = 'Forty tokens were struck with a mole and a star.'
    expect(
      told([
        `${sentence} Thirty-one are accounted for.`,
        'Thirty-one are accounted for.',
        `Of lead: it is said that ${sentence.toLowerCase().replace('forty', 'Forty')} Nobody knows more.`,
      ])[2]!.v1,
    ).toBe(10)
  })
  it('does not take a phrase of a few common words for one that was gone', () => {
    expect(
      told(['The mole was built in the year of the toll.', 'Nothing.', 'A house in the year 1612.'])[2]!.v1,
    ).toBeUndefined()
  })
  it('takes no cell or heading of another page for pasted words', () => {
    const reader = new PageReader()
    const other = reader.read(paragraphs('the bar\nthe weigh-house'))
    const { runs } = followAuthors(null, other, new GoneWords(reader), 'other:1')
    const next = reader.read(paragraphs('A ship rode outside the bar, and saw the weigh-house from there.'))
    expect(followAuthors(null, next, new GoneWords(reader, asGone(other, runs)), 'here:1').written).toBe(
      wordsIn(next.tokens),
    )
  })
  it('knows words from another page', () => {
    const reader = new PageReader()
    const other = reader.read(
      paragraphs('He swore it yearly before the stair-master, and was paid his oath in wine.'),
    )
    const { runs } = followAuthors(null, other, new GoneWords(reader), 'other:1')
    const next = reader.read(
      paragraphs(
        'New words here.\nHe swore it yearly before the stair-master, and was paid his oath in wine, older than the stones.',
      ),
    )
    const { runs: mixed, written } = followAuthors(
      null,
      next,
      new GoneWords(reader, asGone(other, runs)),
      'here:1',
    )
    expect(Object.fromEntries(standingWords(next, mixed))).toEqual({ 'other:1': 15, 'here:1': 7 })
    expect(written).toBe(7)
  })
})

it('reckons each member’s share: written, standing, comments received on claimed pages or own words', () => {
  const pages = [
    {
      claimedBy: 'idris',
      versions: [
        { id: 'v1', authorId: 'idris', written: 100 },
        { id: 'v2', authorId: 'oona', written: 40 },
      ],
      standing: new Map([
        ['v1', 80],
        ['v2', 40],
        ['elsewhere', 5],
      ]),
    },
  ]
  const comments = [
    { authorId: 'oona', claimedBy: 'idris', writers: [], actedOn: true },
    { authorId: 'idris', claimedBy: 'idris', writers: ['oona'], actedOn: false },
    { authorId: 'idris', claimedBy: 'idris', writers: ['idris'], actedOn: true },
  ]
  expect(shares(['idris', 'oona', 'paz'], pages, comments, new Map([['elsewhere', 'paz']]))).toEqual([
    { memberId: 'idris', written: 100, standing: 80, edits: 1, made: 2, received: 1, actedOn: 1 },
    { memberId: 'oona', written: 40, standing: 40, edits: 1, made: 1, received: 1, actedOn: 0 },
    { memberId: 'paz', written: 0, standing: 5, edits: 0, made: 0, received: 0, actedOn: 0 },
  ])
})
