import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { paragraphs, plainText, type RichNode } from '#core/contributing/richText'
import { mergePages } from './mergePages'
import { docOf, PageReader, type PageText } from './pageText'
import { reworked, somePage } from './pages.testing'

const read = (...texts: string[]) => {
  const reader = new PageReader()
  return { reader, texts: texts.map(t => reader.read(paragraphs(t))) }
}
/** Adjacent text nodes that look alike made one, as an editor keeps them. */
const tidy = (doc: RichNode): RichNode => docOf(new PageReader().read(doc).tokens)

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
