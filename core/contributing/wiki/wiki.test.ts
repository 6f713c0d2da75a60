import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { countWords } from '../measureText'
import { paragraphs, plainText, type RichNode } from '../richText'
import { changedText, onlyChanges, type ChangedBlock } from './changedText'
import { applySteps, comparePages, stepsOf } from './comparePages'
import { asGone, followAuthors, GoneWords, spread, standingWords, type Runs } from './followAuthors'
import { mergePages } from './mergePages'
import { docOf, PageReader, sameTokens, wordsIn, type PageText } from './pageText'
import { reworked, somePage } from './pages.testing'
import { shares } from './shares'

const read = (...texts: string[]) => {
  const reader = new PageReader()
  return { reader, texts: texts.map(t => reader.read(paragraphs(t))) }
}
const say = (blocks: readonly ChangedBlock[]) =>
  blocks.map(
    b =>
      `${b.moved ? `${b.moved}:` : ''}${b.as === 'movedAway' ? 'away:' : ''}${b.parts
        .map(p => {
          const text = p.nodes.map(n => n.text ?? '*').join('')
          if (p.as === 'added') return `{+${text}+}`
          if (p.as === 'removed') return `[-${text}-]`
          return text
        })
        .join('')}`,
  )
const changes = (was: string, is: string) => {
  const {
    texts: [a, b],
  } = read(was, is)
  return say(changedText(a!, b!, comparePages(a!, b!)))
}
/** Adjacent text nodes that look alike made one, as an editor keeps them. */
const tidy = (doc: RichNode): RichNode => docOf(new PageReader().read(doc).tokens)

describe('taking a page apart', () => {
  it('gives the same document back, whatever is in it', () => {
    fc.assert(
      fc.property(fc.integer(), seed => {
        const doc = somePage(seededRandom(seed))
        expect(docOf(new PageReader().read(doc).tokens)).toEqual(doc)
      }),
      { numRuns: 300 },
    )
  })
  it('counts words as they are counted everywhere, also where one word looks different within', () => {
    const doc: RichNode = {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [
            { type: 'text', text: 'The har' },
            { type: 'text', text: 'bour’s', marks: [{ type: 'bold' }] },
            { type: 'text', text: ' mole of 1,589 isn’t ours' },
          ],
        },
      ],
    }
    const { tokens } = new PageReader().read(doc)
    expect(wordsIn(tokens)).toBe(countWords(plainText(doc)))
    expect(docOf(tokens)).toEqual(doc)
  })
  it('is the same text however its attributes are stored', () => {
    const page = (attrs: Record<string, string>): RichNode => ({
      type: 'doc',
      content: [
        { type: 'image', attrs },
        {
          type: 'paragraph',
          content: [
            { type: 'footnote', attrs },
            { type: 'text', text: 'a', marks: [{ type: 'link', attrs }] },
          ],
        },
      ],
    })
    const reader = new PageReader()
    expect(
      sameTokens(
        reader.read(page({ src: '1', alt: '2' })).tokens,
        reader.read(page({ alt: '2', src: '1' })).tokens,
      ),
    ).toBe(true)
  })
  it('makes a valid document of tokens whose block is gone', () => {
    const { tokens } = new PageReader().read(paragraphs('one two'))
    expect(docOf(tokens.slice(1))).toEqual(paragraphs('one two'))
  })
})

