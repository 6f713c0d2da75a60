import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { countWords } from '#core/contributing/measureText'
import { paragraphs, plainText, type RichNode } from '#core/contributing/richText'
import { changedText, onlyChanges, type ChangedBlock } from './changedText'
import { applySteps, comparePages, stepsOf } from './comparePages'
import { docOf, PageReader, sameTokens, wordsIn } from './pageText'
import { reworked, somePage } from './pages.testing'

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

const wordsOfNodes = (nodes: readonly RichNode[]) =>
  wordsIn(new PageReader().read({ type: 'doc', content: [{ type: 'paragraph', content: nodes }] }).tokens)

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