describe('comparing two versions', () => {
  it('gives the later of the earlier and the difference, whatever was done', () => {
    fc.assert(
      fc.property(fc.integer(), seed => {
        const random = seededRandom(seed)
        const doc = somePage(random)
        const later = random() < 0.1 ? somePage(random) : reworked(random, doc)
        const reader = new PageReader()
        const [a, b] = [reader.read(doc), reader.read(later)]
        const comparison = comparePages(a, b)
        expect(docOf(applySteps(a.tokens, stepsOf(a, b, comparison)))).toEqual(tidy(later))
        // no token of the earlier text stands twice in the later
        const used = [...comparison.from].filter(i => i >= 0)
        expect(new Set(used).size).toBe(used.length)
        // words balance
        expect(wordsIn(b.tokens) - comparison.added).toBe(wordsIn(a.tokens) - comparison.removed)
        // and what is read shows every word of the later once, and every removed word once
        const shown = changedText(a, b, comparison)
        const words = (as: string[]) =>
          shown
            .filter(x => x.as !== 'movedAway')
            .flatMap(x => x.parts)
            .filter(p => as.includes(p.as))
            .reduce((sum, p) => sum + wordsOfNodes(p.nodes), 0)
        expect(words(['added', 'kept'])).toBe(wordsIn(b.tokens))
        expect(words(['removed'])).toBe(comparison.removed)
      }),
      { numRuns: 600 },
    )
  })
  it('says nothing changed where nothing did, and everything where nothing stayed', () => {
    const {
      texts: [a, b, none],
    } = read('One two three.', 'One two three.', '')
    expect(comparePages(a!, b!)).toMatchObject({ added: 0, removed: 0, moved: [] })
    expect(comparePages(a!, none!)).toMatchObject({ added: 0, removed: 3 })
    expect(comparePages(none!, a!)).toMatchObject({ added: 3, removed: 0 })
  })
  it('reads as the change was made: replaced phrases whole, a word or two between them with them', () => {
    expect(
      changes(
        'The first mole was built by the town; the second came later, and only the second made a harbour.',
        'The first mole was raised on the pilots’ dues; the second followed in 1591, and only the second made a harbour.',
      ),
    ).toEqual([
      'The first mole was [-built by the town-]{+raised on the pilots’ dues+}; the second [-came later-]{+followed in 1591+}, and only the second made a harbour.',
    ])
  })
  it('puts a new block where it begins', () => {
    expect(
      changes('The mole stands.\nThe mole fell.', 'The mole stands.\nThe mole grew.\nThe mole fell.'),
    ).toEqual(['The mole stands.', '{+The mole grew.+}', 'The mole fell.'])
    expect(changes('A b c.\nD e f.', 'A b c.\nA b c.\nD e f.').filter(b => b === '{+A b c.+}')).toHaveLength(
      1,
    )
  })
  it('knows a moved block again, also one that was changed on the way', () => {
    const oath = 'No pilot might bring a hull in by lantern. He swore it yearly before the stair-master.'
    const rest = [
      'Port Amara lies open to the south-west and pays for it.',
      'What the moles did to those outside is hard to say.',
      'By the fever year the water was blamed for it all.',
    ]
    expect(
      changes(
        [...rest, oath].join('\n'),
        [rest[0], `${oath} It is older than the stones.`, rest[1], rest[2]].join('\n'),
      ),
    ).toEqual([rest[0], `up:${oath}{+ It is older than the stones.+}`, rest[1], rest[2], `away:[-${oath}-]`])
  })
  it('shows a joined and a divided paragraph without losing words', () => {
    expect(changes('One two three.\nFour five six.', 'One two three. Four five six.').join('|')).toMatch(
      /One two three.*Four five six\./,
    )
    expect(
      changes('One two three. Four five six seven.', 'One two three.\nFour five six seven.')
        .join('|')
        .replaceAll(/[{}[\]+-]/g, ''),
    ).toContain('Four five six seven.')
  })
  it('leaves out what did not change, but its heading', () => {
    const {
      texts: [a, b],
    } = read(
      'One one one one.\nTwo two.\nThree.\nFour four four.',
      'One one one one.\nTwo two.\nThree and more.\nFour four four.',
    )
    expect(
      onlyChanges(changedText(a!, b!, comparePages(a!, b!))).map(x => ('leftOut' in x ? x.leftOut : x.as)),
    ).toEqual([2, 'changed', 1])
  })
})

describe('a page of twenty thousand words', () => {
  const random = seededRandom(20)
  const long: RichNode = {
    type: 'doc',
    content: Array.from({ length: 200 }, (_, i) => ({
      type: 'paragraph',
      content: [
        {
          type: 'text',
          text: Array.from({ length: 100 }, () => `w${Math.floor(random() * 4000)}`).join(' ') + ` ${i}.`,
        },
      ],
    })),
  }
  it.each([
    ['pasted over', somePage(random, 60)],
    ['turned round', { type: 'doc', content: [...long.content!].reverse() }],
    ['emptied', { type: 'doc' }],
    ['reworked', reworked(random, reworked(random, long))],
  ] as Array<[string, RichNode]>)('is compared right when %s', (_, later) => {
    const reader = new PageReader()
    const [a, b] = [reader.read(long), reader.read(later)]
    const c = comparePages(a, b)
    expect(docOf(applySteps(a.tokens, stepsOf(a, b, c)))).toEqual(tidy(later))
    expect(wordsIn(b.tokens) - c.added).toBe(20_200 - c.removed)
  })
  it('turned round has moved and not been written', () => {
    const reader = new PageReader()
    const c = comparePages(
      reader.read(long),
      reader.read({ type: 'doc', content: [...long.content!].reverse() }),
    )
    expect(c.added).toBe(0)
    expect(c.moved).toHaveLength(199)
  })
})

const wordsOfNodes = (nodes: readonly RichNode[]) =>
  wordsIn(new PageReader().read({ type: 'doc', content: [{ type: 'paragraph', content: nodes }] }).tokens)

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

describe('joining what two wrote at once', () => {
  const joined = (
    base: string,
    mine: string,
    theirs: string,
    choices: Parameters<typeof mergePages>[4] = [],
  ) => {
    const {
      reader,
      texts: [b, m, t],
    } = read(base, mine, theirs)
    const { text, overlaps } = mergePages(reader, b!, m!, t!, choices)
    return {
      text: plainText(docOf(text.tokens)),
      overlaps: overlaps.map(o => ({
        mine: o.mine.map(x => x.text).join(''),
        theirs: o.theirs.map(x => x.text).join(''),
      })),
    }
  }
  const base = 'The first mole was built in 1589.\nThe second mole was built in 1591.\nBoth stand.'
  it('takes changes in different places, and new paragraphs of both at one place', () => {
    expect(
      joined(base, base.replace('1589', '1589, it is said'), base.replace('Both stand', 'Both stand still')),
    ).toEqual({
      text: base.replace('1589', '1589, it is said').replace('Both stand', 'Both stand still'),
      overlaps: [],
    })
    expect(joined(base, `${base}\nMine is new.`, `${base}\nTheirs is new.`)).toEqual({
      text: `${base}\nTheirs is new.\nMine is new.`,
      overlaps: [],
    })
  })
  it('puts true overlaps to the writer, and does as they choose', () => {
    const [mine, theirs] = [
      base.replace('built in 1589', 'raised on dues'),
      base.replace('built in 1589', 'begun by the guild'),
    ]
    expect(joined(base, mine, theirs).overlaps).toEqual([
      { mine: 'raised on dues', theirs: 'begun by the guild' },
    ])
    expect(joined(base, mine, theirs, ['mine']).text).toBe(mine)
    expect(joined(base, mine, theirs, ['theirs']).text).toBe(theirs)
    expect(joined(base, mine, theirs, ['both']).text).toContain('begun by the guild raised on dues')
  })
  it('asks where one took out what the other changed', () => {
    expect(
      joined(
        base,
        base
          .split('\n')
          .filter((_, i) => i !== 1)
          .join('\n'),
        base.replace('1591', '1592'),
      ).overlaps,
    ).toHaveLength(1)
  })
  it('changes nothing where only one side changed, and loses no word of either otherwise', () => {
    fc.assert(
      fc.property(fc.integer(), seed => {
        const random = seededRandom(seed)
        const doc = somePage(random)
        const [mine, theirs] = [reworked(random, doc), reworked(random, doc)]
        const reader = new PageReader()
        const [b, m, t] = [reader.read(doc), reader.read(mine), reader.read(theirs)]
        expect(docOf(mergePages(reader, b, m, b).text.tokens)).toEqual(tidy(mine))
        expect(docOf(mergePages(reader, b, b, t).text.tokens)).toEqual(tidy(theirs))
        expect(docOf(mergePages(reader, b, m, m).text.tokens)).toEqual(tidy(mine))
        const { text } = mergePages(reader, b, m, t)
        const count = (x: PageText) =>
          x.tokens.reduce(
            (map, k) => (k.kind === 'word' ? map.set(k.text, (map.get(k.text) ?? 0) + 1) : map),
            new Map<string, number>(),
          )
        const [inBase, inText] = [count(b), count(text)]
        for (const side of [m, t])
          for (const [word, n] of count(side))
            expect(inText.get(word) ?? 0, `${word} of ${seed}`).toBeGreaterThanOrEqual(
              Math.min(n, n - (inBase.get(word) ?? 0)),
            )
      }),
      { numRuns: 300 },
    )
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
